import type { Component } from '../kinds/contract';
import type { Hundredths } from '../marks';

/** What an assessor gave each component: the index of a level, or hundredths where it has none. */
export type MarksGiven = Readonly<Record<string, number>>;

export interface GivenMark {
  readonly component: string;
  readonly hundredths: Hundredths;
  readonly level: number | null;
}

/** The mark of one component. Throws RangeError for what it does not have. */
export function markOf({ key, of, criterion }: Component, given: number): GivenMark {
  const levels = criterion?.levels ?? null;
  if (levels === null) {
    if (!Number.isInteger(given) || given < 0 || given > of)
      throw new RangeError(`component ${key} takes 0 to ${of}, not ${given}`);
    return { component: key, hundredths: given, level: null };
  }
  const level = levels[given];
  if (!level) throw new RangeError(`component ${key} has no level ${given}`);
  return { component: key, hundredths: level.hundredths, level: given };
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
