import { plainDocument } from '../../core/documents/document';
import { render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter, Route, Routes } from 'react-router';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Component } from '../../core/kinds/contract';
import type { MarkingTableData, MarkingScript } from '../../core/marking/api';
import { StaffShell } from '../testing/StaffShell';
import { fakeServer, Refused } from '../testing/fakeServer';
import { MarkingTable } from './MarkingTable';

afterEach(() => vi.unstubAllGlobals());

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
  roughWork: null,
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
  scripts,
  scheme: plainDocument('The cooler failed at four.'),
});

async function open(scripts: readonly MarkingScript[], given: (body: unknown) => unknown = () => ({})) {
  let left = [...scripts];
  const calls = fakeServer({
    'GET /marking/piles/1/note/A': () => table(left, scripts.length - left.length),
    'POST /marking/tasks/11': (body) => {
      const answer = given(body);
      if (!(answer instanceof Refused)) left = left.filter((s) => s.task !== 11);
      return answer;
    },
  });
  render(
    <MemoryRouter initialEntries={['/staff/marking/1/note/A']}>
      <Routes>
        <Route path="/staff/marking/:round/:item/:part" element={<MarkingTable />} />
      </Routes>
    </MemoryRouter>,
    { wrapper: StaffShell },
  );
  await screen.findByRole('heading', { level: 1 });
  return calls;
}
const next = () => screen.getByRole('button', { name: 'Next script' });
const level = (criterion: string, name: RegExp) =>
  within(screen.getByRole('radiogroup', { name: criterion })).getByRole('radio', { name });

describe('the marking table', () => {
  it('shows the response with its code and length, the question and the scheme behind a press', async () => {
    await open([script(11, 'The cooler failed at four')]);
    expect(screen.getByText('script QX-11 · 5 words')).toBeVisible();
    expect(screen.getByText('The cooler failed at four')).toBeVisible();
    expect(screen.getByText('The cooler failed at four.')).not.toBeVisible();
    await userEvent.click(screen.getByText('Mark scheme'));
    expect(screen.getByText('The cooler failed at four.')).toBeVisible();
  });

  it('is worked by keys alone: letters choose the criterion, numbers its level, Enter gives', async () => {
    const calls = await open([script(11, 'one'), script(12, 'two')]);
    expect(next()).toBeDisabled();
    // The first criterion waits already; after its level the next open one does.
    await userEvent.keyboard('3');
    expect(screen.getByRole('status')).toHaveTextContent('3 of 5 · language open');
    await userEvent.keyboard('2');
    expect(screen.getByRole('status')).toHaveTextContent('5 of 5');
    await userEvent.keyboard('f2');
    expect(screen.getByRole('status')).toHaveTextContent('3 of 5');
    await userEvent.keyboard('c');
    const comment = screen.getByRole('textbox', { name: 'Comment to the candidate' });
    expect(comment).toHaveFocus();
    // Letters and figures are text there, and Enter a new line.
    await userEvent.keyboard('clear, 2 lots{Enter}');
    expect(calls.filter((c) => c.call.startsWith('POST'))).toEqual([]);
    await userEvent.keyboard('{Escape}{Enter}');
    await screen.findByText('script QX-12 · 1 word');
    expect(calls.find((c) => c.call.startsWith('POST'))!.body).toEqual({
      given: { f: 1, l: 1 },
      comment: 'clear, 2 lots\n',
    });
    // The next script starts with nothing chosen.
    expect(screen.getByRole('textbox', { name: 'Comment to the candidate' })).toHaveValue('');
    expect(next()).toBeDisabled();
  });

  it('can be worked by pressing, and numbers beyond a criterion’s levels do nothing', async () => {
    await open([script(11, 'one')]);
    await userEvent.click(level('Language', /^2, level 2/));
    expect(level('Language', /^2, level 2/)).toBeChecked();
    await userEvent.keyboard('f9');
    expect(screen.getByRole('status')).toHaveTextContent('2 of 5 · facts open');
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

  it('takes typed marks where the machine could not score, and shows what it did score', async () => {
    const byHand: Component = {
      key: 'by-hand',
      by: 'people',
      of: 250,
      name: { code: 'component.byHand' },
      criterion: { levels: null },
    };
    const credit = { component: 'a', hundredths: 100, of: 200, verdict: 'partly' } as const;
    const credits = [{ ...credit, reasons: [{ code: 'number.noMatch' }] }];
    const calls = await open([{ ...script(11, 'one'), components: [byHand], credits }]);
    expect(screen.getByRole('region', { name: 'Scored by the machine' })).toHaveTextContent(
      'The number is not the right one.1 / 2',
    );
    const field = screen.getByRole('textbox', { name: 'Marked by people: marks from 0 to 2½' });
    await userEvent.type(field, '3');
    expect(next()).toBeDisabled();
    await userEvent.clear(field);
    // A mark that is typed on into none is none: what was typed before does not stand behind it.
    await userEvent.type(field, '1');
    expect(next()).toBeEnabled();
    await userEvent.type(field, '3');
    expect(next()).toBeDisabled();
    await userEvent.clear(field);
    await userEvent.type(field, '1,5');
    expect(screen.getByRole('status')).toHaveTextContent('1½ of 2½');
    await userEvent.click(next());
    await screen.findByText('This pile is done');
    expect(calls.find((c) => c.call.startsWith('POST'))!.body).toMatchObject({ given: { 'by-hand': 150 } });
  });

  it('says when the pile is done', async () => {
    await open([script(11, 'one')]);
    await userEvent.keyboard('12{Enter}');
    expect(await screen.findByText('This pile is done')).toBeVisible();
    await waitFor(() =>
      expect(screen.getByRole('group', { name: /Progress/ })).toHaveTextContent('1 by you'),
    );
    expect(screen.getByRole('link', { name: 'Back to the piles' })).toHaveAttribute('href', '/staff/marking');
  });
});
