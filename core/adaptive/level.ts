import { abilityGrid } from '../measures/ability';

/** Abilities as an organisation tells them: mean + step × ability, rounded when shown. */
export interface Scale {
  readonly mean: number;
  readonly step: number;
}

/** A level begins at a value of the scale; the first one has none. */
export interface LevelBand {
  readonly title: string;
  readonly from: number;
}

export interface LevelFound {
  /** Rounded to a whole number. */
  readonly value: number;
  readonly level: string;
  /** The chance of each level, in their order. */
  readonly chances: readonly { readonly title: string; readonly chance: number }[];
}

export const scaleValue = ({ mean, step }: Scale, ability: number): number => mean + step * ability;

/** The level that a value of the scale belongs to: one on a cut belongs to the upper level. */
function bandAt(bands: readonly LevelBand[], value: number): number {
  let found = 0;
  // What was computed from a cut and back is on it.
  bands.forEach(({ from }, i) => {
    if (i > 0 && value >= from - 1e-9) found = i;
  });
  return found;
}

/** The level of an estimate, and how likely each level is: the posterior weight between its cuts. */
export function levelOf(
  weights: readonly number[],
  {
    estimate,
    scale,
    bands,
  }: { readonly estimate: number; readonly scale: Scale; readonly bands: readonly LevelBand[] },
): LevelFound {
  const chances = bands.map(() => 0);
  abilityGrid.forEach((point, i) => {
    chances[bandAt(bands, scaleValue(scale, point))]! += weights[i]!;
  });
  const value = scaleValue(scale, estimate);
  return {
    value: Math.round(value),
    level: bands[bandAt(bands, value)]!.title,
    chances: bands.map(({ title }, i) => ({ title, chance: chances[i]! })),
  };
}

/** The levels that hold at least nine tenths of the chance, as the fewest neighbours around the likeliest one. */
export function likelyRange(
  { chances }: LevelFound,
  share = 0.9,
): readonly [lowest: string, highest: string] {
  const likeliest = chances.reduce((best, one, i) => (one.chance > chances[best]!.chance ? i : best), 0);
  let [from, to, sum] = [likeliest, likeliest, chances[likeliest]!.chance];
  while (sum < share && (from > 0 || to < chances.length - 1)) {
    const [below, above] = [chances[from - 1]?.chance ?? -1, chances[to + 1]?.chance ?? -1];
    if (below >= above) sum += chances[--from]!.chance;
    else sum += chances[++to]!.chance;
  }
  return [chances[from]!.title, chances[to]!.title];
}
