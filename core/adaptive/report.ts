import { information } from '../measures/itemModel';
import { seededRandom } from '../random';
import { questionsIn, type AdaptiveRules, type Unit } from './rules';
import { byAbility, simulateSection, type FoundFigures, type SimulationFigures } from './simulate';

/** What those who prepare an adaptive section look at. */
export interface Prepared {
  readonly pool: readonly Unit[];
  readonly rules: AdaptiveRules;
}

/** Abilities from −3 to 3 in steps of a quarter, for which information is drawn. */
export const shownAbilities: readonly number[] = Array.from({ length: 25 }, (_, i) => -3 + i / 4);

export interface InformationCurves {
  /** Of all questions together, at each of `shownAbilities`. */
  readonly pool: readonly number[];
  /** Of the best questions of the greatest length: the most that one sitting can find out. */
  readonly best: readonly number[];
  /** What the target error needs beside the prior: 1/error² − 1/sd². */
  readonly needed: number;
}

/** Fisher information over ability. */
export function informationCurves({ pool, rules }: Prepared): InformationCurves {
  const { greatestLength, targetError, prior } = rules;
  const at = (ability: number) =>
    pool
      .map((unit) => ({ unit, of: information(unit.parameters, ability) }))
      .sort((x, y) => y.of / y.unit.topics.length - x.of / x.unit.topics.length);
  const best = (ability: number) => {
    const taken: Unit[] = [];
    let sum = 0;
    for (const { unit, of } of at(ability))
      if (questionsIn([...taken, unit]) <= greatestLength) {
        taken.push(unit);
        sum += of;
      }
    return sum;
  };
  return {
    pool: shownAbilities.map((ability) => at(ability).reduce((sum, { of }) => sum + of, 0)),
    best: shownAbilities.map(best),
    needed: Math.max(0, 1 / targetError ** 2 - 1 / prior.sd ** 2),
  };
}

export const SIMULATED = 2000;
/** Candidates are spread evenly between these abilities. */
const [LOW, HIGH] = [-2, 2];
/** Where the groups begin for which figures are told apart. */
export const groupsFrom = [-2, -1, 0, 1] as const;

export interface SimulationReport {
  readonly figures: SimulationFigures;
  /** By `groupsFrom`. */
  readonly groups: readonly FoundFigures[];
}

/** What 2,000 simulated candidates would get: the same for the same section, wherever it is worked out. */
export function simulationReport(prepared: Prepared): SimulationReport {
  const random = seededRandom('simulated candidates');
  const { figures, all } = simulateSection(prepared, { count: SIMULATED, from: LOW, to: HIGH, random });
  return { figures, groups: byAbility(all, groupsFrom) };
}
