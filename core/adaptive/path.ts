import { estimateAbility, posterior, type Ability, type Scored } from '../measures/ability';
import { information } from '../measures/itemModel';
import { seededRandom } from '../random';
import { chooseUnit, isComplete, type Choice } from './choose';
import { levelOf, likelyRange, type LevelBand, type LevelFound, type Scale } from './level';
import { questionsIn, type AdaptiveRules, type Unit } from './rules';

/** An adaptive section of one sitting: what it can ask, its rules, and the seed of the form. */
export interface PathSection {
  readonly pool: readonly Unit[];
  readonly rules: AdaptiveRules;
  /** Of the form and the section: chance is drawn from it, step by step. */
  readonly seed: string;
}

/** A step as it is kept: what was asked and why, and what was reached. */
export interface Step extends Choice {
  /** From 1. */
  readonly number: number;
  /** The ability when this was chosen. */
  readonly before: Ability;
  /** Whole marks; null while the unit is open, and for good where time ended in it: then it does not count. */
  readonly score: number | null;
}

export type PathEnd = 'error' | 'length' | 'pool';
export type Next = { readonly step: Step } | { readonly ended: PathEnd };

/** The draw of a step, from 0 to below 1: the same for the same form, whatever was asked before. */
export const drawOf = ({ seed }: PathSection, number: number): number =>
  seededRandom(`${seed}/step ${number}`)();

/** Throws RangeError for a unit that the pool does not have. */
function unitsOf({ pool }: PathSection, steps: readonly Pick<Step, 'unit'>[]): Unit[] {
  const byKey = new Map(pool.map((unit) => [unit.key, unit]));
  return steps.map(({ unit }) => {
    const found = byKey.get(unit);
    if (!found) throw new RangeError(`the pool has no unit ${unit}`);
    return found;
  });
}

/** What steps say of an ability: those that are scored, without units that were withdrawn. */
function answersOf(section: PathSection, steps: readonly Step[], withdrawn: ReadonlySet<string>): Scored[] {
  const units = unitsOf(section, steps);
  return steps.flatMap(({ unit, score }, i) =>
    score === null || withdrawn.has(unit) ? [] : [{ item: units[i]!.parameters, score }],
  );
}

const NOBODY: ReadonlySet<string> = new Set();

/** Why the section ends after these steps; null where it goes on as far as its rules say. */
function endAfter({ rules }: PathSection, length: number, { error }: Ability): PathEnd | null {
  if (!isComplete(rules, { length, error })) return null;
  return length >= rules.greatestLength ? 'length' : 'error';
}

/**
 * What comes after these steps. Throws RangeError where one of them has no score yet: nothing is chosen before the
 * answer to what is open counts.
 */
export function nextStep(
  section: PathSection,
  steps: readonly Step[],
  {
    met,
    exposureOf,
  }: {
    /** Units that this person has met before. */
    readonly met: ReadonlySet<string>;
    readonly exposureOf: (unit: string) => number;
  },
): Next {
  if (steps.some(({ score }) => score === null)) throw new RangeError('a step has no score yet');
  const { pool, rules } = section;
  const asked = unitsOf(section, steps);
  const before = estimateAbility(answersOf(section, steps, NOBODY), rules.prior);
  const ended = endAfter(section, questionsIn(asked), before);
  if (ended) return { ended };
  const number = steps.length + 1;
  const draw = drawOf(section, number);
  const choice = chooseUnit({ pool, rules, asked, met, estimate: before.estimate, exposureOf, draw });
  return choice ? { step: { ...choice, number, before, score: null } } : { ended: 'pool' };
}

/** Further apart than rounding makes them on another machine. */
const ROUNDING = 1e-9;
const differ = (a: number, b: number) => !(Math.abs(a - b) <= ROUNDING);

/**
 * The numbers of steps that do not follow from those before them: another ability, other figures of information, another
 * draw, or another unit than the draw takes. An empty list says that the path can be made again from its rows. Which
 * units were left out for their exposure is as the row says: it is of that moment.
 */
export function unexplained(section: PathSection, steps: readonly Step[]): number[] {
  const byKey = new Map(section.pool.map((unit) => [unit.key, unit]));
  return steps.flatMap((step, i) => {
    const earlier = steps.slice(0, i);
    const found = estimateAbility(answersOf(section, earlier, NOBODY), section.rules.prior);
    const { before, candidates, draw, unit, number } = step;
    const wrong =
      number !== i + 1 ||
      (i > 0 && earlier.at(-1)!.score === null) ||
      earlier.some((one) => one.unit === unit) ||
      differ(before.estimate, found.estimate) ||
      differ(before.error, found.error) ||
      differ(draw, drawOf(section, number)) ||
      candidates[Math.floor(draw * candidates.length)]?.unit !== unit ||
      candidates.length > section.rules.best ||
      candidates.some((one, k) => {
        const known = byKey.get(one.unit);
        return (
          !known ||
          differ(one.information, information(known.parameters, found.estimate)) ||
          (k > 0 && one.information > candidates[k - 1]!.information + ROUNDING)
        );
      });
    return wrong ? [number] : [];
  });
}

export interface PathResult extends Ability {
  /** Questions that count. */
  readonly length: number;
  /** Whether the rules had ended it; otherwise it was broken off, and the error is larger than they ask for. */
  readonly complete: boolean;
  readonly found: LevelFound;
  /** The levels that hold nearly all of the chance. */
  readonly range: readonly [lowest: string, highest: string];
}

/**
 * What a section found, provisional or not. A withdrawn unit is left out of the estimate; which questions were asked
 * stays as it was, and so does whether the section was complete.
 */
export function resultOf(
  section: PathSection,
  steps: readonly Step[],
  {
    scale,
    levels,
    withdrawn = NOBODY,
  }: {
    readonly scale: Scale;
    readonly levels: readonly LevelBand[];
    readonly withdrawn?: ReadonlySet<string>;
  },
): PathResult {
  const { prior } = section.rules;
  const scored = steps.filter(({ score }) => score !== null);
  const asked = estimateAbility(answersOf(section, scored, NOBODY), prior);
  const answers = answersOf(section, scored, withdrawn);
  const ability = estimateAbility(answers, prior);
  const found = levelOf(posterior(answers, prior), { estimate: ability.estimate, scale, bands: levels });
  const counted = scored.filter(({ unit }) => !withdrawn.has(unit));
  return {
    ...ability,
    length: questionsIn(unitsOf(section, counted)),
    complete: endAfter(section, questionsIn(unitsOf(section, scored)), asked) !== null,
    found,
    range: likelyRange(found),
  };
}
