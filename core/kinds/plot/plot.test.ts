import { describe, expect, it } from 'vitest';
import '../candidateKinds';
import { say } from '../../messages/words';
import { creditsOf, placeFor } from '../../testing/scoreAlone';
import { plot, showPlace } from './candidate';
import { plotKey } from './key';
import type { Drawn, Place, Sort } from './response';
import { drawing, samples } from './samples';

const { content } = samples[0]!;
const shown = plotKey.show(content.asked, null, placeFor(400));
const places = (...numbers: number[]): Place[] =>
  Array.from({ length: numbers.length / 2 }, (_, i) => [String(numbers[2 * i]), String(numbers[2 * i + 1])]);

/** A plane with one object of a mark: is what was given as good as the key? */
function earns(sort: Sort, right: Drawn, given: Drawn, within = '0', count: number | null = null) {
  const asked = { ...content.asked, objects: [{ key: 'o', text: 'it', sort, count }] };
  const one = { asked, key: { objects: { o: right }, tolerance: { o: within } } };
  const [credit] = creditsOf(plotKey, { content: one, response: { objects: { o: given } }, marks: 100 });
  return [credit!.hundredths, credit!.verdict];
}
const RIGHT = [100, 'right'];
const WRONG = [0, 'wrong'];

describe('plot', () => {
  it.each([
    ['point', places(1, 1), places(1, 1), '0', RIGHT],
    // |(1, 1) − (1.5, 1)| = 0.5, its limit included
    ['point', places(1, 1), places(1.5, 1), '0.5', RIGHT],
    // |(1, 1) − (1.5, 1.5)| = √0.5 ≈ 0.707
    ['point', places(1, 1), places(1.5, 1.5), '0.7', WRONG],
    ['points', places(0, 0, 1, 1), places(1, 1, 0, 0), '0', RIGHT],
    ['points', places(0, 0, 1, 1), places(1, 1, 1, 1), '0', WRONG],
    // The first lies near both, the second near the first only: each takes one.
    ['points', places(0, 0, 1, 0), places(0.5, 0, -0.5, 0), '0.5', RIGHT],
    ['points', places(0, 0), places(0, 0, 1, 1), '0', WRONG],
    ['segment', places(0, 0, 3, 1), places(3, 1, 0, 0), '0', RIGHT],
    ['ray', places(0, 0, 1, 1), places(0, 0, 4, 4), '0', RIGHT],
    ['ray', places(0, 0, 1, 1), places(1, 1, 0, 0), '0', WRONG],
    ['line', places(0, 1, 1, 2), places(-4, -3, 3, 4), '0', RIGHT],
    ['line', places(0, 1, 1, 2), places(0, 0, 1, 1), '0', WRONG],
  ] as const)('%s %j for %j within %s', (sort, right, given, within, expected) => {
    expect(earns(sort, drawing(given.slice()), drawing(right.slice()), within)).toEqual(expected);
    expect(earns(sort, drawing(right.slice()), drawing(given.slice()), within)).toEqual(expected);
  });

  const cold = drawing(places(0, 1, 4, -1), { boundary: 'dashed', side: ['0', '-3'] });
  it.each([
    ['another point on the side', { ...cold, side: ['5', '-5'] as Place }, RIGHT],
    ['the other side', { ...cold, side: ['0', '3'] as Place }, WRONG],
    ['a point on the border', { ...cold, side: ['2', '0'] as Place }, WRONG],
    ['the border included', { ...cold, boundary: 'solid' as const }, WRONG],
    ['another border', { ...cold, points: places(0, 0, 4, -2) }, WRONG],
    ['no side', { ...cold, side: null }, WRONG],
  ])('a half-plane: %s', (_, given, expected) => expect(earns('half-plane', cold, given)).toEqual(expected));

  it('counts a tolerance in grid units of each axis', () => {
    const wide = { ...content.asked.x, from: '-50', to: '50', step: '10' };
    const asked = {
      ...content.asked,
      x: wide,
      objects: [{ key: 'o', text: 'it', sort: 'point' as const, count: null }],
    };
    const one = { asked, key: { objects: { o: drawing(places(10, 1)) }, tolerance: { o: '1' } } };
    const at = (x: number, y: number) =>
      creditsOf(plotKey, {
        content: one,
        response: { objects: { o: drawing(places(x, y)) } },
        marks: 100,
      })[0]!.hundredths;
    // One grid unit across is 10 here.
    expect([at(20, 1), at(10, 2), at(20, 2)]).toEqual([100, 100, 0]);
  });

  it('is unanswered where nothing is drawn, and wrong where something is unfinished', () => {
    const response = { objects: { s: drawing(places(0, 1)), bed: drawing(places(0, 0, 2, 0, 2, 2, 0, 2)) } };
    const found = creditsOf(plotKey, { content, response, marks: 400 });
    expect(found.map((c) => c.verdict)).toEqual(['wrong', 'unanswered', 'unanswered', 'wrong']);
  });

  it.each([
    [{}, 'Draw line s, point P, the cold region, the bed'],
    [{ s: drawing(places(0, 1)) }, 'line s: set 1 more point'],
    [{ s: drawing(places(0, 1, 0, 1)) }, 'line s: the two points are the same'],
    [{ ...content.key.objects, cold: { ...cold, side: null } }, 'the cold region: choose the side'],
    [{ ...content.key.objects, bed: drawing(places(0, 0, 1, 0, 1, 1)) }, 'the bed: close the shape'],
  ])('says what is missing (%#)', (objects, words) => {
    expect(say(plot.progress(shown, { objects }).missing!)).toBe(words);
  });

  it('tells coordinates as the round writes figures', () => {
    expect([showPlace(['1.5', '-2'], 'en'), showPlace(['1.5', '-2'], 'de')]).toEqual([
      '(1.5, −2)',
      '(1,5; −2)',
    ]);
    expect(plot.describe(shown, { objects: { cold } }, say).text).toBe(
      'the cold region on the side of (0, −3), border through (0, 1) · (4, −1), the border not included (dashed)',
    );
  });

  it.each([
    [{ ...content, asked: { ...content.asked, x: { ...content.asked.x, step: '3' } } }, 'plot.axis'],
    [{ ...content, asked: { ...content.asked, y: { ...content.asked.y, step: '0' } } }, 'plot.axis'],
    [{ ...content, key: { ...content.key, objects: {} } }, 'plot.noRight'],
    [{ ...content, key: { ...content.key, tolerance: { p: '-1' } } }, 'plot.tolerance'],
    [
      { ...content, key: { ...content.key, objects: { ...content.key.objects, p: drawing(places(9, 9)) } } },
      'plot.outside',
    ],
  ])('has an issue where its halves do not fit (%#)', (one, code) => {
    expect(plotKey.check(one, placeFor(400)).map((issue) => issue.message.code)).toContain(code);
  });
});
