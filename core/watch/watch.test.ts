import { describe, expect, it } from 'vitest';
import { urgencyOf, type WatchState } from './api';

describe('who needs someone', () => {
  const row = (state: WatchState, hand = false) => ({ state, hand: hand ? { at: 0, text: 'help' } : null });
  it('comes first: a hand, out of reach, waiting, and those who have handed in last', () => {
    const rows = [
      row('handed in'),
      row('writing'),
      row('waiting'),
      row('out of reach'),
      row('writing', true),
    ];
    const sorted = [...rows].sort((a, b) => urgencyOf(a) - urgencyOf(b));
    expect(sorted.map((r) => (r.hand ? 'hand' : r.state))).toEqual([
      'hand',
      'out of reach',
      'waiting',
      'writing',
      'handed in',
    ]);
  });
});
