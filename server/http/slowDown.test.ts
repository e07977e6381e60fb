import { expect, it } from 'vitest';
import { SlowDown } from './slowDown';

/** The waits of so many tries, each made when the one before it was. */
function waits(slow: SlowDown, key: string, count: number, from = 0): number[] {
  let now = from;
  return Array.from({ length: count }, () => {
    const wait = slow.queued(key, now);
    slow.count(key, now, wait);
    now += wait;
    return wait;
  });
}

it('lets some tries go, then doubles from 1 s to 30 s; another key waits for nothing', () => {
  const slow = new SlowDown(2);
  expect(waits(slow, 'a', 9)).toEqual([0, 0, 1000, 2000, 4000, 8000, 16_000, 30_000, 30_000]);
  expect(slow.queued('b', 0)).toBe(0);
});

it('lets tries of the same moment wait one behind the other', () => {
  const slow = new SlowDown(1);
  const now = 5_000;
  const all = Array.from({ length: 4 }, () => {
    const wait = slow.queued('a', now);
    slow.count('a', now, wait);
    return wait;
  });
  // 0; 1 s; 1 s behind it and its own 2 s; 3 s behind and its own 4 s.
  expect(all).toEqual([0, 1000, 3000, 7000]);
  expect(slow.delay('a', now)).toBe(8000);
});

it('forgets after a quarter of an hour, and what was no failure', () => {
  const slow = new SlowDown(1);
  waits(slow, 'a', 5);
  expect(slow.delay('a', 60_000)).toBeGreaterThan(0);
  expect(slow.queued('a', 60 * 60_000)).toBe(0);
  slow.count('b', 0, 0);
  slow.takeBack('b', 0);
  expect(slow.delay('b', 0)).toBe(0);
});
