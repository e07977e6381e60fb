import { describe, expect, it } from 'vitest';
import { SILENCE_MS } from './deadline';
import { savePauseMs, saveWaitMs, SLOWEST_SAVE_MS } from './saving';

describe('the wait until the next save', () => {
  it.each([
    [0, 10_000],
    [0.7, 10_000],
    // Half of the way from 70 % to 100 %.
    [0.85, 12_500],
    [1, 15_000],
    [1.2, 15_000],
  ])('of a thread in use to %d is %d ms', (utilization, ms) => {
    expect(saveWaitMs(utilization)).toBe(ms);
  });

  it('lets no silence arise, with ten seconds for the request itself', () => {
    expect(SLOWEST_SAVE_MS + 10_000).toBeLessThanOrEqual(SILENCE_MS);
  });

  it.each([
    ['long before the end', 15_000, 30 * 60_000, 15_000],
    ['across the beginning of the last two minutes', 15_000, 123_000, 3_000],
    ['in the last two minutes', 15_000, 90_000, 10_000],
    ['while the clock stands still', 15_000, null, 15_000],
    ['on a server that asks for less', 1_000, 90_000, 1_000],
  ])('%s', (_, wait, left, ms) => {
    expect(savePauseMs(wait, left)).toBe(ms);
  });
});
