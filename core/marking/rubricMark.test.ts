import { describe, expect, it } from 'vitest';
import type { Rubric } from '../kinds/contract';
import { markByRubric } from './rubricMark';

const level = (hundredths: number) => ({ hundredths, label: `${hundredths}`, says: '' });
const rubric: Rubric = {
  scheme: '',
  criteria: [
    { key: 'f', title: 'Facts', levels: [0, 100, 250].map(level) },
    { key: 'l', title: 'Language', levels: [0, 50].map(level) },
  ],
};

describe('a mark by rubric', () => {
  it.each([
    [{ f: 2, l: 1 }, 300, []],
    [{ f: 0, l: 0 }, 0, []],
    [{ f: 1 }, 100, ['Language']],
    [{}, 0, ['Facts', 'Language']],
  ])('%j', (levels, hundredths, missing) => {
    expect(markByRubric(rubric, levels)).toEqual({ hundredths, missing });
  });

  it.each([[{ f: 3 }], [{ x: 1 }], [{ f: -1 }]])(
    'refuses levels that the rubric does not have: %j',
    (levels) => {
      expect(() => markByRubric(rubric, levels)).toThrow(RangeError);
    },
  );
});
