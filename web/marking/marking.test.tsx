import { plainDocument } from '../../core/documents/document';
import { cleanup, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter, Route, Routes } from 'react-router';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Component } from '../../core/kinds/contract';
import type { MarkingTableData, MarkingScript } from '../../core/marking/api';
import { StaffShell } from '../testing/StaffShell';
import { fakeServer, Refused } from '../testing/fakeServer';
import { MarkingTable } from './MarkingTable';

afterEach(() => {
  vi.unstubAllGlobals();
  Reflect.deleteProperty(Element.prototype, 'scrollIntoView');
  Reflect.deleteProperty(Element.prototype, 'scrollTo');
  localStorage.clear();
});

const criterion = (key: string, text: string, ...hundredths: number[]): Component => ({
  key,
  by: 'people',
  of: hundredths.at(-1)!,
  name: { code: 'author.text', values: { text } },
  criterion: {
    levels: hundredths.map((h) => ({ hundredths: h, label: `level ${h / 100}`, says: `says ${h / 100}` })),
  },
});
const script = (task: number, words: string): MarkingScript => ({
  task,
  script: `QX-${task}`,
  kind: 'writing',
  right: null,
  draft: null,
  aside: null,
  practice: false,
  roughWork: null,
  observations: null,
  credits: [],
  components: [criterion('f', 'Facts', 0, 100, 300), criterion('l', 'Language', 0, 200)],
  shown: { format: 'plain', wordsFrom: null, wordsTo: null, limit: 'soft', criteria: ['Facts', 'Language'] },
  response: {
    text: { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: words }] }] },
  },
});
const table = (scripts: readonly MarkingScript[], byYou = 0): MarkingTableData => ({
  round: 1,
  roundTitle: 'November',
  target: 'note/A',
  itemNumber: 9,
  title: 'Incident note',
  marks: 500,
  byYou,
  left: scripts.length,
  prompt: plainDocument('Write the note.'),
  source: null,
  agreement: { n: 9, value: 0.8125, interval: [0.6, 1] },
  clarifications: [],
  phrases: [{ id: 1, text: 'Name the lots.', shared: true, own: false }],
  held: null,
  marked: [],
  scripts,
  modelAnswer: null,
  scheme: plainDocument('The cooler failed at four.'),
});

const fourNotes: Component = { ...criterion('r', 'Reasoning', 0, 100, 200, 400) };

const draw = () =>
  render(
    <MemoryRouter initialEntries={['/staff/marking/1/note/A']}>
      <Routes>
        <Route path="/staff/marking/:round/:item/:part" element={<MarkingTable />} />
      </Routes>
    </MemoryRouter>,
    { wrapper: StaffShell },
  );

async function open(
  scripts: readonly MarkingScript[],
  given: (body: unknown) => unknown = () => ({ told: null }),
  more: Partial<MarkingTableData> = {},
) {
  let left = [...scripts];
  const calls = fakeServer({
    'GET /marking/piles/1/note/A': () => ({ ...table(left, scripts.length - left.length), ...more }),
    'PUT /marking/tasks/11/draft': () => ({}),
    'POST /marking/clarifications/4/read': () => ({}),
    'POST /marking/tasks/11': (body) => {
      const answer = given(body);
      if (!(answer instanceof Refused)) left = left.filter((s) => s.task !== 11);
      return answer;
    },
  });
  draw();
  await screen.findByRole('heading', { level: 1 });
  return calls;
}
const total = () => screen.getAllByRole('status').at(-1)!;
const posted = (calls: readonly { call: string; body: unknown }[]) =>
  calls.find((c) => c.call === 'POST /marking/tasks/11')?.body;
const next = () => screen.getByRole('button', { name: 'Next script' });
const level = (criterion: string, name: RegExp) =>
  within(screen.getByRole('radiogroup', { name: criterion })).getByRole('radio', { name });

