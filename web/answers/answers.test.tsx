import { render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter, Route, Routes } from 'react-router';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { AnswerCount, AnsweredPart, AnswerTable, PartFigures } from '../../core/answers/api';
import type { CorrectionPage, CorrectionRow, RoundMoves } from '../../core/corrections/api';
import { StaffShell } from '../testing/StaffShell';
import { fakeServer, Refused } from '../testing/fakeServer';
import { AnswersPage } from './AnswersPage';

afterEach(() => vi.unstubAllGlobals());

const part = (key: string): AnsweredPart => ({
  target: `tray/${key}`,
  itemNumber: 5,
  title: 'Tray 14',
  part: key,
});
const row = (component: string, answer: string, more: Partial<AnswerCount>): AnswerCount => ({
  component,
  answer,
  type: 'text',
  right: true,
  count: 1,
  scripts: [],
  acceptable: false,
  ...more,
});
const table: AnswerTable = {
  ...part('B'),
  scripts: 40,
  answered: 38,
  components: ['a', 'b'].map((key, i) => ({
    key,
    name: { code: 'gaps.component', values: { gap: i + 1 } },
  })),
  answers: [
    row('a', 'kept', { count: 31 }),
    row('b', 'zehntel', { count: 4, right: false, acceptable: true }),
    row('b', 'no words', { count: 2, right: false }),
  ],
};

const CORRECTIONS = '/rounds/3/corrections/tray/B';
const row0: CorrectionRow = {
  id: 9,
  change: { type: 'ruling', ruling: 'withdrawn' },
  takesBack: null,
  by: 'Bo Lead',
  at: 0,
  reason: 'Two are right.',
  finishedAt: 1,
  done: 38,
  of: 38,
  moved: 4,
  told: 3,
  stands: true,
};
const corrections: CorrectionPage = {
  kind: 'choice',
  content: {
    asked: { mode: 'one', options: ['kale', 'rush'].map((key) => ({ key, text: `Sea ${key}` })) },
    key: { right: ['kale'] },
  },
  version: 1,
  withdrawn: 'scaled',
  rows: [row0],
};
const moves: RoundMoves = {
  round: 3,
  title: 'January round',
  released: true,
  scripts: 38,
  moved: 1,
  across: 1,
  kept: 1,
  moves: [
    { script: 'QX-11', before: 134, after: 200, kept: false, bandBefore: 'Capable', bandAfter: 'Proficient' },
    { script: 'QX-12', before: 200, after: 200, kept: true, bandBefore: null, bandAfter: null },
  ],
  of: { before: 4800, after: 4800 },
  bandsAnew: false,
};

function open(more: Parameters<typeof fakeServer>[0] = {}, at = '/tray/B') {
  const calls = fakeServer({
    'GET /rounds/3/answers': () => [part('A'), part('B')],
    'GET /rounds/3/answers/tray/B?after=1': () => table,
    [`GET ${CORRECTIONS}`]: () => corrections,
    [`POST ${CORRECTIONS}/preview`]: () => ({ rounds: [moves], seen: 'a'.repeat(64) }),
    ...more,
  });
  render(
    <MemoryRouter initialEntries={[`/staff/rounds/3/answers${at}`]}>
      <Routes>
        <Route path="/staff/rounds/:id/answers/:item?/:part?" element={<AnswersPage />} />
      </Routes>
    </MemoryRouter>,
    { wrapper: StaffShell },
  );
  return calls;
}
const dialogOf = async (act: string) => {
  await userEvent.click(await screen.findByRole('button', { name: act }));
  return within(screen.getByRole('dialog'));
};
const REASON = /^Reason/;

