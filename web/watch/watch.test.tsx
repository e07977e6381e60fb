import { act, cleanup, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter, Route, Routes } from 'react-router';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { WatchRow, WatchView } from '../../core/watch/api';
import { FakeEvents, fakeServer, Refused } from '../testing/fakeServer';
import { WatchRoom } from './WatchRoom';

const MINUTE = 60_000;
const NOW = 20 * MINUTE;
const row = (invitation: number, name: string, change: Partial<WatchRow> = {}): WatchRow => ({
  invitation,
  name,
  reference: `HR-${invitation}`,
  arrangements: [],
  state: 'writing',
  startedAt: 0,
  deadlineAt: 60 * MINUTE,
  at: NOW,
  usedMs: NOW,
  leftMs: 40 * MINUTE,
  marksDone: 0.25,
  heardAt: NOW,
  hand: null,
  stopped: null,
  clean: true,
  notes: [],
  pictures: [],
  plays: [],
  ...change,
});
const view = (rows: readonly WatchRow[]): WatchView => ({
  round: 7,
  title: 'November round',
  now: NOW,
  opensAt: 0,
  closesAt: 90 * MINUTE,
  timeZone: 'UTC',
  startRule: 'by hand',
  doorCode: null,
  rows,
});

beforeEach(() => FakeEvents.install());
afterEach(() => vi.unstubAllGlobals());

function open(rows: readonly WatchRow[]) {
  render(
    <MemoryRouter initialEntries={['/watch/7']}>
      <Routes>
        <Route path="/watch/:id" element={<WatchRoom />} />
      </Routes>
    </MemoryRouter>,
  );
  act(() => FakeEvents.say('/watch/7', { whole: view(rows) }));
}
const change = (rows: readonly WatchRow[], more: object = {}) =>
  act(() => FakeEvents.say('/watch/7', { change: { now: NOW, doorCode: null, rows, heard: [], ...more } }));
const names = () => screen.getAllByRole('rowheader').map((th) => th.querySelector('b')!.textContent);
const rowOf = (name: string) => within(screen.getByRole('row', { name: new RegExp(name) }));

describe('the watch room', () => {
  it('puts who needs someone first, and counts how all are', () => {
    open([
      row(1, 'Anna'),
      row(2, 'Bo', { state: 'handed in' }),
      row(3, 'Cleo', { state: 'waiting' }),
      row(4, 'Dora', { hand: { at: NOW - 5000, text: 'No sound' } }),
    ]);
    expect(names()).toEqual(['Dora', 'Cleo', 'Anna', 'Bo']);
    expect(screen.getByText('1 hand raised')).toBeVisible();
    // Dora writes as well, with her hand up.
    expect(screen.getByText('2 in progress')).toBeVisible();
    expect(rowOf('Dora').getByText(/Raised a hand 5 s ago: “No sound”/)).toBeVisible();
  });

  it('follows what changes, and time by itself: who is silent is out of reach', () => {
    open([row(1, 'Anna'), row(2, 'Bo')]);
    change([row(2, 'Bo', { state: 'stopped', stopped: 'pause' })]);
    expect(rowOf('Bo').getByText('Paused by an invigilator')).toBeVisible();
    change([], { now: NOW + MINUTE, heard: [[2, NOW + MINUTE]] });
    expect(names()).toEqual(['Anna', 'Bo']);
    expect(rowOf('Anna').getByText(/No contact for 1 min 0 s/)).toBeVisible();
    // 20 of 60 minutes, one more has passed for Anna: 35 %; Bo’s clock stands still.
    expect(rowOf('Anna').getByRole('img')).toHaveAccessibleName(
      '35 % of the time used, 25 % of the marks done',
    );
    expect(rowOf('Bo').getByRole('img')).toHaveAccessibleName(
      '33 % of the time used, 25 % of the marks done',
    );
    change([], { now: NOW + MINUTE, heard: [[1, NOW + MINUTE]] });
    expect(rowOf('Anna').queryByText(/No word/)).toBeNull();
  });

  it('shows the door code once it may be known', () => {
    open([row(1, 'Anna')]);
    expect(screen.queryByText('WREN 42')).toBeNull();
    change([], { doorCode: 'WREN 42' });
    expect(screen.getByText('WREN 42')).toBeVisible();
  });

  it('finds a candidate by name or reference, among more than it shows at once', async () => {
    const many = Array.from({ length: 230 }, (_, n) => row(n, `Candidate ${String(n).padStart(3, '0')}`));
    open([...many, row(999, 'Zita', { reference: 'HR-ZZ' })]);
    expect(names()).toHaveLength(200);
    expect(screen.getByText('31 more candidates: search by name or reference.')).toBeVisible();
    await userEvent.type(screen.getByRole('textbox', { name: 'name or reference' }), 'hr-zz');
    expect(names()).toEqual(['Zita']);
    expect(screen.queryByText(/more candidates/)).toBeNull();
  });

  it('says that nobody is invited yet', () => {
    open([]);
    expect(screen.getByText('No candidate is invited to this round yet.')).toBeVisible();
  });
});

