/**
 * How likely each score of an item is, by ability on the logit scale of the group that calibrated it.
 *
 * One threshold: the two-parameter logistic model (Birnbaum 1968), P(1) = 1 / (1 + exp(−a(θ − b))). Several: the
 * generalised partial credit model (Muraki 1992), by which a score k of m is as likely as
 * exp(Σ over v ≤ k of a(θ − b_v)) among all scores. Without a calibration of its own, a is 1 (Rasch; Masters 1982).
 */
export interface ItemParameters {
  /** Discrimination, above 0. */
  readonly a: number;
  /** A threshold for each step of the score, in logits; the difficulty where there is one. */
  readonly thresholds: readonly number[];
}

/** The probabilities of the scores 0 … m at an ability. They add up to 1. */
export function scoreProbabilities({ a, thresholds }: ItemParameters, ability: number): number[] {
  const steps = [0];
  for (const b of thresholds) steps.push(steps.at(-1)! + a * (ability - b));
  // Against overflow at large discriminations: only the differences count.
  const most = Math.max(...steps);
  const weights = steps.map((step) => Math.exp(step - most));
  const sum = weights.reduce((x, y) => x + y);
  return weights.map((weight) => weight / sum);
}

/** Fisher information at an ability: a² times the variance of the score (Muraki 1993); for one threshold a²P(1 − P). */
export function information(item: ItemParameters, ability: number): number {
  const chances = scoreProbabilities(item, ability);
  const mean = chances.reduce((sum, p, k) => sum + k * p, 0);
  const variance = chances.reduce((sum, p, k) => sum + (k - mean) ** 2 * p, 0);
  return item.a ** 2 * variance;
}

/** The author's estimate of difficulty, 1 (easy) to 5, as logits: −2 … 2, with a discrimination of 1. */
export const estimatedItem = (difficulty: number): ItemParameters => ({ a: 1, thresholds: [difficulty - 3] });

/**
 * Items that are asked as a whole, as one item whose score is the sum of theirs: their thresholds in rising order, the mean
 * of their discriminations. For bundles that were not calibrated as such.
 */
export function bundled(items: readonly ItemParameters[]): ItemParameters {
  if (items.length === 1) return items[0]!;
  const thresholds = items.flatMap((item) => item.thresholds).sort((x, y) => x - y);
  return { a: items.reduce((sum, item) => sum + item.a, 0) / items.length, thresholds };
}
