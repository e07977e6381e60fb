import { plainDocument } from '../../core/documents/document';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Component } from '../../core/kinds/contract';
import { criterion, script, fourNotes, openTable, total, posted, next, level } from '../testing/markingTable';

afterEach(() => {
  vi.unstubAllGlobals();
  Reflect.deleteProperty(Element.prototype, 'scrollIntoView');
  localStorage.clear();
});

describe('the marking table', () => {
  it('shows the response with its code and length; question and scheme open beside it and stay if pinned', async () => {
    await openTable([script(11, 'The cooler failed at four'), script(12, 'two')]);
    expect(screen.getByText('script QX-11 · 5 words')).toBeVisible();
    expect(screen.getByText('The cooler failed at four')).toBeVisible();
    expect(screen.getByText('agreement 0.81 on 9')).toBeVisible();
    expect(screen.queryByRole('region', { name: 'Mark scheme' })).toBeNull();
    await userEvent.keyboard('h');
    expect(screen.getByText('The cooler failed at four.')).toBeVisible();
    await userEvent.click(screen.getByRole('button', { name: 'Keep open for the next scripts' }));
    await userEvent.click(screen.getByRole('heading', { level: 1 }));
    await userEvent.keyboard('30');
    await userEvent.click(next());
    await screen.findByText('script QX-12 · 1 word');
    expect(screen.getByRole('region', { name: 'Mark scheme' })).toBeVisible();
  });

  it('is worked by keys alone: a digit gives the mark it shows, arrows choose the criterion, Enter passes on', async () => {
    const calls = await openTable([script(11, 'one'), script(12, 'two')]);
    expect(next()).toBeDisabled();
    expect(total()).toHaveTextContent('– of 5');
    await userEvent.keyboard('3');
    expect(total()).toHaveTextContent('3 of 5 · language open');
    // Enter does not pass on what is not finished.
    await userEvent.keyboard('{Enter}');
    await userEvent.keyboard('2');
    expect(total()).toHaveTextContent('5 of 5');
    await userEvent.keyboard('{ArrowUp}1');
    expect(total()).toHaveTextContent('3 of 5');
    await userEvent.keyboard('k');
    const comment = screen.getByRole('textbox', { name: 'Comment to the candidate' });
    expect(comment).toHaveFocus();
    // Letters and figures are text there, and Enter a new line.
    await userEvent.keyboard('clear, 2 lots{Enter}');
    expect(posted(calls)).toBeUndefined();
    await userEvent.keyboard('{Escape}{Enter}');
    await screen.findByText('script QX-12 · 1 word');
    expect(posted(calls)).toEqual({
      given: { f: 1, l: 1 },
      comment: 'clear, 2 lots\n',
      notes: [],
      overrides: {},
      seen: null,
    });
    // The next script starts with nothing chosen.
    expect(screen.getByRole('textbox', { name: 'Comment to the candidate' })).toHaveValue('');
    expect(next()).toBeDisabled();
  });

  it('ticks points by letters, and types marks where there are no levels, with Enter', async () => {
    const points: Component = {
      ...criterion('p', 'Points', 0, 200),
      criterion: {
        levels: null,
        points: [
          { hundredths: 100, says: 'names the lots' },
          { hundredths: 50, says: 'gives the time' },
        ],
      },
    };
    const free: Component = { ...criterion('m', 'Method', 0, 1200), criterion: { levels: null, step: 50 } };
    const calls = await openTable([{ ...script(11, 'one'), components: [points, free] }]);
    await userEvent.keyboard('ab');
    expect(total()).toHaveTextContent('1½ of 14 · method open');
    await userEvent.keyboard('b{ArrowDown}10.5');
    expect(total()).toHaveTextContent('1 of 14 · method open');
    await userEvent.keyboard('{Enter}');
    expect(total()).toHaveTextContent('11½ of 14');
    await userEvent.keyboard('{Enter}');
    await screen.findByText('This item is done');
    expect(posted(calls)).toMatchObject({ given: { p: [0], m: 1050 } });
  });

  it('keeps no single keys where they are switched off; what is pressed works all the same', async () => {
    await openTable([{ ...script(11, 'one'), components: [fourNotes] }]);
    await userEvent.click(screen.getByText('Keys'));
    await userEvent.click(screen.getByRole('checkbox', { name: 'Single keys are on' }));
    await userEvent.click(screen.getByRole('heading', { level: 1 }));
    await userEvent.keyboard('4');
    expect(total()).toHaveTextContent('– of 4');
    await userEvent.click(level('Reasoning', /^4, level 4/));
    expect(total()).toHaveTextContent('4 of 4');
  });

  it('opens the model answer only where there is one, and never what was observed', async () => {
    await openTable([script(11, 'one')]);
    expect(screen.queryByRole('button', { name: 'Model answer' })).toBeNull();
    expect(screen.queryByRole('button', { name: 'Observations' })).toBeNull();
    cleanup();
    const modelAnswer = plainDocument('It stopped at four.');
    await openTable([script(11, 'one')], undefined, { modelAnswer });
    await userEvent.click(screen.getByRole('button', { name: 'Model answer' }));
    expect(screen.getByText('It stopped at four.')).toBeVisible();
    expect(screen.queryByRole('button', { name: 'Observations' })).toBeNull();
  });

  it('has its levels as one stop of Tab: arrows go from one to the next, Enter passes on', async () => {
    const calls = await openTable([script(11, 'one'), script(12, 'two')]);
    await userEvent.click(level('Facts', /^0/));
    // Held down until it has moved.
    await userEvent.keyboard('{ArrowRight>}');
    await waitFor(() => expect(level('Facts', /^1/)).toBeChecked());
    await userEvent.keyboard('{/ArrowRight}');
    expect(level('Facts', /^1/)).toHaveFocus();
    await userEvent.tab();
    expect(level('Language', /^0/)).toHaveFocus();
    await userEvent.keyboard(' ');
    expect(total()).toHaveTextContent('1 of 5');
    await userEvent.keyboard('{Enter}');
    await screen.findByText('script QX-12 · 1 word');
    expect(posted(calls)).toMatchObject({ given: { f: 1, l: 0 } });
  });

  it('keeps a half-made mark over a reload, also where the server cannot be reached', async () => {
    await openTable([script(11, 'one')]);
    await userEvent.keyboard('3');
    cleanup();
    await openTable([script(11, 'one')]);
    expect(total()).toHaveTextContent('3 of 5 · language open');
  });

  it('takes of an old draft what still fits the rubric', async () => {
    const old = { given: { f: 7, l: 1, gone: 2 }, comment: 'as before' };
    localStorage.setItem('marking draft 11', JSON.stringify(old));
    await openTable([script(11, 'one')]);
    expect(total()).toHaveTextContent('2 of 5 · facts open');
    expect(screen.getByRole('textbox', { name: 'Comment to the candidate' })).toHaveValue('as before');
  });

  it('counts open criteria where they are many, and keeps the one that keys go to in view', async () => {
    const shown = vi.fn();
    Element.prototype.scrollIntoView = function () {
      shown(this.getAttribute('aria-label'));
    };
    const components = Array.from({ length: 30 }, (_, i) => criterion(`c${i}`, `Criterion ${i + 1}`, 0, 100));
    await openTable([{ ...script(11, 'one'), components }]);
    await userEvent.keyboard('1{ArrowDown}{ArrowDown}');
    expect(total()).toHaveTextContent('1 of 30 · 29 criteria open');
    expect(shown).toHaveBeenLastCalledWith('Criterion 4');
  });

  it('takes typed marks where the machine could not score, shows what it did score, and lets that be set right', async () => {
    const byHand: Component = {
      key: 'by-hand',
      by: 'people',
      of: 250,
      name: { code: 'component.byHand' },
      criterion: { levels: null },
    };
    const credit = {
      component: 'a',
      hundredths: 100,
      of: 200,
      verdict: 'partly',
      name: null,
      overridden: false,
    } as const;
    const credits = [{ ...credit, reasons: [{ code: 'number.noMatch' }] }];
    const mixed = { ...script(11, 'one'), components: [byHand], credits };
    await openTable([mixed]);
    const byMachine = () => screen.getByRole('region', { name: 'Marked automatically' });
    const machine = byMachine();
    expect(machine).toHaveTextContent('This is not the right number.1 / 2');
    await userEvent.click(within(machine).getByRole('button', { name: 'Correct an automatic mark' }));
    await userEvent.clear(screen.getByRole('textbox', { name: 'Marks, 0 to 2' }));
    await userEvent.type(screen.getByRole('textbox', { name: 'Marks, 0 to 2' }), '2');
    await userEvent.type(screen.getByRole('textbox', { name: 'Reason' }), 'The unit is right.');
    await userEvent.click(within(machine).getByRole('button', { name: 'Set' }));
    expect(machine).toHaveTextContent('You set this: The unit is right.2 / 2');
    // It is part of the half-made mark.
    cleanup();
    const calls = await openTable([mixed]);
    expect(byMachine()).toHaveTextContent('You set this: The unit is right.2 / 2');
    const field = screen.getByRole('textbox', { name: 'Marked by assessors: marks from 0 to 2½' });
    await userEvent.type(field, '3');
    expect(next()).toBeDisabled();
    await userEvent.clear(field);
    await userEvent.type(field, '1,5');
    expect(total()).toHaveTextContent('1½ of 2½');
    await userEvent.click(next());
    await screen.findByText('This item is done');
    expect(posted(calls)).toMatchObject({
      given: { 'by-hand': 150 },
      overrides: { a: { hundredths: 200, reason: 'The unit is right.' } },
    });
  });
});

