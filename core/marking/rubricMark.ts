import type { Rubric } from '../kinds/contract';
import { sumMarks, type Hundredths } from '../marks';

/** The level chosen for each criterion, by the criterion's key: an index into its levels. */
export type LevelsChosen = Readonly<Record<string, number>>;

export interface RubricMark {
  readonly hundredths: Hundredths;
  readonly missing: readonly string[];
}

/** Adds up the chosen levels; `missing` names the criteria still open. Throws RangeError on a level that is not there. */
export function markByRubric(rubric: Rubric, chosen: LevelsChosen): RubricMark {
  for (const key of Object.keys(chosen))
    if (!rubric.criteria.some((c) => c.key === key)) throw new RangeError(`no criterion ${key}`);
  const levels = rubric.criteria.map((criterion) => {
    const index = chosen[criterion.key];
    if (index === undefined) return { criterion, level: null };
    const level = criterion.levels[index];
    if (!level) throw new RangeError(`criterion ${criterion.key} has no level ${index}`);
    return { criterion, level };
  });
  return {
    hundredths: sumMarks(levels.map(({ level }) => level?.hundredths ?? 0)),
    missing: levels.filter(({ level }) => level === null).map(({ criterion }) => criterion.title),
  };
}

export const maximumOfRubric = (rubric: Rubric): Hundredths =>
  sumMarks(rubric.criteria.map((c) => Math.max(...c.levels.map((l) => l.hundredths))));
