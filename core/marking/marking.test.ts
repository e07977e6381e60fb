import { describe, expect, it } from 'vitest';
import { isOf } from '../validation/shapes';
import { marginNotesSchema } from './marginNoteSchema';
import { inReadingOrder, type Anchor, type MarginNote } from './marginNote';
import { piecesOf, textLeaves, withMarks } from './notesInText';
import { finishAt, marksAnHour } from './pace';
import { isGap, meanGiven } from './settle';
import { hasDrifted, standardPlaces } from './standardisation';

const MINUTE = 60_000;

describe('two marks of one part', () => {
  it('are a gap only beyond the tolerance, by their totals', () => {
    expect(isGap({ f: 300, r: 200 }, { f: 200, r: 100 }, 200)).toBe(false);
    expect(isGap({ f: 300, r: 200 }, { f: 200, r: 99 }, 200)).toBe(true);
    // Criteria far apart, totals equal.
    expect(isGap({ f: 400, r: 0 }, { f: 0, r: 400 }, 0)).toBe(false);
  });

  it('have a mean that is rounded once, half up', () => {
    // 250 and 249.5 → 499.5 in all → 500; whole hundredths below are 249 + 250, the one left goes to the first.
    expect(
      meanGiven(
        ['f', 'r'],
        [
          { f: 250, r: 251 },
          { f: 249, r: 249 },
        ],
      ),
    ).toEqual({ f: 250, r: 250 });
    // 1/2 + 1/2: two halves are one whole, not two.
    expect(
      meanGiven(
        ['f', 'r'],
        [
          { f: 1, r: 1 },
          { f: 0, r: 0 },
        ],
      ),
    ).toEqual({ f: 1, r: 0 });
    expect(() => meanGiven(['f'], [{ r: 1 }])).toThrow(RangeError);
  });
});

describe('standardisation', () => {
  const mark = (given: number, at: number) => ({ given, agreed: 800, at });

  it('finds drift in two of the last five, not in one, nor in what is long past', () => {
    expect(hasDrifted([mark(1200, 1), mark(800, 2)], 200)).toBe(false);
    expect(hasDrifted([mark(1200, 1), mark(500, 2)], 200)).toBe(true);
    const better = [mark(1200, 1), mark(1200, 2), ...[3, 4, 5, 6, 7].map((at) => mark(1000, at))];
    expect(hasDrifted(better.reverse(), 200)).toBe(false);
  });

  it('slips one into every stretch, at a place nobody can count on', () => {
    const places = standardPlaces(40, { every: 10, known: 8, seed: 'a' });
    expect(places.map((at) => Math.floor(at / 10))).toEqual([0, 1, 2, 3]);
    expect(standardPlaces(40, { every: 10, known: 8, seed: 'b' })).not.toEqual(places);
    expect(standardPlaces(40, { every: 10, known: 2, seed: 'a' })).toHaveLength(2);
    expect(() => standardPlaces(40, { every: 1, known: 2, seed: 'a' })).toThrow(RangeError);
  });
});

describe('pace', () => {
  it('counts the time of work alone', () => {
    // Four marks five minutes apart, a night, and one more spell of two: 4 gaps of 5 minutes in all.
    const times = [0, 5, 10, 15, 600, 605].map((minute) => minute * MINUTE);
    expect(marksAnHour(times)).toBe(12);
    expect(marksAnHour([0])).toBeNull();
    expect(marksAnHour([])).toBeNull();
  });

  it('forecasts the end by what was done since the first mark', () => {
    const now = 10 * 60 * MINUTE;
    // Five in ten hours: ten more take twenty.
    expect(finishAt([0, 1, 2, 3, 4], 10, now)).toBe(now + 20 * 60 * MINUTE);
    expect(finishAt([], 10, now)).toBeNull();
    expect(finishAt([1], 0, now)).toBeNull();
  });
});

describe('margin notes', () => {
  const note = (id: string, anchor: Anchor): MarginNote => ({ id, anchor, component: null, text: 'Why?' });
  const onText = (id: string, start: number, end: number) => note(id, { on: 'text', start, end, quote: 'x' });

  it('are read in the order of the answer', () => {
    const file = 'a'.repeat(64);
    const page = note('p', { on: 'page', file, page: 1, shape: 'point', points: [[0.5, 0.5]] });
    const notes = [page, onText('b', 9, 12), note('c', { on: 'component', key: 'a' }), onText('a', 2, 30)];
    expect(inReadingOrder(notes, [file]).map((one) => one.id)).toEqual(['a', 'b', 'p', 'c']);
  });

  it('are refused without a place, outside of a page, or twice', () => {
    const parse = (notes: unknown) => isOf(marginNotesSchema, notes);
    expect(parse([onText('a', 2, 3)])).toBe(true);
    expect(parse([onText('a', 3, 3)])).toBe(false);
    expect(parse([onText('a', 2, 3), onText('a', 4, 5)])).toBe(false);
    const outside = { on: 'page', file: 'a'.repeat(64), page: 1, shape: 'point', points: [[1.2, 0]] };
    expect(parse([{ id: 'a', component: null, text: '', anchor: outside }])).toBe(false);
  });

  it('cut a text where they begin and end, also where they overlap', () => {
    const [a, b] = [
      { start: 4, end: 8 },
      { start: 6, end: 12 },
    ];
    const pieces = piecesOf('the bay was warm', 0, [a, b]);
    expect(pieces.map((one) => [one.text, one.under.length, one.ending.length])).toEqual([
      ['the ', 0, 0],
      ['ba', 1, 0],
      ['y ', 2, 1],
      ['was ', 1, 1],
      ['warm', 0, 0],
    ]);
  });

  it('are numbered in print behind what they are about', () => {
    const paragraph = (text: string) => ({
      type: 'paragraph' as const,
      content: [{ type: 'text' as const, text }],
    });
    const doc = { type: 'doc' as const, content: [paragraph('It got warm.'), paragraph('Two lots.')] };
    expect(textLeaves(doc)).toBe('It got warm.Two lots.');
    // From “warm” into the next paragraph.
    const marked = withMarks(doc, [{ start: 7, end: 15 }], () => ' [1]');
    expect(textLeaves(marked)).toBe('It got warm.Two [1] lots.');
  });
});
