import * as v from 'valibot';
import { describe, expect, it } from 'vitest';
import { order } from '.';
import type { OrderContent } from './content';
import { samples } from './samples';

const { content } = samples[0]!;
const marks = (rule: OrderContent['rule'], sequence: string) =>
  order.score({ content: { ...content, rule }, response: { sequence: [...sequence] }, maximum: 600 })
    .hundredths;

describe('order', () => {
  it.each([
    // one swap of neighbours: 5 of 6 pairs agree, τ = (5 − 1)/6 = 2/3, (1 + 2/3)/2 = 5/6
    ['rank', 'bacd', 500],
    ['rank', 'dcba', 0],
    // of the three neighbour pairs only cd is kept
    ['pairs', 'bacd', 200],
    // bcd a: bc and cd are kept
    ['pairs', 'bcda', 400],
    ['exact', 'bacd', 0],
    ['exact', 'abcd', 600],
  ] as const)('%s %s', (rule, sequence, expected) => expect(marks(rule, sequence)).toBe(expected));

  it('refuses what is not a whole order', () => {
    const shown = order.show(content);
    expect(order.misfit(shown, { sequence: ['a', 'b', 'c'] })).not.toBeNull();
    expect(order.misfit(shown, { sequence: ['a', 'a', 'b', 'c'] })).not.toBeNull();
    expect(v.safeParse(order.content, { ...content, right: ['c', 'a', 'd', 'b'] }).success).toBe(false);
  });
});
