import { abilityGrid, type Prior } from './ability';
import type { ItemParameters } from './itemModel';

/** The answers of one person: 1 right, 0 wrong, null where an item was not asked. */
export type RightOrWrong = readonly (0 | 1 | null)[];

const MOST_ROUNDS = 200;
const SETTLED = 1e-4;
const NEWTON_STEPS = 8;
/** Bounds of what a model can say of an item; one that nobody or everybody gets right is at its end. */
const [LEAST_A, MOST_A, MOST_B] = [0.1, 4, 5];
/** Standard deviation of the logarithm of discriminations, as it is taken before anything is known (Mislevy 1986). */
const LOG_A_SD = 0.5;

const within = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value));

/** People that are expected at each point of the grid, and those of them who got an item right. */
interface Expected {
  readonly all: number[];
  readonly right: number[];
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
  const logs = items.map(({ a, d }) =>
    abilityGrid.map((x) => {
      const odds = a * x + d;
      // log P and log (1 − P), without overflow.
      const wrong = odds > 30 ? -odds : -Math.log1p(Math.exp(odds));
      return [wrong, wrong + odds] as const;
    }),
  );
  const none = () => abilityGrid.map(() => 0);
  const expected = items.map((): Expected => ({ all: none(), right: none() }));
  for (const row of people) {
    const weights = abilityGrid.map((_, k) => {
      let log = Math.log(density[k]!);
      row.forEach((answer, i) => {
        if (answer !== null) log += logs[i]![k]![answer];
      });
      return log;
    });
    const most = Math.max(...weights);
    const shares = weights.map((log) => Math.exp(log - most));
    const sum = shares.reduce((x, y) => x + y);
    row.forEach((answer, i) => {
      if (answer === null) return;
      const { all, right } = expected[i]!;
      shares.forEach((share, k) => {
        all[k]! += share / sum;
        if (answer === 1) right[k]! += share / sum;
      });
    });
  }
  return expected;
}
