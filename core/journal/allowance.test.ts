import { expect, it } from 'vitest';
import { newTime } from '../timing/sittingTime';
import { ALLOWED, allowedBy, isWithin } from './allowance';

const terms = { limitMs: 3_600_000, extraPercent: 0, sectionLimitsMs: {}, breakMs: 0 };
const started = { ...newTime(terms), startedAt: 1000 };

it('grows with the time since the start, so that an honest backlog passes', () => {
  // Half an hour offline by the fastest typist: 1,800 entries and heads a second each, 1.5 kB a second.
  const backlog = { rows: 2 * 1800, bytes: 1536 * 1800 };
  const most = allowedBy(started, 1000 + 1_800_000);
  expect(isWithin(backlog, most)).toBe(true);
  // Three times as fast.
  expect(isWithin({ rows: 3 * backlog.rows, bytes: 3 * backlog.bytes }, most)).toBe(true);
  expect(most.rows).toBe(4000 + 8 * 1800);
  expect(isWithin({ rows: most.rows + 1, bytes: 0 }, most)).toBe(false);
  expect(isWithin({ rows: 0, bytes: most.bytes + 1 }, most)).toBe(false);
});

it('is the burst alone at the start, and grows no more when nothing can count', () => {
  expect(allowedBy(started, 1000)).toEqual(ALLOWED.burst);
  const closed = { ...started, closed: { at: 61_000, by: 'candidate' as const } };
  // One minute of writing and the twelve in which late bytes count.
  expect(allowedBy(closed, 10_000_000).rows).toBe(4000 + 8 * 13 * 60);
});
