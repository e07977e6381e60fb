import { describe, expect, it } from 'vitest';
import type { Component } from '../kinds/contract';
import { givenAgain, marksBetween, marksGiven } from './marksGiven';

const criterion = (key: string, levels: number[]): Component => ({
  key,
  by: 'people',
  of: Math.max(...levels),
  name: null,
  criterion: { levels: levels.map((hundredths) => ({ hundredths, label: '', says: '' })) },
});
const byHand: Component = { key: 'h', by: 'people', of: 150, name: null, criterion: { levels: null } };
const components = [criterion('f', [0, 100, 250]), criterion('l', [0, 50]), byHand];

describe('marks that people give', () => {
  it.each([
    [{ f: 2, l: 1, h: 75 }, [250, 50, 75], []],
    [{ f: 0, l: 0, h: 0 }, [0, 0, 0], []],
    [{ f: 1 }, [100], ['l', 'h']],
    [{}, [], ['f', 'l', 'h']],
  ])('%j', (given, hundredths, missing) => {
    const found = marksGiven(components, given);
    expect(found.marks.map((m) => m.hundredths)).toEqual(hundredths);
    expect(found.missing.map((c) => c.key)).toEqual(missing);
  });

  it.each([[{ f: 3 }], [{ x: 1 }], [{ f: -1 }], [{ h: 151 }], [{ h: 0.5 }]])(
    'refuse levels and marks that are not there: %j',
    (given) => {
      expect(() => marksGiven(components, given)).toThrow(RangeError);
    },
  );
});

describe('marks between two levels', () => {
  const stepped = (step: 50 | 100 | undefined, ...levels: number[]): Component => {
    const own = criterion('s', levels);
    return { ...own, criterion: { ...own.criterion!, ...(step ? { step } : {}) } };
  };
  it.each([
    // Half way from 1 to 2 and from 2 to 4, and every half between the last two.
    [50, [0, 100, 200, 400], [50, 150, 250, 300, 350]],
    [100, [0, 100, 200, 400], [300]],
    [100, [400, 100, 0], [300, 200]],
    [100, [0, 250], [100, 200]],
    [undefined, [0, 100, 400], []],
  ] as const)('in steps of %s between %j: %j', (step, levels, between) => {
    const own = stepped(step, ...levels);
    const found = marksBetween(own.criterion!);
    expect(found.map(({ hundredths }) => hundredths)).toEqual(between);
    for (const { given, hundredths } of found) {
      const [mark] = marksGiven([own], { s: given }).marks;
      expect(mark).toEqual({ component: 's', hundredths, level: null, points: null });
      // Given again, it is the same.
      expect(marksGiven([own], givenAgain([own], [mark!])).marks[0]!.hundredths).toBe(hundredths);
    }
  });

  it('are refused where the criterion has no such step', () => {
    expect(() => marksGiven([stepped(undefined, 0, 100)], { s: 0.5 })).toThrow(RangeError);
    expect(() => marksGiven([stepped(100, 0, 200)], { s: 0.25 })).toThrow(RangeError);
    expect(() => marksGiven([stepped(100, 0, 200)], { s: 1.5 })).toThrow(RangeError);
  });
});
