import { isDecided, type Credit, type Undecided } from '../../core/kinds/contract';
import type { KeyKinds } from '../../core/kinds/keyKinds';
import {
  NonsenseError,
  scorePart,
  type PartToScore,
  type ScoringFailure,
} from '../../core/scoring/scorePart';

/** What scoring a part came to. `trouble` is for the people who look after the machine. */
export type ScoreFound =
  | {
      readonly credits: readonly Credit[];
      /** The components that people decide, each by itself. */
      readonly undecided: readonly Undecided[];
    }
  | { readonly failure: ScoringFailure; readonly trouble: string };

/** Scores one part by these kinds; one that throws is a failure of its own. */
export function scoreOne(kinds: KeyKinds, part: PartToScore): ScoreFound {
  try {
    const found = scorePart(kinds, part);
    return {
      credits: found.filter(isDecided),
      undecided: found.filter((one): one is Undecided => !isDecided(one)),
    };
  } catch (error) {
    const failure = error instanceof NonsenseError ? 'nonsense' : 'threw';
    return { failure, trouble: String(error).slice(0, 500) };
  }
}
