import { describe, expect, it, vi } from 'vitest';
import { Hub } from './hub';

describe('the hub', () => {
  it('tells a candidate and those who watch the round, and nobody else', () => {
    const hub = new Hub();
    const [own, round, other] = [vi.fn(), vi.fn(), vi.fn()];
    hub.listen('invitation 3', own);
    const stop = hub.listen('round 1', round);
    hub.listen('invitation 4', other);
    hub.tellOf(3, 1);
    hub.tell('round 1', 4, 'progress');
    stop();
    hub.tellOf(3, 1);
    expect(own).toHaveBeenCalledTimes(2);
    expect(round.mock.calls).toEqual([
      [3, 'change'],
      [4, 'progress'],
    ]);
    expect(other).not.toHaveBeenCalled();
  });

  it('does much work in pieces, with others in between, in the order in which it was asked', async () => {
    const hub = new Hub();
    const done: string[] = [];
    const until = (ms: number) => {
      const end = performance.now() + ms;
      while (performance.now() < end);
    };
    const works = [1, 2, 3, 4, 5, 6].map((n) =>
      hub.inBetween(() => {
        until(6);
        done.push(`row ${n}`);
      }),
    );
    // A request that came later than all of them: it must not wait until the last is done.
    setImmediate(() => done.push('request'));
    await Promise.all(works);
    expect(done.filter((d) => d !== 'request')).toEqual([1, 2, 3, 4, 5, 6].map((n) => `row ${n}`));
    expect(done.indexOf('request')).toBeLessThan(done.length - 1);
  });

  it('gives back what a piece of work gave, and what it threw, to the one who asked', async () => {
    const hub = new Hub();
    const broken = hub.inBetween(() => {
      throw new Error('no such candidate');
    });
    const well = hub.inBetween(() => 7);
    await expect(broken).rejects.toThrow('no such candidate');
    await expect(well).resolves.toBe(7);
  });
});
