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
});
