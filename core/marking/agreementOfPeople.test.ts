import { expect, it } from 'vitest';
import { seededRandom } from '../random';
import { weightedKappa } from './agreement';
import { agreementOfPeople, byPeople, type PairByPeople } from './agreementOfPeople';
import { intraclass } from './intraclass';

/** Two assessors, one of whom gives a mark less; who is first is by chance. */
function markedByTwo(): PairByPeople[] {
  const random = seededRandom('two');
  return Array.from({ length: 40 }, (_, i): PairByPeople => {
    const mark = 100 * (i % 5);
    const strict = [3, mark] as const;
    const lenient = [7, mark + 100] as const;
    const [a, b] = random() < 0.5 ? [strict, lenient] : [lenient, strict];
    return { assessors: [a[0], b[0]], pair: [a[1], b[1]] };
  });
}

it('takes two assessors as columns, in whatever order they marked', () => {
  const twice = markedByTwo();
  const found = agreementOfPeople(twice);
  expect(found.people).toBe(2);
  const own = found.pairs[0]!;
  expect(own.assessors).toEqual([3, 7]);
  // The strict one is 100 below on every response, with nothing left to doubt; by the order of marking it is a mixture.
  expect(own.difference).toMatchObject({ n: 40, value: -100, interval: [-100, -100] });
  expect(own.pearson.value).toBeCloseTo(1, 12);
  const form = (of: string) => found.intraclass.find((one) => one.form === of)!.estimate.value!;
  // Of these two assessors alone the responses are ranked without any error.
  expect(form('3,1')).toBeCloseTo(1, 12);
  expect(
    intraclass(
      '3,1',
      twice.map(({ pair }) => pair),
    ).value,
  ).toBeLessThan(0.9);
  // Where assessors play no part, nothing depends on the order.
  expect(form('1,1')).toBeCloseTo(
    intraclass(
      '1,1',
      twice.map(({ pair }) => pair),
    ).value!,
    12,
  );
  expect(own.kappa).toEqual(weightedKappa(byPeople(twice).map(({ pair }) => pair)));
});

it('tells more than two pair by pair, and together only what needs no columns', () => {
  const third: PairByPeople = { assessors: [9, 3], pair: [200, 300] };
  const found = agreementOfPeople([...markedByTwo(), third]);
  expect([found.people, found.intraclass.map(({ form }) => form)]).toEqual([3, ['1,1', '1,k']]);
  expect(found.pairs.map(({ assessors, exact }) => [assessors, exact.n])).toEqual([
    [[3, 7], 40],
    [[3, 9], 1],
  ]);
  expect(found.pairs[1]!.difference.value).toBe(100);
});

it('says what is undefined where nothing was marked twice', () => {
  expect(agreementOfPeople([])).toMatchObject({
    people: 0,
    exact: { value: null },
    interval: { value: null, reason: 'too few' },
    pairs: [],
  });
});