describe('a mark that was taken back', () => {
  const given = { given: { f: 2, l: 1 }, comment: '', notes: [], overrides: {} };
  const back = () => openTable([{ ...script(11, 'one'), draft: given, takenBack: true }, script(12, 'two')]);

  it('is typed anew from the first criterion on, each figure to the next criterion', async () => {
    const calls = await back();
    expect(next()).toBeDisabled();
    await userEvent.keyboard('1');
    expect(total()).toHaveTextContent('3 of 5');
    await userEvent.keyboard('0');
    expect(total()).toHaveTextContent('1 of 5');
    await userEvent.keyboard('{Enter}');
    await screen.findByText('script QX-12 · 1 word');
    expect(posted(calls)).toMatchObject({ given: { f: 1, l: 0 } });
  });

  it('is passed on only when each of its marks was confirmed or changed', async () => {
    const calls = await back();
    expect(
      screen.getByText('2 marks stand from before. Confirm each with Enter, or change it.'),
    ).toBeVisible();
    await userEvent.keyboard('{Enter}');
    expect(screen.getByText('1 mark stands from before. Confirm it with Enter, or change it.')).toBeVisible();
    expect(next()).toBeDisabled();
    await userEvent.keyboard('{Enter}');
    expect(posted(calls)).toBeUndefined();
    await userEvent.keyboard('{Enter}');
    await screen.findByText('script QX-12 · 1 word');
    expect(posted(calls)).toMatchObject(given);
  });

  it('can be confirmed as a whole', async () => {
    await back();
    await userEvent.click(screen.getByRole('button', { name: 'Confirm all' }));
    expect(next()).toBeEnabled();
  });
});

