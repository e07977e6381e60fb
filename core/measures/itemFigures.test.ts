import { expect, it } from 'vitest';
import { itemFigures } from './itemFigures';

const script = (hundredths: number, rest: number | null, answered = true) => ({ hundredths, rest, answered });

it('facility, the correlation with the rest, and what was left out are as by hand', () => {
  const marks = [script(200, 400), script(100, 300), script(0, 500, false), script(100, null)];
  const { facility, itemRest, omitted } = itemFigures(marks, 200);
  // (200 + 100 + 0 + 100) / 4 of 200 is 0.5.
  expect(facility).toMatchObject({ n: 4, value: 0.5 });
  // Of 2, 1, 0 with 4, 3, 5 (means 1 and 4): Σ = 1·0 + 0·(−1) + (−1)·1 = −1; √(2 · 2) = 2.
  expect(itemRest).toMatchObject({ n: 3, value: -0.5 });
  expect(omitted).toMatchObject({ n: 4, value: 0.25 });
});

it('nothing is told of nobody', () => {
  const { facility, itemRest, omitted } = itemFigures([], 200);
  expect([facility.value, itemRest.value, omitted.value]).toEqual([null, null, null]);
});
