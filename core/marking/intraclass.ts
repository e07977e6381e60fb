import { quantileF } from '../measures/distributions';
import { unknown, type Estimate } from '../measures/estimate';
import { meanOf } from '../measures/mean';

/**
 * Which intraclass correlation, as Shrout and Fleiss (1979) name them. 1: each response has other assessors; 2: the same
 * assessors, who stand for others; 3: these assessors alone. The second is 1 for a single mark, `k` for the mean of all.
 */
export const intraclassForms = ['1,1', '2,1', '3,1', '1,k', '2,k', '3,k'] as const;
export type IntraclassForm = (typeof intraclassForms)[number];

/** Mean squares of responses × assessors: between responses, within, between assessors, and what is left. */
export interface MeanSquares {
  readonly between: number;
  readonly within: number;
  readonly assessors: number;
  readonly rest: number;
}

/** `marks[i][j]`: of response i by assessor j. Every row has the same length of two or more; there are two rows or more. */
export function meanSquares(marks: readonly (readonly number[])[]): MeanSquares {
  const [n, k] = [marks.length, marks[0]!.length];
  const rows = marks.map(meanOf);
  const columns = marks[0]!.map((_, j) => meanOf(marks.map((row) => row[j]!)));
  const all = meanOf(rows);
  const squares = (values: readonly number[], from: number) =>
    values.reduce((sum, value) => sum + (value - from) ** 2, 0);
  const within = marks.reduce((sum, row, i) => sum + squares(row, rows[i]!), 0);
  const left = marks.reduce(
    (sum, row, i) => sum + row.reduce((own, x, j) => own + (x - rows[i]! - columns[j]! + all) ** 2, 0),
    0,
  );
  return {
    between: (k * squares(rows, all)) / (n - 1),
    within: within / (n * (k - 1)),
    assessors: (n * squares(columns, all)) / (k - 1),
    rest: left / ((n - 1) * (k - 1)),
  };
}

type Interval = readonly [number, number];

/** Of a mean of k marks, by Spearman and Brown, from that of one. */
const ofMeans = (one: number, k: number) => (one * k) / (1 + one * (k - 1));

function intervalOf(type: '1' | '2' | '3', m: MeanSquares, { n, k }: { n: number; k: number }): Interval {
  const tail = 0.975;
  if (type !== '2') {
    const error = type === '1' ? m.within : m.rest;
    // All marks of a response are equal: nothing is left to doubt.
    if (error === 0) return [1, 1];
    const [top, bottom] = [n - 1, type === '1' ? n * (k - 1) : (n - 1) * (k - 1)];
    const ratio = m.between / error;
    const low = ratio / quantileF(tail, top, bottom);
    const high = ratio * quantileF(tail, bottom, top);
    return [(low - 1) / (low + k - 1), (high - 1) / (high + k - 1)];
  }
  const single = valueOf('2,1', m, { n, k });
  if (m.rest === 0 && m.assessors === 0) return [1, 1];
  // Satterthwaite's degrees of freedom, in a form without division by the rest, which can be 0.
  const [a, b] = [k * single * m.assessors, (n * (1 + (k - 1) * single) - k * single) * m.rest];
  const degrees = ((k - 1) * (n - 1) * (a + b) ** 2) / ((n - 1) * a ** 2 + b ** 2);
  const upper = quantileF(tail, n - 1, degrees);
  const lower = quantileF(tail, degrees, n - 1);
  const shared = k * m.assessors + (k * n - k - n) * m.rest;
  return [
    (n * (m.between - upper * m.rest)) / (upper * shared + n * m.between),
    (n * (lower * m.between - m.rest)) / (shared + n * lower * m.between),
  ];
}

function valueOf(form: IntraclassForm, m: MeanSquares, { n, k }: { n: number; k: number }): number {
  const formulas: Record<IntraclassForm, () => number> = {
    '1,1': () => (m.between - m.within) / (m.between + (k - 1) * m.within),
    '2,1': () => (m.between - m.rest) / (m.between + (k - 1) * m.rest + (k * (m.assessors - m.rest)) / n),
    '3,1': () => (m.between - m.rest) / (m.between + (k - 1) * m.rest),
    '1,k': () => (m.between - m.within) / m.between,
    '2,k': () => (m.between - m.rest) / (m.between + (m.assessors - m.rest) / n),
    '3,k': () => (m.between - m.rest) / m.between,
  };
  return formulas[form]();
}

/**
 * An intraclass correlation of responses × assessors, with its interval of 95 % (Shrout and Fleiss 1979; the intervals of
 * 2,1 and 2,k by Satterthwaite's degrees of freedom). `n` counts responses. Throws RangeError where rows differ in length.
 */
export function intraclass(form: IntraclassForm, marks: readonly (readonly number[])[]): Estimate {
  const size = { n: marks.length, k: marks[0]?.length ?? 0 };
  if (marks.some((row) => row.length !== size.k))
    throw new RangeError('every response needs a mark of each assessor');
  if (size.n < 2 || size.k < 2) return unknown(size.n, 'too few');
  const squares = meanSquares(marks);
  const value = valueOf(form, squares, size);
  if (!Number.isFinite(value)) return unknown(size.n, 'no variation');
  const [type, of] = form.split(',') as ['1' | '2' | '3', '1' | 'k'];
  const [low, high] = intervalOf(type, squares, size);
  const whole =
    of === '1' ? ([low, high] as const) : ([ofMeans(low, size.k), ofMeans(high, size.k)] as const);
  return { n: size.n, value, interval: whole };
}
