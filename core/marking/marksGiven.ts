import type { Component } from '../kinds/contract';
import { sumMarks, type Hundredths } from '../marks';

/**
 * What an assessor gave each component: the index of a level, the indices of the points that were ticked, or hundredths
 * where it has neither.
 */
export type MarksGiven = Readonly<Record<string, number | readonly number[]>>;

export interface GivenMark {
  readonly component: string;
  readonly hundredths: Hundredths;
  readonly level: number | null;
  /** The points that were ticked, in their order; null where the component has none. */
  readonly points: readonly number[] | null;
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
  if (!level) throw new RangeError(`component ${key} has no level ${given}`);
  return { component: key, hundredths: level.hundredths, level: given, points: null };
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
      .map(({ component, hundredths, level, points }) => [component, points ?? level ?? hundredths]),
  );
