import { plainDocument } from '../../core/documents/document';
import { render, screen, within } from '@testing-library/react';
import { MemoryRouter, Route, Routes } from 'react-router';
import type { Component } from '../../core/kinds/contract';
import type { MarkingTableData, MarkingScript } from '../../core/marking/api';
import { MarkingTable } from '../marking/MarkingTable';
import { fakeServer, Refused } from './fakeServer';
import { StaffShell } from './StaffShell';

export const criterion = (key: string, text: string, ...hundredths: number[]): Component => ({
  key,
  by: 'people',
  of: hundredths.at(-1)!,
  name: { code: 'author.text', values: { text } },
  criterion: {
    levels: hundredths.map((h) => ({ hundredths: h, label: `level ${h / 100}`, says: `says ${h / 100}` })),
  },
});
export const script = (task: number, words: string): MarkingScript => ({
  task,
  script: `QX-${task}`,
  kind: 'writing',
  right: null,
  draft: null,
  seen: null,
  takenBack: false,
  aside: null,
  practice: false,
  roughWork: null,
  credits: [],
  components: [criterion('f', 'Facts', 0, 100, 300), criterion('l', 'Language', 0, 200)],
  shown: { format: 'plain', wordsFrom: null, wordsTo: null, limit: 'soft', criteria: ['Facts', 'Language'] },
  response: {
    text: { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: words }] }] },
  },
});
export const table = (scripts: readonly MarkingScript[], byYou = 0): MarkingTableData => ({
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
  last: null,
  told: [],
  scripts,
  modelAnswer: null,
  scheme: plainDocument('The cooler failed at four.'),
});

export const fourNotes: Component = { ...criterion('r', 'Reasoning', 0, 100, 200, 400) };

export const draw = () =>
  render(
    <MemoryRouter initialEntries={['/staff/marking/1/note/A']}>
      <Routes>
        <Route path="/staff/marking/:round/:item/:part" element={<MarkingTable />} />
      </Routes>
    </MemoryRouter>,
    { wrapper: StaffShell },
  );

export async function openTable(
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
export const total = () => screen.getAllByRole('status').at(-1)!;
export const posted = (calls: readonly { call: string; body: unknown }[]) =>
  calls.find((c) => c.call === 'POST /marking/tasks/11')?.body;
export const next = () => screen.getByRole('button', { name: 'Next script' });
export const level = (criterion: string, name: RegExp) =>
  within(screen.getByRole('radiogroup', { name: criterion })).getByRole('radio', { name });
