import { scoreProbabilities, type ItemParameters } from './itemModel';

/** What is taken of somebody before they have answered: a normal distribution of abilities, in logits. */
export interface Prior {
  readonly mean: number;
  /** Above 0. */
  readonly sd: number;
}

/** An item and the score that was reached in it. */
export interface Scored {
  readonly item: ItemParameters;
  /** A whole number from 0 to the number of thresholds. */
  readonly score: number;
}

export interface Ability {
  /** The mean of the posterior distribution (expected a posteriori; Bock and Mislevy 1982), in logits. */
  readonly estimate: number;
  /** Its standard deviation. */
  readonly error: number;
}

const POINTS = 61;
const [LOWEST, HIGHEST] = [-4, 4];

/** The points at which abilities are weighed: 61, evenly from −4 to 4. */
export const abilityGrid: readonly number[] = Array.from(
  { length: POINTS },
  (_, i) => LOWEST + ((HIGHEST - LOWEST) * i) / (POINTS - 1),
);

/** By score and point of the grid. */
type LogChances = readonly (readonly number[])[];
const known = new WeakMap<ItemParameters, LogChances>();

/** Logarithms of what each score of an item is likely by; worked out once an item, for they are needed at every step. */
function logChancesOf(item: ItemParameters): LogChances {
  const cached = known.get(item);
  if (cached) return cached;
  const byPoint = abilityGrid.map((point) => scoreProbabilities(item, point));
  const made = [0, ...item.thresholds].map((_, score) =>
    // In logarithms: a hundred answers would be less than the smallest number.
    byPoint.map((chances) => Math.log(Math.max(chances[score]!, Number.MIN_VALUE))),
  );
  known.set(item, made);
  return made;
}

/** The posterior weight of each point of the grid; they add up to 1. Throws RangeError for a score that an item does not have. */
export function posterior(answers: readonly Scored[], { mean, sd }: Prior): number[] {
  const logs = abilityGrid.map((point) => -((point - mean) ** 2) / (2 * sd * sd));
  for (const { item, score } of answers) {
    if (!Number.isInteger(score) || score < 0 || score > item.thresholds.length)
      throw new RangeError(`no score of this item: ${score}`);
    logChancesOf(item)[score]!.forEach((log, i) => {
      logs[i]! += log;
    });
  }
  const most = Math.max(...logs);
  const weights = logs.map((log) => Math.exp(log - most));
  const sum = weights.reduce((x, y) => x + y);
  return weights.map((weight) => weight / sum);
}

/** Mean and standard deviation of weights on the grid. */
export function abilityOf(weights: readonly number[]): Ability {
  const estimate = weights.reduce((sum, weight, i) => sum + weight * abilityGrid[i]!, 0);
  const variance = weights.reduce((sum, weight, i) => sum + weight * (abilityGrid[i]! - estimate) ** 2, 0);
  return { estimate, error: Math.sqrt(variance) };
}

/** The ability of somebody by what they have answered so far. */
export const estimateAbility = (answers: readonly Scored[], prior: Prior): Ability =>
  abilityOf(posterior(answers, prior));
