import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { askAgainMs, openLink } from './openLink';
import * as client from './client';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => {
  vi.useRealTimers();
  vi.restoreAllMocks();
});

it('waits for its turn, says where it stands, and goes on by itself', async () => {
  vi.spyOn(Math, 'random').mockReturnValue(0.5);
  const view = { stage: { at: 'arriving' } };
  const replies = [{ queue: { place: 40, seconds: 10 } }, { queue: { place: 3, seconds: 1 } }, view];
  const post = vi.spyOn(client, 'post').mockImplementation(() => Promise.resolve(replies.shift()));
  const places: number[] = [];
  const opened = openLink('secret', ({ place }) => places.push(place));
  // Six tenths of the ten seconds.
  await vi.advanceTimersByTimeAsync(5900);
  expect([post.mock.calls.length, places]).toEqual([1, [40]]);
  await vi.advanceTimersByTimeAsync(200);
  expect([post.mock.calls.length, places]).toEqual([2, [40, 3]]);
  await vi.advanceTimersByTimeAsync(2000);
  expect(await opened).toBe(view);
});

it('asks again no sooner than after 2 s and no later than after a minute, spread by a tenth', () => {
  expect([0, 0.5, 1].map((random) => askAgainMs({ place: 1, seconds: 1 }, random))).toEqual([
    1800, 2000, 2200,
  ]);
  expect(askAgainMs({ place: 9000, seconds: 900 }, 0.5)).toBe(60_000);
});
