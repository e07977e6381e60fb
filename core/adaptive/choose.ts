import { information } from '../measures/itemModel';
import { questionsIn, type AdaptiveRules, type Unit } from './rules';

/** What had to be given up so that something could be asked. */
export type Relaxed = 'nothing' | 'exposure' | 'topics';

/** Why a unit was chosen: enough to make the choice again. */
export interface Choice {
  readonly unit: string;
  /** The best at the estimate, with their information, the best first. */
  readonly candidates: readonly { readonly unit: string; readonly information: number }[];
  /** By which one of them was taken: from 0 to below 1. */
  readonly draw: number;
  readonly relaxed: Relaxed;
}

export interface Choosing {
  readonly pool: readonly Unit[];
  readonly rules: AdaptiveRules;
  /** Asked in this section, in their order. */
  readonly asked: readonly Unit[];
  /** Units that this person has met before. */
  readonly met: ReadonlySet<string>;
  readonly estimate: number;
  /** The share of sittings in which a unit was asked so far. */
  readonly exposureOf: (unit: string) => number;
  /** From 0 to below 1, of the form's seeded randomness. */
  readonly draw: number;
}

const countOf = (units: readonly Unit[], topic: string): number =>
  units.reduce((sum, unit) => sum + unit.topics.filter((one) => one === topic).length, 0);

/**
 * Would no topic have more than one question above its share? Shares are of as many questions as are asked for certain, or
 * of as many as there would be: so topics are in balance wherever the section ends.
 */
function keepsTopics(unit: Unit, { asked, rules: { topics, leastLength } }: Choosing): boolean {
  const after = [...asked, unit];
  const length = Math.max(questionsIn(after), leastLength);
  return topics.every(({ topic, share }) => {
    const own = unit.topics.filter((one) => one === topic).length;
    return own === 0 || countOf(after, topic) <= share * length + 1 + 1e-9;
  });
}

/** The units that may be asked at all: new in this section and to this person, and with room for all of their questions. */
function possible({ pool, rules, asked, met }: Choosing): Unit[] {
  const known = new Set(asked.map((unit) => unit.key));
  const room = rules.greatestLength - questionsIn(asked);
  return pool.filter((unit) => !known.has(unit.key) && !met.has(unit.key) && unit.topics.length <= room);
}

/**
 * The next unit: one of the best by Fisher information at the present estimate. Where nothing is admissible, the exposure
 * limit is given up first, then the topic shares; null where nothing is left.
 */
export function chooseUnit(choosing: Choosing): Choice | null {
  const { rules, estimate, exposureOf, draw } = choosing;
  const all = possible(choosing);
  const balanced = all.filter((unit) => keepsTopics(unit, choosing));
  const admissible = balanced.filter((unit) => exposureOf(unit.key) < rules.exposureLimit);
  const [units, relaxed]: readonly [Unit[], Relaxed] =
    admissible.length > 0
      ? [admissible, 'nothing']
      : balanced.length > 0
        ? [balanced, 'exposure']
        : [all, 'topics'];
  if (units.length === 0) return null;
  const candidates = units
    .map((unit) => ({ unit: unit.key, information: information(unit.parameters, estimate) }))
    .sort((x, y) => y.information - x.information || (x.unit < y.unit ? -1 : 1))
    .slice(0, rules.best);
  const { unit } = candidates[Math.floor(draw * candidates.length)]!;
  return { unit, candidates, draw, relaxed };
}

/** Does the section end here? By its error, once it is long enough, or by its length. Time is not decided here. */
export const isComplete = (
  { targetError, leastLength, greatestLength }: AdaptiveRules,
  { length, error }: { readonly length: number; readonly error: number },
): boolean => length >= greatestLength || (length >= leastLength && error <= targetError);
