import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../random';
import { hundredthsOf, placeFor } from '../../testing/scoreAlone';
import { order } from './candidate';
import { orderKey } from './key';
import type { OrderRule } from './response';
import { samples } from './samples';

const { content } = samples[0]!;
const shuffling = samples[1]!.content;
const marks = (rule: OrderRule, sequence: string) =>
  hundredthsOf(orderKey, {
    content: { ...content, asked: { ...content.asked, rule } },
    response: { sequence: [...sequence] },
    marks: 600,
  });

describe('order', () => {
  it.each([
    // one swap of neighbours: 5 of 6 pairs agree, τ = (5 − 1)/6 = 2/3, (1 + 2/3)/2 = 5/6
    ['rank', 'bacd', 500],
    ['rank', 'dcba', 0],
    // unfinished: ab, ac and bc of six pairs
    ['rank', 'abc', 300],
    // of the three neighbour pairs only cd is kept
    ['pairs', 'bacd', 200],
    // bcd a: bc and cd are kept
    ['pairs', 'bcda', 400],
    // ba is the key's pair turned round
    ['pairs', 'dcba', 0],
    // What stands twice, or is not there, is not placed: abc of it, ab alone, and no neighbour across a hole.
    ['rank', 'abcdd', 300],
    ['rank', 'abxcc', 100],
    ['pairs', 'axbcd', 400],
    ['pairs', 'abab', 0],
    ['exact', 'abcda', 0],
    ['exact', 'bacd', 0],
    ['exact', 'abcd', 600],
  ] as const)('%s %s', (rule, sequence, expected) => expect(marks(rule, sequence)).toBe(expected));

  it('refuses what is not a whole order', () => {
    const shown = orderKey.show(content.asked, ['c', 'a', 'd', 'b'], placeFor(600));
    for (const sequence of [
      ['a', 'b', 'c'],
      ['a', 'a', 'b', 'c'],
      ['a', 'b', 'c', 'x'],
    ])
      expect(order.misfit(shown, { sequence })).not.toBeNull();
    const dealtRight = { ...content, key: { right: ['c', 'a', 'd', 'b'] } };
    expect(orderKey.check(dealtRight, placeFor(600))).toMatchObject([{ severity: 'severe' }]);
  });

  it('is never dealt in the right order, whatever the seed', () => {
    for (let n = 0; n < 2400; n++) {
      const dealt = orderKey.arrange(shuffling, seededRandom(`seed ${n}`));
      expect([...dealt].sort()).toEqual(['a', 'b', 'c', 'd']);
      expect(dealt.join('')).not.toBe('abcd');
    }
  });
});
