import { describe, expect, it } from 'vitest';
import type { Component } from '../kinds/contract';
import { marksGiven } from './marksGiven';

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
