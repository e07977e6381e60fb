import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter, Route, Routes } from 'react-router';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { AnswerCount, AnsweredPart, AnswerTable } from '../../core/answers/api';
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
  rescoring: null,
  answers: [
    row('a', 'kept', { count: 31 }),
    row('b', 'zehntel', { count: 4, right: false, acceptable: true }),
    row('b', 'no words', { count: 2, right: false }),
  ],
};

function open(more: Parameters<typeof fakeServer>[0] = {}) {
  const calls = fakeServer({
    'GET /rounds/3/answers': () => [part('A'), part('B')],
    'GET /rounds/3/answers/tray/A': () => ({ ...table, answers: [] }),
    'GET /rounds/3/answers/tray/B': () => table,
    'POST /rounds/3/answers/tray/B/preview': () => ({
      scripts: 38,
      released: 2,
      changes: [{ script: 'QX-11', before: 134, after: 200, bandBefore: 'Capable', bandAfter: 'Proficient' }],
    }),
    ...more,
  });
  render(
    <MemoryRouter initialEntries={['/staff/rounds/3/answers']}>
      <Routes>
        <Route path="/staff/rounds/:id/answers/:item?/:part?" element={<AnswersPage />} />
      </Routes>
    </MemoryRouter>,
    { wrapper: StaffShell },
  );
  return calls;
}
const choosePartB = async () =>
  userEvent.selectOptions(await screen.findByLabelText('Question'), 'Question 5 B · Tray 14');

describe('what was answered', () => {
  it('is listed question by question, with its component, its count and how it counts', async () => {
    open();
    expect(await screen.findByText('Nobody has answered this yet.')).toBeVisible();
    await choosePartB();
    expect(await screen.findByText('38 of 40 scripts answered this')).toBeVisible();
    const rows = screen.getAllByRole('row').slice(1);
    expect(rows.map((one) => one.textContent)).toEqual([
      'keptGap 131 right',
      'zehntelGap 24 wrongAccept',
      'no wordsGap 22 wrong',
    ]);
  });

  it('is accepted by one press, after what would change was shown, and never without a reason', async () => {
    const calls = open({ 'POST /rounds/3/answers/tray/B/accept': () => ({}) });
    await choosePartB();
    await userEvent.click(await screen.findByRole('button', { name: 'Accept “zehntel”' }));
    const dialog = within(screen.getByRole('dialog', { name: 'Accept “zehntel” from now on?' }));
    expect(await dialog.findByText('1 of 38 scripts changes its marks:')).toBeVisible();
    expect(dialog.getByText('QX-11: 1.34 → 2, Proficient')).toBeVisible();
    expect(dialog.getByText('1 script reaches another band.')).toBeVisible();
    expect(dialog.getByText(/^2 of these results are released/)).toBeVisible();
    expect(dialog.getByRole('button', { name: 'Accept' })).toBeDisabled();
    await userEvent.type(dialog.getByLabelText('Reason (kept on record)'), 'It is right.');
    await userEvent.click(dialog.getByRole('button', { name: 'Accept' }));
    expect(await screen.findByText(/^Scripts are being marked again/)).toBeVisible();
    expect(calls.find((c) => c.call.endsWith('/accept'))!.body).toEqual({
      component: 'b',
      answer: 'zehntel',
      reason: 'It is right.',
    });
  });

  it('keeps the reason when it is refused', async () => {
    open({
      'POST /rounds/3/answers/tray/B/accept': () =>
        new Refused(409, 'signed-off', 'The marks are signed off.'),
    });
    await choosePartB();
    await userEvent.click(await screen.findByRole('button', { name: 'Accept “zehntel”' }));
    const dialog = within(screen.getByRole('dialog'));
    await userEvent.type(dialog.getByLabelText('Reason (kept on record)'), 'It is right.');
    await userEvent.click(dialog.getByRole('button', { name: 'Accept' }));
    expect(await dialog.findByText('The marks are signed off.')).toBeVisible();
    expect(dialog.getByLabelText('Reason (kept on record)')).toHaveValue('It is right.');
  });
});
