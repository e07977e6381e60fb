import type { Component, Criterion } from '../kinds/contract';
import { sumMarks, type Hundredths } from '../marks';

/**
 * What an assessor gave each component: the index of a level, the indices of the points that were ticked, or hundredths
 * where it has neither. A mark between two levels is an index with a fraction: 1.5 lies half way from the second level to
 * the third.
 */
export type MarksGiven = Readonly<Record<string, number | readonly number[]>>;

export interface GivenMark {
  readonly component: string;
  readonly hundredths: Hundredths;
  readonly level: number | null;
  /** The points that were ticked, in their order; null where the component has none. */
  readonly points: readonly number[] | null;
}

/** The same fraction of a level, as far as two ways to compute it agree. */
const isNear = (a: number, b: number): boolean => Math.abs(a - b) < 1e-6;

/**
 * The marks between neighbouring levels that a criterion allows, in their order, and how each is given; none where it has
 * no levels or no step. Marks in hundredths.
 */
export function marksBetween({
  levels,
  step,
}: Pick<Criterion, 'levels'> & { readonly step?: number | undefined }): {
  readonly given: number;
  readonly hundredths: Hundredths;
}[] {
  if (levels === null || step === undefined) return [];
  return levels.slice(0, -1).flatMap(({ hundredths: from }, i) => {
    const to = levels[i + 1]!.hundredths;
    const [least, most] = [Math.min(from, to), Math.max(from, to)];
    const first = Math.floor(least / step) * step + step;
    const marks = Array.from(
      { length: Math.max(0, Math.ceil((most - first) / step)) },
      (_, k) => first + k * step,
    );
    return (from < to ? marks : marks.toReversed()).map((hundredths) => ({
      given: i + (hundredths - from) / (to - from),
      hundredths,
    }));
  });
}

/** The mark of one component. Throws RangeError for what it does not have. */
export function markOf({ key, of, criterion }: Component, given: number | readonly number[]): GivenMark {
  const { levels = null, points = null, step = 1 } = criterion ?? {};
  if (points !== null) {
    if (typeof given === 'number' || new Set(given).size !== given.length)
      throw new RangeError(`component ${key} takes a list of points`);
    const ticked = [...given].sort((a, b) => a - b);
    const each = ticked.map((index) => {
      const point = points[index];
      if (!point) throw new RangeError(`component ${key} has no point ${index}`);
      return point.hundredths;
    });
    return { component: key, hundredths: Math.min(of, sumMarks(each)), level: null, points: ticked };
  }
  if (typeof given !== 'number') throw new RangeError(`component ${key} has no points to tick`);
  if (levels === null) {
    if (!Number.isInteger(given) || given < 0 || given > of || (given % step !== 0 && given !== of))
      throw new RangeError(`component ${key} takes 0 to ${of} in steps of ${step}, not ${given}`);
    return { component: key, hundredths: given, level: null, points: null };
  }
  const level = levels[given];
  if (level) return { component: key, hundredths: level.hundredths, level: given, points: null };
  const between = marksBetween({ levels, step: criterion?.step }).find((one) => isNear(one.given, given));
  if (!between) throw new RangeError(`component ${key} has no level ${given}`);
  return { component: key, hundredths: between.hundredths, level: null, points: null };
}

/** The marks of what was decided, and the components still open. Throws RangeError for what is not there. */
export function marksGiven(
  components: readonly Component[],
  given: MarksGiven,
): { readonly marks: readonly GivenMark[]; readonly missing: readonly Component[] } {
  for (const key of Object.keys(given))
    if (!components.some((c) => c.key === key)) throw new RangeError(`no component ${key}`);
  const decided = components.filter((c) => given[c.key] !== undefined);
  return {
    marks: decided.map((component) => markOf(component, given[component.key]!)),
    missing: components.filter((c) => given[c.key] === undefined),
  };
}

/** What of a half-made mark fits the components as they are now: a draft may be older than they are. */
export const fittingMarks = (components: readonly Component[], given: MarksGiven): MarksGiven =>
  Object.fromEntries(
    Object.entries(given).filter(([key, value]) => {
      const component = components.find((c) => c.key === key);
      try {
        return component !== undefined && markOf(component, value) !== null;
      } catch {
        return false;
      }
    }),
  );

/** What was given, as it is given again: to change a mark that stands. */
export const givenAgain = (components: readonly Component[], marks: readonly GivenMark[]): MarksGiven =>
  Object.fromEntries(
    marks
      .filter(({ component }) => components.some(({ key }) => key === component))
      .map(({ component, hundredths, level, points }) => [
        component,
        points ?? level ?? betweenOf(components, component, hundredths) ?? hundredths,
      ]),
  );

/** How a mark between levels was given; null for any other mark. */
function betweenOf(components: readonly Component[], key: string, hundredths: Hundredths): number | null {
  const { levels = null, step } = components.find((one) => one.key === key)?.criterion ?? {};
  return marksBetween({ levels, step }).find((one) => one.hundredths === hundredths)?.given ?? null;
}
