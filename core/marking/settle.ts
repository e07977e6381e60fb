import { sumMarks, type Hundredths } from '../marks';

/** What one assessor gave the human components of a part, by their keys. */
export type Given = Readonly<Record<string, Hundredths>>;

export const totalGiven = (given: Given): Hundredths => sumMarks(Object.values(given));

/** Are two marks of one part further apart than its tolerance? Totals are compared; the limit itself is still inside. */
export const isGap = (first: Given, second: Given, tolerance: Hundredths): boolean =>
  Math.abs(totalGiven(first) - totalGiven(second)) > tolerance;

/**
 * The mean of several markings of a part, component by component in the order of `keys`. The total is rounded once, half
 * up to a hundredth; what rounding down has left goes to the earlier components. Throws RangeError where one is missing.
 */
export function meanGiven(keys: readonly string[], markings: readonly Given[]): Given {
  const sums = keys.map((key) =>
    sumMarks(
      markings.map((given) => {
        const own = given[key];
        if (own === undefined) throw new RangeError(`no mark for component ${key}`);
        return own;
      }),
    ),
  );
  const count = markings.length;
  const total = Math.floor(sumMarks(sums) / count + 0.5);
  const means = sums.map((sum) => Math.floor(sum / count));
  let left = total - sumMarks(means);
  return Object.fromEntries(
    keys.map((key, i) => {
      const more = left > 0 ? 1 : 0;
      left -= more;
      return [key, means[i]! + more];
    }),
  );
}
