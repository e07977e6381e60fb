import type Joi from 'joi';
import { describe, expect, it } from 'vitest';
import { aidsFor } from './aids';
import { isOf } from '../validation/shapes';
import { aidSchema, drawingSchema, highlightsSchema } from './noteSchemas';
import { withHighlight, withoutRange, type Highlight } from './notes';

const TEXT = 'Lots K-1 and K-3 had been moved.';
const textOf = (start: number, end: number) => TEXT.slice(start, end);
const of = (start: number, end: number, tint: Highlight['tint'] = 'solid'): Highlight => ({
  start,
  end,
  tint,
  quote: textOf(start, end),
});

describe('highlights', () => {
  it.each<[string, Highlight[], Highlight, Highlight[]]>([
    ['stand beside each other', [of(0, 4)], of(9, 12), [of(0, 4), of(9, 12)]],
    [
      'give way to a new one within',
      [of(0, 16)],
      of(5, 8, 'dotted'),
      [of(0, 5), of(5, 8, 'dotted'), of(8, 16)],
    ],
    ['are cut where a new one begins', [of(0, 8)], of(5, 16, 'dashed'), [of(0, 5), of(5, 16, 'dashed')]],
    ['go where a new one covers them', [of(5, 8), of(9, 12)], of(0, 16), [of(0, 16)]],
    ['touch without a change', [of(0, 4)], of(4, 8), [of(0, 4), of(4, 8)]],
  ])('%s', (_, known, added, after) => expect(withHighlight(known, added, textOf)).toEqual(after));

  it('are cleared in part', () =>
    expect(withoutRange([of(0, 16), of(20, 24)], { start: 4, end: 8 }, textOf)).toEqual([
      of(0, 4),
      of(8, 16),
      of(20, 24),
    ]));
});

describe('what a device may send of aids', () => {
  it.each<[string, Joi.AnySchema, unknown, boolean]>([
    ['highlights', highlightsSchema, { 'tab-0': [of(0, 4)] }, true],
    ['highlights of another tint', highlightsSchema, { 'tab-0': [{ ...of(0, 4), tint: 'red' }] }, false],
    ['highlights before the start', highlightsSchema, { 'tab-0': [{ ...of(0, 4), start: -1 }] }, false],
    [
      'far too many highlights',
      highlightsSchema,
      { 'tab-0': Array.from({ length: 201 }, () => of(0, 1)) },
      false,
    ],
    ['a drawing', drawingSchema, [[1, 2, 3, 4]], true],
    ['a stroke beside the pad', drawingSchema, [[1, 2000]], false],
    // 11 strokes of 2,000 points are above 20,000.
    [
      'a drawing of too many points',
      drawingSchema,
      Array.from({ length: 11 }, () => new Array<number>(4000).fill(1)),
      false,
    ],
    ['a place', aidSchema, { open: true, x: 12, angle: 'degrees' }, true],
    ['a place without end', aidSchema, { x: Infinity }, false],
    ['a setting with things in it', aidSchema, { x: { y: 1 } }, false],
  ])('%s', (_, schema, value, good) => expect(isOf(schema, value)).toBe(good));
});

it('gives each aid once, in the order of the kit', () =>
  expect(aidsFor(['meanings', 'lens'], ['read-aloud', 'lens'])).toEqual(['lens', 'read-aloud', 'meanings']));
