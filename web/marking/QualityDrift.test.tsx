import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';
import type { AssessorQuality, QualityData } from '../../core/marking/api';
import type { Estimate } from '../../core/measures/estimate';
import { Drift } from './QualityDrift';

const sure: Estimate = { n: 6, value: -120, interval: [-200, -40] };
const none: Estimate = { n: 0, value: null, reason: 'too few' };
const assessor = (id: number, name: string, last: Estimate): AssessorQuality => ({
  id,
  name,
  marked: 40,
  left: 0,
  anHour: 20,
  severity: none,
  group: null,
  drift: {
    byTenth: [...Array.from({ length: 9 }, () => none), last],
    byDay: [{ day: '2026-11-30', severity: last }],
  },
  standards: { within: 0, of: 0, drifted: false },
  held: null,
  absent: false,
});
const open = (...assessors: AssessorQuality[]) =>
  render(<Drift data={{ assessors } as unknown as QualityData} />);

it('severity over time is told by tenth and by day, each figure with what it is of', async () => {
  open(assessor(1, 'Ruan Petrel', sure), assessor(2, 'Nobody Compared', none));
  const rows = () => screen.getAllByRole('row').slice(1);
  expect(rows()).toHaveLength(1);
  const cells = within(rows()[0]!).getAllByRole('cell');
  expect(cells.map((cell) => cell.textContent.slice(0, 4))).toEqual([
    ...Array.from({ length: 9 }, () => '–'),
    '−1.2',
  ]);
  expect(cells.at(-1)).toHaveTextContent('6 responses; 95 %: −2.0 to −0.4');
  await userEvent.click(screen.getByRole('button', { name: 'Show days' }));
  expect(screen.getByRole('columnheader', { name: '2026-11-30' })).toBeVisible();
});

it('nothing is shown where nothing can be compared', () => {
  const { container } = open(assessor(2, 'Nobody Compared', none));
  expect(container).toBeEmptyDOMElement();
});