describe('the questions of a round', () => {
  it('are listed with their figures; below nought a correlation is a sign', async () => {
    const estimate = (value: number) => ({ n: 40, value, interval: null });
    const figures = (letter: string, correlation: number): PartFigures => ({
      ...part(letter),
      of: 200,
      ruling: letter === 'B' ? 'withdrawn' : null,
      facility: estimate(0.62),
      itemRest: estimate(correlation),
      omitted: estimate(0.05),
    });
    open(
      {
        'GET /rounds/3/figures': () => [figures('A', 0.41), figures('B', -0.2)],
        'GET /rounds/3/bands': () => ({
          bands: null,
          last: [{ title: 'Capable', from: 2000 }],
          of: 4600,
          open: true,
        }),
      },
      '',
    );
    expect(await screen.findByText('Question 5 A · Tray 14')).toBeVisible();
    const rows = screen.getAllByRole('row').slice(1);
    expect(rows.map((one) => one.textContent)).toEqual([
      'Question 5 A · Tray 1424062 %0.415 %',
      'Question 5 B · Tray 1424062 %−0.205 %Withdrawn: it does not count',
    ]);
    expect(await screen.findByText(/^The bands of this round are not set/)).toBeVisible();
  });

  it('have bands, which a lead sets with a reason, each with marks of its own', async () => {
    const calls = open(
      {
        'GET /rounds/3/figures': () => [],
        'GET /rounds/3/bands': () => ({
          bands: null,
          last: [{ title: 'Capable', from: 2000 }],
          of: 4600,
          open: true,
        }),
        'POST /rounds/3/bands': () => ({}),
      },
      '',
    );
    const dialog = await dialogOf('Set the bands');
    await userEvent.click(dialog.getByRole('button', { name: 'Add a band' }));
    expect(dialog.getByText(/^Each band needs a title/)).toBeVisible();
    await userEvent.type(dialog.getAllByLabelText('Band')[1]!, 'Proficient');
    await userEvent.type(dialog.getAllByLabelText('From marks')[1]!, '32.5');
    await userEvent.type(dialog.getByLabelText(REASON), 'As the board decided.');
    await userEvent.click(dialog.getByRole('button', { name: 'Set these bands' }));
    expect(calls.find((c) => c.call === 'POST /rounds/3/bands')!.body).toEqual({
      bands: [
        { title: 'Capable', from: 2000 },
        { title: 'Proficient', from: 3250 },
      ],
      reason: 'As the board decided.',
    });
  });
});

describe('what was answered', () => {
  it('is listed with its component, its count and how it counts', async () => {
    open();
    expect(await screen.findByText('38 of 40 scripts answered this')).toBeVisible();
    const [answers] = screen.getAllByRole('table');
    const rows = within(answers!).getAllByRole('row').slice(1);
    expect(rows.map((one) => one.textContent)).toEqual([
      'keptGap 13182 % right',
      'zehntelGap 2411 % wrongAccept',
      'no wordsGap 225 % wrong',
    ]);
  });

  it('is accepted by one press, after what would change was shown, and never without a reason', async () => {
    const calls = open({ [`POST ${CORRECTIONS}`]: () => ({ correction: 10 }) });
    const dialog = await dialogOf('Accept “zehntel”');
    expect(
      await dialog.findByText(
        '1 of 38 scripts gets another total. 1 reaches another band. 1 would fall and keeps its released total.',
      ),
    ).toBeVisible();
    expect(dialog.getByText('QX-11: 1.34 → 2, Proficient')).toBeVisible();
    expect(dialog.getByText('QX-12: 2 → 2 (stays)')).toBeVisible();
    const apply = dialog.getByRole('button', { name: 'Apply the correction' });
    expect(apply).toBeDisabled();
    await userEvent.type(dialog.getByLabelText(REASON), 'It is right.');
    await userEvent.click(apply);
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    expect(calls.find((c) => c.call === `POST ${CORRECTIONS}`)!.body).toEqual({
      change: { type: 'accept', component: 'b', answer: 'zehntel' },
      reason: 'It is right.',
      seen: 'a'.repeat(64),
    });
  });
});

describe('a correction', () => {
  it('of a key is filled in, looked at, and looked at again where something changed meanwhile', async () => {
    const stale = () => new Refused(409, 'preview-stale', 'Something changed.');
    const calls = open({ [`POST ${CORRECTIONS}`]: stale });
    const dialog = await dialogOf('Change the right answer');
    const show = await dialog.findByRole('button', { name: 'Show what changes' });
    expect(show).toBeDisabled();
    await userEvent.click(await dialog.findByLabelText('Sea rush'));
    await userEvent.click(show);
    expect(await dialog.findByText('QX-11: 1.34 → 2, Proficient')).toBeVisible();
    await userEvent.type(dialog.getByLabelText(REASON), 'It is rush.');
    await userEvent.click(dialog.getByRole('button', { name: 'Apply the correction' }));
    expect(await dialog.findByText('Something changed.')).toBeVisible();
    expect(dialog.getByRole('button', { name: 'Apply the correction' })).toBeDisabled();
    expect(dialog.getByLabelText(REASON)).toHaveValue('It is rush.');
    await userEvent.click(dialog.getByRole('button', { name: 'Look at the changes again' }));
    expect(await dialog.findByText('QX-11: 1.34 → 2, Proficient')).toBeVisible();
    expect(calls.filter((c) => c.call.endsWith('/preview')).map((c) => c.body)).toEqual(
      [1, 2].map(() => ({ change: { type: 'key', key: { right: ['rush'] } } })),
    );
  });

  it('that stands is on record and can be taken back', async () => {
    const calls = open();
    expect(await screen.findByText('4 results. 3 candidates were told.')).toBeVisible();
    await dialogOf('Take back: Withdrew the question');
    await waitFor(() =>
      expect(calls.find((c) => c.call.endsWith('/preview'))?.body).toEqual({
        change: { type: 'take back', correction: 9 },
      }),
    );
  });
});
