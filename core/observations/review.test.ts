import { describe, expect, it } from 'vitest';
import { pathOf, timeSpent } from './review';

const seen = (at: number, number: number) => ({ at, number, title: `Question ${number}` });

describe('the path through the questions', () => {
  it('joins what follows on itself, ends with the sitting, and knows no time outside of it', () => {
    // Claims before the start and after the end are held to the sitting: 100 to 200.
    const path = pathOf([seen(120, 1), seen(90, 1), seen(150, 2), seen(160, 2), seen(190, 1), seen(230, 3)], {
      from: 100,
      to: 200,
    });
    expect(path.map(({ number, from, to }) => [number, from, to])).toEqual([
      [1, 100, 150],
      [2, 150, 190],
      [1, 190, 200],
    ]);
    expect(timeSpent(path).map(({ number, ms }) => [number, ms])).toEqual([
      [1, 60],
      [2, 40],
    ]);
  });

  it('of nothing is nothing', () => {
    expect(pathOf([], { from: 0, to: 10 })).toEqual([]);
    expect(timeSpent([])).toEqual([]);
  });
});
