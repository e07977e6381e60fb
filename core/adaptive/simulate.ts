import { estimateAbility, type Ability, type Scored } from '../measures/ability';
import { scoreProbabilities } from '../measures/itemModel';
import type { Random } from '../random';
import { chooseUnit, isComplete, type Relaxed } from './choose';
import { questionsIn, type AdaptiveRules, type Unit } from './rules';

/** One simulated candidate: what they can, and what the section found. */
export interface Simulated extends Ability {
  readonly ability: number;
  /** Questions asked. */
  readonly length: number;
  readonly asked: readonly string[];
  readonly relaxed: readonly Relaxed[];
}

interface Section {
  readonly pool: readonly Unit[];
  readonly rules: AdaptiveRules;
}

/** The score that somebody of an ability reaches in a unit, by its model and by chance. */
export function drawScore({ parameters }: Unit, ability: number, random: Random): number {
  let left = random();
  const chances = scoreProbabilities(parameters, ability);
  for (const [score, chance] of chances.entries()) {
    left -= chance;
    if (left < 0) return score;
  }
  return chances.length - 1;
}

/** Counts how often units are asked, as the server does. */
export class Exposure {
  private readonly counts = new Map<string, number>();
  private sittings = 0;

  /** The share of sittings in which a unit was asked; while there are few, as of as many as the limit needs to mean anything. */
  of(unit: string, limit: number): number {
    return (this.counts.get(unit) ?? 0) / Math.max(this.sittings + 1, Math.ceil(1 / limit));
  }

  add(units: readonly string[]): void {
    this.sittings++;
    for (const unit of units) this.counts.set(unit, (this.counts.get(unit) ?? 0) + 1);
  }

  /** The largest share among all units. */
  get most(): number {
    return Math.max(0, ...this.counts.values()) / Math.max(1, this.sittings);
  }
}

/** Lets one simulated candidate sit a section. */
export function simulateOne(
  { pool, rules }: Section,
  {
    ability,
    exposure,
    random,
  }: { readonly ability: number; readonly exposure: Exposure; readonly random: Random },
): Simulated {
  const byKey = new Map(pool.map((unit) => [unit.key, unit]));
  const asked: Unit[] = [];
  const answers: Scored[] = [];
  const relaxed: Relaxed[] = [];
  let found = estimateAbility(answers, rules.prior);
  while (!isComplete(rules, { length: questionsIn(asked), error: found.error })) {
    const choice = chooseUnit({
      pool,
      rules,
      asked,
      met: new Set(),
      estimate: found.estimate,
      exposureOf: (unit) => exposure.of(unit, rules.exposureLimit),
      draw: random(),
    });
    if (choice === null) break;
    const unit = byKey.get(choice.unit)!;
    asked.push(unit);
    answers.push({ item: unit.parameters, score: drawScore(unit, ability, random) });
    if (choice.relaxed !== 'nothing') relaxed.push(choice.relaxed);
    found = estimateAbility(answers, rules.prior);
  }
  const keys = asked.map((unit) => unit.key);
  exposure.add(keys);
  return { ability, ...found, length: questionsIn(asked), asked: keys, relaxed };
}

/** What a section found of simulated candidates, against what they can; NaN of nobody. */
export interface FoundFigures {
  /** Mean of estimate − ability, in logits. */
  readonly bias: number;
  /** Root of the mean of its square. */
  readonly rmse: number;
  /** Mean of the standard errors that were told. */
  readonly meanError: number;
  readonly meanLength: number;
}

export interface SimulationFigures extends FoundFigures {
  readonly candidates: number;
  readonly longest: number;
  /** The largest share of candidates who were asked one unit. */
  readonly mostExposed: number;
  /** How often a limit was given up, of all steps. */
  readonly exposureRelaxed: number;
  readonly topicsRelaxed: number;
}

function foundOf(all: readonly Simulated[]): FoundFigures {
  const mean = (of: (one: Simulated) => number) => all.reduce((sum, one) => sum + of(one), 0) / all.length;
  return {
    bias: mean((one) => one.estimate - one.ability),
    rmse: Math.sqrt(mean((one) => (one.estimate - one.ability) ** 2)),
    meanError: mean((one) => one.error),
    meanLength: mean((one) => one.length),
  };
}

/** The figures of candidates whose ability is at least `from` and below the next one's, in their order. */
export const byAbility = (all: readonly Simulated[], from: readonly number[]): FoundFigures[] =>
  from.map((least, i) =>
    foundOf(all.filter(({ ability }) => ability >= least && ability < (from[i + 1] ?? Infinity))),
  );

/** What a section would do to many: bias, error, length and exposure, for abilities spread evenly between two bounds. */
export function simulateSection(
  section: Section,
  {
    count,
    from,
    to,
    random,
  }: { readonly count: number; readonly from: number; readonly to: number; readonly random: Random },
): { readonly figures: SimulationFigures; readonly all: readonly Simulated[] } {
  const exposure = new Exposure();
  const all = Array.from({ length: count }, () =>
    simulateOne(section, { ability: from + (to - from) * random(), exposure, random }),
  );
  const steps = all.reduce((sum, one) => sum + one.asked.length, 0);
  const given = (what: Relaxed) =>
    all.reduce((sum, one) => sum + one.relaxed.filter((own) => own === what).length, 0) / steps;
  const figures = {
    candidates: count,
    ...foundOf(all),
    longest: Math.max(...all.map((one) => one.length)),
    mostExposed: exposure.most,
    exposureRelaxed: given('exposure'),
    topicsRelaxed: given('topics'),
  };
  return { figures, all };
}
