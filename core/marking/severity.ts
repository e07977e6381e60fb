import { quantileT } from '../measures/distributions';
import { unknown, type Estimate } from '../measures/estimate';
import type { Hundredths } from '../marks';

/** A mark, by who gave it and of which response. */
export interface MarkBy {
  readonly response: number;
  readonly assessor: number;
  readonly mark: Hundredths;
}

export interface Severity {
  readonly assessor: number;
  /** Hundredths above (lenient) or below (severe) the mean of the group, with an interval of 95 %. */
  readonly severity: Estimate;
  /** Assessors of one group are connected by responses that they have in common; of different ones nothing can be compared. */
  readonly group: number;
}

/** The inverse of a symmetric positive definite matrix, by Gauss and Jordan. */
function inverseOf(matrix: readonly (readonly number[])[]): number[][] {
  const size = matrix.length;
  const rows = matrix.map((row, i) => [...row, ...row.map((_, j) => (i === j ? 1 : 0))]);
  for (let k = 0; k < size; k++) {
    const pivot = rows[k]![k]!;
    for (let j = 0; j < 2 * size; j++) rows[k]![j]! /= pivot;
    for (let i = 0; i < size; i++) {
      const factor = rows[i]![k]!;
      if (i === k || factor === 0) continue;
      for (let j = 0; j < 2 * size; j++) rows[i]![j]! -= factor * rows[k]![j]!;
    }
  }
  return rows.map((row) => row.slice(size));
}

/** Who is connected with whom by common responses: for each assessor the number of their group, from 0. */
function groupsOf(
  assessors: readonly number[],
  responses: readonly (readonly MarkBy[])[],
): Map<number, number> {
  const parent = new Map(assessors.map((one) => [one, one]));
  const top = (one: number): number => {
    let at = one;
    while (parent.get(at) !== at) at = parent.get(at)!;
    return at;
  };
  for (const [first, ...others] of responses)
    for (const other of others) parent.set(top(other.assessor), top(first!.assessor));
  const known = new Map<number, number>();
  return new Map(
    assessors.map((one) => {
      const root = top(one);
      if (!known.has(root)) known.set(root, known.size);
      return [one, known.get(root)!];
    }),
  );
}

/**
 * Severity by a model with responses and assessors as facets: mark = response + assessor + error, by least squares over
 * the responses that at least two assessors marked. Within each group of connected assessors severities add up to 0; the
 * intervals are Student's, with the model's own error (Searle 1971, two-way crossed classification without interaction).
 * One who shares no response with anybody has no figure.
 */
export function severities(marks: readonly MarkBy[]): Severity[] {
  const byResponse = new Map<number, MarkBy[]>();
  for (const mark of marks) {
    const own = byResponse.get(mark.response);
    if (own) own.push(mark);
    else byResponse.set(mark.response, [mark]);
  }
  const responses = [...byResponse.values()].filter((own) => new Set(own.map((m) => m.assessor)).size > 1);
  const assessors = [...new Set(marks.map(({ assessor }) => assessor))].toSorted((a, b) => a - b);
  const groups = groupsOf(assessors, responses);
  const found = new Map<number, Severity>();
  for (const group of new Set(groups.values())) {
    const own = assessors.filter((one) => groups.get(one) === group);
    const shared = responses.filter((one) => groups.get(one[0]!.assessor) === group);
    for (const one of severitiesIn(own, shared)) found.set(one.assessor, { ...one, group });
  }
  return assessors.map((one) => found.get(one)!);
}

function severitiesIn(
  assessors: readonly number[],
  responses: readonly (readonly MarkBy[])[],
): Omit<Severity, 'group'>[] {
  const count = new Map(assessors.map((one) => [one, 0]));
  for (const { assessor } of responses.flat()) count.set(assessor, count.get(assessor)! + 1);
  const told = (of: (assessor: number, i: number) => Estimate) =>
    assessors.map((assessor, i) => ({ assessor, severity: of(assessor, i) }));
  if (assessors.length < 2) return told((one) => unknown(count.get(one)!, 'too few'));
  const at = new Map(assessors.map((one, i) => [one, i]));
  const m = assessors.length;
  // The normal equations once the responses are eliminated; ones over m make up for what they do not decide.
  const matrix = assessors.map(() => assessors.map(() => 1 / m));
  const sums = assessors.map(() => 0);
  for (const own of responses) {
    const mean = own.reduce((sum, { mark }) => sum + mark, 0) / own.length;
    for (const a of own) {
      const i = at.get(a.assessor)!;
      sums[i]! += a.mark - mean;
      matrix[i]![i]! += 1;
      for (const b of own) matrix[i]![at.get(b.assessor)!]! -= 1 / own.length;
    }
  }
  const inverse = inverseOf(matrix);
  const effects = inverse.map((row) => row.reduce((sum, one, j) => sum + one * sums[j]!, 0));
  const total = responses.reduce((sum, own) => sum + own.length, 0);
  const degrees = total - responses.length - (m - 1);
  const rest = responses.reduce((sum, own) => {
    const left = own.map(({ mark, assessor }) => mark - effects[at.get(assessor)!]!);
    const mean = left.reduce((all, one) => all + one, 0) / left.length;
    return sum + left.reduce((all, one) => all + (one - mean) ** 2, 0);
  }, 0);
  return told((one, i) => {
    const n = count.get(one)!;
    const value = effects[i]!;
    if (degrees < 1) return { n, value, interval: null };
    const half =
      quantileT(0.975, degrees) * Math.sqrt((rest / degrees) * Math.max(0, inverse[i]![i]! - 1 / m));
    return { n, value, interval: [value - half, value + half] };
  });
}
