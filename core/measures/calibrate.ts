import { abilityGrid, type Prior } from './ability';
import type { ItemParameters } from './itemModel';

/** The answers of one person: 1 right, 0 wrong, null where an item was not asked. */
export type RightOrWrong = readonly (0 | 1 | null)[];

const MOST_ROUNDS = 200;
const SETTLED = 5e-4;
const NEWTON_STEPS = 3;
/** Bounds of what a model can say of an item; one that nobody or everybody gets right is at its end. */
const [LEAST_A, MOST_A, MOST_B] = [0.1, 4, 5];
/** Standard deviation of the logarithm of discriminations, as it is taken before anything is known (Mislevy 1986). */
const LOG_A_SD = 0.5;

const within = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value));

/** People that are expected at each point of the grid, and those of them who got an item right. */
interface Expected {
  readonly all: Float64Array;
  readonly right: Float64Array;
}

/** Newton's steps for slope and intercept of one item: a θ + d, with a prior on log a that keeps few answers in bounds. */
function fitted({ all, right }: Expected, start: { readonly a: number; readonly d: number }) {
  let { a, d } = start;
  for (let step = 0; step < NEWTON_STEPS; step++) {
    // First and second derivatives of the logarithm of the posterior density.
    const log = Math.log(a) / LOG_A_SD ** 2;
    let [ga, gd, haa, had, hdd] = [-log / a, 0, (log - 1 / LOG_A_SD ** 2) / a ** 2, 0, -1e-6];
    abilityGrid.forEach((x, k) => {
      const p = 1 / (1 + Math.exp(-(a * x + d)));
      const [residual, weight] = [right[k]! - all[k]! * p, all[k]! * p * (1 - p)];
      ga += residual * x;
      gd += residual;
      haa -= weight * x * x;
      had -= weight * x;
      hdd -= weight;
    });
    const determinant = haa * hdd - had * had;
    if (!(determinant > 1e-9)) break;
    const [da, dd] = [(hdd * ga - had * gd) / determinant, (haa * gd - had * ga) / determinant];
    a = within(a - within(da, -0.5, 0.5), LEAST_A, MOST_A);
    d -= within(dd, -1, 1);
    if (Math.abs(da) + Math.abs(dd) < SETTLED / 10) break;
  }
  return { a, d };
}

/**
 * The two-parameter logistic model of items by marginal maximum likelihood (Bock and Aitkin 1981): EM over the grid of
 * abilities, with a lognormal prior of mean 1 on discriminations. `prior` is the distribution of abilities, which sets
 * the scale. `people` must have one entry for each item. Throws RangeError where there is nobody, or a row is of another
 * length.
 */
export function calibrate(people: readonly RightOrWrong[], prior: Prior): ItemParameters[] {
  const count = people[0]?.length ?? 0;
  if (count === 0 || people.some((row) => row.length !== count))
    throw new RangeError('every person needs an entry for each item');
  const density = abilityGrid.map((x) => Math.exp(-((x - prior.mean) ** 2) / (2 * prior.sd ** 2)));
  let items = Array.from({ length: count }, () => ({ a: 1, d: 0 }));
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const expected = expectedOf(people, items, density);
    const next = items.map((item, i) => fitted(expected[i]!, item));
    const moved = Math.max(
      ...next.map(({ a, d }, i) => Math.max(Math.abs(a - items[i]!.a), Math.abs(d - items[i]!.d))),
    );
    items = next;
    if (moved < SETTLED) break;
  }
  return items.map(({ a, d }) => ({ a, thresholds: [within(-d / a, -MOST_B, MOST_B)] }));
}

function expectedOf(
  people: readonly RightOrWrong[],
  items: readonly { readonly a: number; readonly d: number }[],
  density: readonly number[],
): Expected[] {
  // By answer, item and point; typed arrays, for this is all of the work.
  const logs = [0, 1].map((answer) =>
    items.map(({ a, d }) =>
      Float64Array.from(abilityGrid, (x) => {
        const odds = a * x + d;
        // log (1 − P), without overflow; log P is more by the odds.
        const wrong = odds > 30 ? -odds : -Math.log1p(Math.exp(odds));
        return answer === 1 ? wrong + odds : wrong;
      }),
    ),
  );
  const start = Float64Array.from(density, Math.log);
  const none = () => new Float64Array(abilityGrid.length);
  const expected = items.map((): Expected => ({ all: none(), right: none() }));
  for (const row of people) {
    const shares = start.slice();
    row.forEach((answer, i) => {
      if (answer !== null) add(shares, logs[answer]![i]!);
    });
    normalise(shares);
    row.forEach((answer, i) => {
      if (answer === null) return;
      add(expected[i]!.all, shares);
      if (answer === 1) add(expected[i]!.right, shares);
    });
  }
  return expected;
}

function add(to: Float64Array, more: Float64Array): void {
  for (let k = 0; k < to.length; k++) to[k]! += more[k]!;
}

/** Logarithms of weights as weights that add up to 1. */
function normalise(logs: Float64Array): void {
  const most = Math.max(...logs);
  let sum = 0;
  for (let k = 0; k < logs.length; k++) sum += logs[k] = Math.exp(logs[k]! - most);
  for (let k = 0; k < logs.length; k++) logs[k]! /= sum;
}
