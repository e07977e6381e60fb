import { describe, expect, it } from 'vitest';
import '../candidateKinds';
import { say } from '../../messages/words';
import { creditsOf, placeFor } from '../../testing/scoreAlone';
import { hotArea } from './candidate';
import { hotAreaKey } from './key';
import { samples } from './samples';
import { holds, insideOf, type PicturePoint, type Shape } from './shapes';

const [choose, mark] = [samples[0]!.content, samples[1]!.content];
const at = (...points: [number, number][]) => points.map(([x, y]): PicturePoint => ({ x, y }));
const shapes = Object.fromEntries(choose.asked.areas.map(({ key, shape }) => [key, shape]));
/** An L: the middle of its corners lies outside. */
const bent: Shape = { is: 'polygon', points: at([0, 0], [100, 0], [100, 10], [10, 10], [10, 100], [0, 100]) };

describe('hot area', () => {
  // Right are the lower tip (centre 500, 800; half axes 100 and 50) and the outer layer (x from 0 to 200).
  it.each([
    ['both', at([500, 800], [100, 500]), [100, 100]],
    ['on both borders', at([600, 800], [200, 0]), [100, 100]],
    ['a thousandth outside: (101/100)² > 1', at([601, 800], [201, 0]), [0, 0]],
    ['two marks in one area earn it once', at([100, 1], [100, 2]), [0, 100]],
    ['one outside, one inside', at([500, 300], [500, 750]), [100, 0]],
    ['nothing right', at([500, 300], [700, 300]), [0, 0]],
    ['more marks than allowed earn nothing', at([500, 800], [100, 500], [1, 1]), [0, 0]],
  ])('marks: %s', (_, marks, expected) => {
    const found = creditsOf(hotAreaKey, { content: mark, response: { chosen: [], marks }, marks: 200 });
    expect(found.map((c) => c.hundredths)).toEqual(expected);
  });

  // Right are root and leaf, in that order: 101 and 100 of 201 hundredths.
  it.each([
    [
      ['root', 'leaf'],
      [101, 100],
      ['right', 'right'],
    ],
    [
      ['leaf', 'coat'],
      [0, 100],
      ['wrong', 'right'],
    ],
    // Something was answered: what was not earned is wrong, also where more could have been chosen.
    [['leaf'], [0, 100], ['wrong', 'right']],
    [['coat'], [0, 0], ['wrong', 'wrong']],
    [
      ['coat', 'root', 'leaf'],
      [0, 0],
      ['wrong', 'wrong'],
    ],
  ])('choosing %j', (chosen, hundredths, verdicts) => {
    const found = creditsOf(hotAreaKey, { content: choose, response: { chosen, marks: [] }, marks: 201 });
    expect(found.map((c) => c.hundredths)).toEqual(hundredths);
    expect(found.map((c) => c.verdict)).toEqual(verdicts);
  });

  it('gives a mark in two areas to the one that lets most be earned', () => {
    const wide: Shape = { is: 'rectangle', x: 0, y: 0, width: 300, height: 1000 };
    const content = {
      asked: {
        ...mark.asked,
        areas: mark.asked.areas.map((a) => (a.key === 'root' ? { ...a, shape: wide } : a)),
      },
      key: mark.key,
    };
    // The first lies in both, the second in the wide one only.
    for (const marks of [at([100, 100], [250, 100]), at([250, 100], [100, 100])]) {
      const found = creditsOf(hotAreaKey, { content, response: { chosen: [], marks }, marks: 200 });
      expect(found.map((c) => c.hundredths)).toEqual([100, 100]);
    }
  });

  it.each([
    ['inside a triangle', shapes.leaf!, [500, 300], true],
    ['on its edge', shapes.leaf!, [450, 300], true],
    ['on its corner', shapes.leaf!, [500, 400], true],
    ['beside it, at the height of a corner', shapes.leaf!, [650, 200], false],
    ['in the notch of an L', bent, [50, 50], false],
    ['in the leg of an L', bent, [5, 90], true],
  ] as const)('knows what is %s', (_, shape, [x, y], inside) => {
    expect(holds(shape, { x, y })).toBe(inside);
  });

  it('finds a point inside every shape', () => {
    for (const shape of [...Object.values(shapes), bent]) expect(holds(shape, insideOf(shape))).toBe(true);
  });

  it('tells a mark by the area that it lies in, or by its place', () => {
    const shown = hotAreaKey.show(mark.asked, null, placeFor(200));
    const response = { chosen: [], marks: at([500, 800], [700, 300]) };
    expect(hotArea.describe(shown, response, say).text).toBe(
      'The lower tip (50 % across, 80 % down); 70 % across, 30 % down',
    );
  });

  it.each([
    [{ ...choose, asked: { ...choose.asked, limit: 3 } }, 'hot-area.limitTooLarge'],
    [{ ...choose, asked: { ...choose.asked, limit: 1 } }, 'hot-area.limitTooSmall'],
    [{ ...mark, asked: { ...mark.asked, limit: 3 } }, 'hot-area.limitAbove'],
    [{ ...mark, key: { right: ['stem'] } }, 'hot-area.rightUnknown'],
    [
      { ...mark, asked: { ...mark.asked, picture: { format: 1 as const, blocks: [] } } },
      'hot-area.noPicture',
    ],
  ])('has an issue where its halves do not fit (%#)', (content, code) => {
    expect(hotAreaKey.check(content, placeFor(200)).map((issue) => issue.message.code)).toContain(code);
  });
});