describe('keys of the rubric', () => {
  it('say what is possible where they give nothing', async () => {
    await openTable([
      {
        ...script(11, 'one'),
        components: [fourNotes, { ...fourNotes, key: 'h', of: 200, criterion: { levels: null, step: 50 } }],
      },
    ]);
    await userEvent.keyboard('9');
    expect(screen.getByRole('alert')).toHaveTextContent('“9” is no mark here. Possible: 0, 1, 2, 4.');
    await userEvent.keyboard('2');
    expect(screen.queryByRole('alert')).toBeNull();
    await userEvent.keyboard('2.25{Enter}');
    expect(screen.getByRole('alert')).toHaveTextContent(
      '“2.25” is no mark here. Possible: 0 to 2, whole and half marks.',
    );
    await userEvent.keyboard('1.5{Enter}');
    expect(total()).toHaveTextContent('3½ of 6');
  });

  it('take the level that was given half way up, where the criterion has a step', async () => {
    const half = { ...fourNotes, criterion: { ...fourNotes.criterion!, step: 50 as const } };
    await openTable([{ ...script(11, 'one'), components: [half, criterion('l', 'Language', 0, 200)] }]);
    await userEvent.keyboard('1.');
    expect(total()).toHaveTextContent('1½ of 6');
    // From the level below a gap of two marks, half way is a whole mark.
    await userEvent.keyboard('{ArrowUp}2.');
    expect(total()).toHaveTextContent('3 of 6');
    await userEvent.click(level('Reasoning', /^3½, between level 2 and level 4/));
    expect(total()).toHaveTextContent('3½ of 6');
  });

  it('stay with their criterion when Tab moves the focus', async () => {
    await openTable([script(11, 'one')]);
    level('Language', /^0/).focus();
    await userEvent.keyboard('3');
    expect(total()).toHaveTextContent('3 of 5 · language open');
  });
});
