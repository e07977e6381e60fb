import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { FakeEvents, fakeServer } from '../testing/fakeServer';
import { LiveLine } from './liveLine';

beforeEach(() => {
  vi.useFakeTimers();
  FakeEvents.install();
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('a live line', () => {
  it('shows every view that the stream says', () => {
    const seen: number[] = [];
    const line = new LiveLine<number>('/live', (view) => seen.push(view));
    FakeEvents.say('/live', 1);
    FakeEvents.say('/live', 2);
    line.end();
    FakeEvents.say('/live', 3);
    expect(seen).toEqual([1, 2]);
  });

  it('asks again and again where the stream fails, and stops when it is back', async () => {
    let asked = 0;
    fakeServer({ 'GET /live': () => ({ asked: ++asked }) });
    const seen: unknown[] = [];
    const line = new LiveLine<unknown>('/live', (view) => seen.push(view));
    FakeEvents.fail('/live');
    FakeEvents.fail('/live');
    await vi.advanceTimersByTimeAsync(10_100);
    expect(seen).toEqual([{ asked: 1 }, { asked: 2 }]);
    FakeEvents.say('/live', { streamed: true });
    await vi.advanceTimersByTimeAsync(20_000);
    expect([asked, seen.at(-1)]).toEqual([2, { streamed: true }]);
    line.end();
  });

  it('goes on asking while nothing can be reached, without a word', async () => {
    const calls = fakeServer({});
    const seen: unknown[] = [];
    const line = new LiveLine<unknown>('/live', (view) => seen.push(view));
    FakeEvents.fail('/live');
    await vi.advanceTimersByTimeAsync(15_100);
    expect([calls.length, seen]).toEqual([3, []]);
    line.end();
    await vi.advanceTimersByTimeAsync(15_100);
    expect(calls).toHaveLength(3);
  });

  it('merges news into the view before it, also news that came another way', () => {
    const seen: number[][] = [];
    const merge = (before: number[] | null, news: { whole: number[] } | { more: number }) =>
      'whole' in news ? news.whole : before && [...before, news.more];
    const line = new LiveLine<number[], { whole: number[] } | { more: number }>(
      '/room',
      (view) => seen.push(view),
      merge,
    );
    FakeEvents.say('/room', { more: 9 });
    FakeEvents.say('/room', { whole: [1] });
    line.take({ more: 2 });
    FakeEvents.say('/room', { more: 3 });
    expect(seen).toEqual([[1], [1, 2], [1, 2, 3]]);
    line.end();
  });
});