describe('the marking table', () => {
  it('shows the response with its code and length; question and scheme open beside it and stay if pinned', async () => {
    await open([script(11, 'The cooler failed at four'), script(12, 'two')]);
    expect(screen.getByText('script QX-11 · 5 words')).toBeVisible();
    expect(screen.getByText('The cooler failed at four')).toBeVisible();
    expect(screen.getByText('agreement 0.81 on 9')).toBeVisible();
    expect(screen.queryByRole('region', { name: 'Mark scheme' })).toBeNull();
    await userEvent.keyboard('h');
    expect(screen.getByText('The cooler failed at four.')).toBeVisible();
    await userEvent.click(screen.getByRole('button', { name: 'Keep it open for the next scripts' }));
    await userEvent.click(screen.getByRole('heading', { level: 1 }));
    await userEvent.keyboard('30');
    await userEvent.click(next());
    await screen.findByText('script QX-12 · 1 word');
    expect(screen.getByRole('region', { name: 'Mark scheme' })).toBeVisible();
  });

  it('is worked by keys alone: a digit gives the mark it shows, arrows choose the criterion, Enter passes on', async () => {
    const calls = await open([script(11, 'one'), script(12, 'two')]);
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
    const calls = await open([{ ...script(11, 'one'), components: [points, free] }]);
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
    await open([{ ...script(11, 'one'), components: [fourNotes] }]);
    await userEvent.click(screen.getByText('Keys'));
    await userEvent.click(screen.getByRole('checkbox', { name: 'Single keys are on' }));
    await userEvent.click(screen.getByRole('heading', { level: 1 }));
    await userEvent.keyboard('4');
    expect(total()).toHaveTextContent('– of 4');
    await userEvent.click(level('Reasoning', /^4, level 4/));
    expect(total()).toHaveTextContent('4 of 4');
  });

  it('opens the model answer, and what was observed, only where there is any', async () => {
    await open([script(11, 'one')]);
    expect(screen.queryByRole('button', { name: 'Model answer' })).toBeNull();
    expect(screen.queryByRole('button', { name: 'Observations' })).toBeNull();
    cleanup();
    const observations = [{ kind: 'reload' as const, count: 2 }];
    const modelAnswer = plainDocument('It stopped at four.');
    await open([{ ...script(11, 'one'), observations }], undefined, { modelAnswer });
    await userEvent.click(screen.getByRole('button', { name: 'Model answer' }));
    expect(screen.getByText('It stopped at four.')).toBeVisible();
    await userEvent.click(screen.getByRole('button', { name: 'Observations' }));
    expect(screen.getByText('the page was loaded again × 2')).toBeVisible();
  });

  it('keeps a half-made mark over a reload, also where the server cannot be reached', async () => {
    await open([script(11, 'one')]);
    await userEvent.keyboard('3');
    cleanup();
    await open([script(11, 'one')]);
    expect(total()).toHaveTextContent('3 of 5 · language open');
  });

  it('takes of an old draft what still fits the rubric', async () => {
    const old = { given: { f: 7, l: 1, gone: 2 }, comment: 'as before' };
    localStorage.setItem('marking draft 11', JSON.stringify(old));
    await open([script(11, 'one')]);
    expect(total()).toHaveTextContent('2 of 5 · facts open');
    expect(screen.getByRole('textbox', { name: 'Comment to the candidate' })).toHaveValue('as before');
  });

  it('counts open criteria where they are many, and keeps the one that keys go to in view', async () => {
    const shown = vi.fn();
    Element.prototype.scrollIntoView = function () {
      shown(this.getAttribute('aria-label'));
    };
    const components = Array.from({ length: 30 }, (_, i) => criterion(`c${i}`, `Criterion ${i + 1}`, 0, 100));
    await open([{ ...script(11, 'one'), components }]);
    await userEvent.keyboard('1{ArrowDown}{ArrowDown}');
    expect(total()).toHaveTextContent('1 of 30 · 29 criteria open');
    expect(shown).toHaveBeenLastCalledWith('Criterion 4');
  });

  it('adds a note on words chosen by keys, and shows it in the margin', async () => {
    const calls = await open([script(11, 'The cooler failed at four')]);
    const words = screen.getByText('The cooler failed at four').firstChild!;
    const range = document.createRange();
    range.setStart(words, 4);
    range.setEnd(words, 10);
    document.getSelection()!.removeAllRanges();
    document.getSelection()!.addRange(range);
    await userEvent.keyboard('n');
    const note = await screen.findByRole('textbox', { name: 'Text of note 1' });
    expect(note).toHaveFocus();
    await userEvent.keyboard('Which one?{Enter}');
    await userEvent.click(screen.getByRole('heading', { level: 1 }));
    await userEvent.keyboard('32{Enter}');
    await screen.findByText('This item is done');
    expect(posted(calls)).toMatchObject({
      notes: [
        { text: 'Which one?', component: 'f', anchor: { on: 'text', start: 4, end: 10, quote: 'cooler' } },
      ],
    });
  });

  it('begins each script at the top, with nothing of the one before', async () => {
    // As in newer browsers: what is given back must not be taken for something to clean up with.
    const scrolled = vi.fn((): unknown => Promise.resolve());
    Element.prototype.scrollTo = scrolled;
    await open([script(11, 'one'), script(12, 'two')]);
    await userEvent.type(screen.getByRole('textbox', { name: 'Comment to the candidate' }), 'of the first');
    await userEvent.click(level('Facts', /^3/));
    await userEvent.click(level('Language', /^2/));
    await userEvent.click(next());
    await screen.findByText('script QX-12 · 1 word');
    expect(total()).toHaveTextContent('– of 5 · facts, language open');
    expect(scrolled).toHaveBeenCalledWith({ top: 0 });
    expect(screen.getByRole('textbox', { name: 'Comment to the candidate' })).toHaveValue('');
    expect(screen.queryByRole('radio', { checked: true })).toBeNull();
    expect(document.body).toHaveFocus();
    // Enter presses nothing, and gives no mark.
    await userEvent.keyboard('{Enter}');
    expect(total()).toHaveTextContent('– of 5');
  });

  it('says that more is on its way where the scripts here are marked before the next ones come', async () => {
    let [marked, comes] = [false, () => undefined as void];
    const later = new Promise<MarkingTableData>((resolve) => {
      comes = () => resolve(table([script(12, 'two')], 1));
    });
    fakeServer({
      'GET /marking/piles/1/note/A': () => (marked ? later : { ...table([script(11, 'one')]), left: 2 }),
      'PUT /marking/tasks/11/draft': () => ({}),
      'POST /marking/tasks/11': () => {
        marked = true;
        return { told: null };
      },
    });
    draw();
    await screen.findByText('script QX-11 · 1 word');
    await userEvent.keyboard('32{Enter}');
    expect(await screen.findByText('Loading the next scripts …')).toBeVisible();
    comes();
    expect(await screen.findByText('script QX-12 · 1 word')).toBeVisible();
  });

  it('keeps the levels and the comment when the mark is refused', async () => {
    await open(
      [script(11, 'one')],
      () => new Refused(409, 'not-yours', 'This script is with another assessor now.'),
    );
    await userEvent.keyboard('12');
    await userEvent.type(screen.getByRole('textbox', { name: 'Comment to the candidate' }), 'short');
    await userEvent.click(next());
    expect(await screen.findByText('This script is with another assessor now.')).toBeVisible();
    expect(screen.getByRole('textbox', { name: 'Comment to the candidate' })).toHaveValue('short');
    expect(level('Language', /^2, level 2/)).toBeChecked();
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
    await open([mixed]);
    const byMachine = () => screen.getByRole('region', { name: 'Scored by the machine' });
    const machine = byMachine();
    expect(machine).toHaveTextContent('The number is not the right one.1 / 2');
    await userEvent.click(within(machine).getByRole('button', { name: 'Set right' }));
    await userEvent.clear(screen.getByRole('textbox', { name: 'Marks, 0 to 2' }));
    await userEvent.type(screen.getByRole('textbox', { name: 'Marks, 0 to 2' }), '2');
    await userEvent.type(screen.getByRole('textbox', { name: 'Reason' }), 'The unit is right.');
    await userEvent.click(within(machine).getByRole('button', { name: 'Set' }));
    expect(machine).toHaveTextContent('You set this: The unit is right.2 / 2');
    // It is part of the half-made mark.
    cleanup();
    const calls = await open([mixed]);
    expect(byMachine()).toHaveTextContent('You set this: The unit is right.2 / 2');
    const field = screen.getByRole('textbox', { name: 'Marked by people: marks from 0 to 2½' });
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

  it('hangs a note on a cell or an object at its own place, and shows its number there and at the credit', async () => {
    const credit = (component: string, text: string) => ({
      component,
      hundredths: 100,
      of: 100,
      verdict: 'right' as const,
      reasons: [],
      name: { code: 'author.text', values: { text } },
      overridden: false,
    });
    const pairs: MarkingScript = {
      ...script(11, ''),
      kind: 'match',
      shown: {
        left: [
          { key: 'a', text: 'rye' },
          { key: 'b', text: 'oat' },
        ],
        right: [{ key: 'x', text: 'cold' }],
        once: false,
        leftOver: false,
      },
      response: { pairs: { a: 'x', b: 'x' } },
      credits: [credit('a', 'rye'), credit('b', 'oat')],
    };
    const calls = await open([pairs]);
    const oat = screen.getByText('oat', { selector: 'li > span' }).closest('li')!;
    await userEvent.click(within(oat).getByRole('button', { name: 'Add a note here' }));
    await userEvent.keyboard('not at that warmth');
    await userEvent.click(screen.getByRole('button', { name: 'Add a note to: rye' }));
    await userEvent.keyboard('well seen');
    expect(within(oat).getByRole('button', { name: 'Note 1' })).toHaveAttribute('data-note');
    const machine = screen.getByRole('region', { name: 'Scored by the machine' });
    expect(within(machine).getAllByRole('button', { name: /^Note \d$/ })).toHaveLength(2);
    await userEvent.keyboard('{Escape}12');
    await userEvent.click(next());
    await screen.findByText('This item is done');
    expect(posted(calls)).toMatchObject({
      notes: [
        { anchor: { on: 'component', key: 'b' }, text: 'not at that warmth' },
        { anchor: { on: 'component', key: 'a' }, text: 'well seen' },
      ],
    });
  });

  it('tells of an agreed mark before it goes on, and of what the lead has added', async () => {
    const told = {
      script: 'QX-11',
      practice: false,
      within: false,
      drifted: false,
      reason: 'Both lots are named.',
      yours: [{ component: 'f', hundredths: 0, level: 0, points: null }],
      agreed: [{ component: 'f', hundredths: 300, level: 2, points: null }],
    };
    const news = { id: 4, text: 'Half a degree is enough.', at: 1, isNew: true, touches: 3 };
    await open([script(11, 'one'), script(12, 'two')], () => ({ told }), { clarifications: [news] });
    expect(screen.getByText('Half a degree is enough.')).toBeVisible();
    expect(screen.getByText(/You marked 3 scripts before/)).toBeVisible();
    await userEvent.click(screen.getByRole('button', { name: 'I have read it' }));
    await userEvent.click(screen.getByRole('heading', { level: 1 }));
    await userEvent.keyboard('02{Enter}');
    expect(await screen.findByText('Both lots are named.')).toBeVisible();
    await userEvent.click(screen.getByRole('button', { name: 'Go on' }));
    await screen.findByText('script QX-12 · 1 word');
  });

  it('says when the item is done', async () => {
    await open([script(11, 'one')]);
    await userEvent.keyboard('12{Enter}');
    expect(await screen.findByText('This item is done')).toBeVisible();
    await waitFor(() =>
      expect(screen.getByRole('group', { name: /Progress/ })).toHaveTextContent('1 by you'),
    );
    expect(screen.getByRole('link', { name: 'Back to the list' })).toHaveAttribute('href', '/staff/marking');
  });
});