describe('an act', () => {
  it('is done with its words, and its row follows at once while others stay', async () => {
    const answered = row(4, 'Dora');
    const calls = fakeServer({
      'POST /watch/7/acts': () => ({ now: NOW, doorCode: null, rows: [answered], heard: [] }),
    });
    open([row(1, 'Anna'), row(4, 'Dora', { hand: { at: NOW, text: 'No sound' } })]);
    await userEvent.click(rowOf('Dora').getByRole('button', { name: 'Answer' }));
    await userEvent.type(screen.getByRole('textbox', { name: 'Message' }), 'Try the headphones ');
    // Something else came in meanwhile: it must not be lost when the answer arrives.
    change([row(1, 'Anna', { state: 'handed in' })]);
    await userEvent.click(within(screen.getByRole('dialog')).getByRole('button', { name: 'Answer' }));
    await waitFor(() => expect(screen.queryByText(/Raised a hand/)).toBeNull());
    expect(calls).toEqual([
      {
        call: 'POST /watch/7/acts',
        body: { act: 'answer hand', invitation: 4, text: 'Try the headphones', minutes: 0 },
      },
    ]);
    expect(rowOf('Anna').getByText('Handed in')).toBeVisible();
  });

  it('grants minutes from the menu, with a reason, and stays open when it is refused', async () => {
    const calls = fakeServer({
      'POST /watch/7/acts': () => new Refused(409, 'time-already-closed', 'This paper is handed in.'),
    });
    open([row(1, 'Anna')]);
    await userEvent.click(screen.getByRole('button', { name: 'More for Anna' }));
    await userEvent.click(screen.getByRole('button', { name: 'Grant minutes' }));
    const dialog = within(await screen.findByRole('dialog', { name: 'Grant minutes: Anna' }));
    await userEvent.clear(dialog.getByRole('spinbutton', { name: 'Minutes' }));
    await userEvent.type(dialog.getByRole('spinbutton', { name: 'Minutes' }), '7');
    await userEvent.type(dialog.getByRole('textbox', { name: 'Reason (kept on record)' }), 'fire alarm');
    await userEvent.click(dialog.getByRole('button', { name: 'Grant minutes' }));
    expect(await dialog.findByText('This paper is handed in.')).toBeVisible();
    expect(calls[0]!.body).toMatchObject({ act: 'grant', minutes: 7, text: 'fire alarm' });
    expect(dialog.getByRole('textbox')).toHaveValue('fire alarm');
  });

  it('admits who passed all checks by one press, and asks why for anybody else', async () => {
    const calls = fakeServer({
      'POST /watch/7/acts': () => ({ now: NOW, doorCode: null, rows: [], heard: [] }),
    });
    open([row(1, 'Anna', { state: 'waiting' })]);
    await userEvent.click(screen.getByRole('button', { name: 'Admit' }));
    await waitFor(() => expect(calls[0]!.body).toMatchObject({ act: 'admit', text: '' }));
    cleanup();
    open([row(1, 'Anna', { state: 'waiting', clean: false })]);
    await userEvent.click(screen.getByRole('button', { name: 'Admit' }));
    expect(await screen.findByRole('textbox', { name: 'Reason (kept on record)' })).toBeVisible();
    expect(calls).toHaveLength(1);
  });

  it('answers a hand with the question in view', async () => {
    open([row(1, 'Anna', { hand: { at: NOW, text: 'The page is blank' } })]);
    await userEvent.click(screen.getByRole('button', { name: 'Answer' }));
    const dialog = within(await screen.findByRole('dialog', { name: 'Answer: Anna' }));
    expect(dialog.getByText('The page is blank')).toBeVisible();
  });

  it.each([
    ['waiting', ['Admit'], ['Pause', 'Readmit']],
    ['handed in', ['Readmit'], ['Grant minutes', 'Pause']],
    ['stopped', ['Continue', 'Grant minutes'], ['Pause']],
  ] as const)('is offered where it can be done: %s', async (state, offered, not) => {
    open([row(1, 'Anna', { state, stopped: state === 'stopped' ? 'pause' : null })]);
    await userEvent.click(screen.getByRole('button', { name: 'More for Anna' }));
    for (const name of offered)
      expect(screen.getByRole('button', { name, hidden: true })).toBeInTheDocument();
    for (const name of not) expect(screen.queryByRole('button', { name, hidden: true })).toBeNull();
  });

  it('does not end a break: that is the candidate’s own', async () => {
    open([row(1, 'Anna', { state: 'stopped', stopped: 'break' })]);
    await userEvent.click(screen.getByRole('button', { name: 'More for Anna' }));
    expect(screen.queryByRole('button', { name: 'Go on' })).toBeNull();
  });

  it('tells everybody', async () => {
    const calls = fakeServer({ 'POST /watch/7/tell-all': () => ({}) });
    open([row(1, 'Anna')]);
    await userEvent.click(screen.getByRole('button', { name: 'Message everyone' }));
    await userEvent.type(screen.getByRole('textbox', { name: 'Message' }), 'Ten minutes left');
    await userEvent.click(screen.getByRole('button', { name: 'Send to everyone' }));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    expect(calls[0]!.body).toEqual({ text: 'Ten minutes left' });
  });
});
