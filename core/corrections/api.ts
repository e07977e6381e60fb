import type { Hundredths } from '../marks';
import type { Band } from '../results/bands';
import type { KeyChange } from './change';
import type { WithdrawnRule } from '../papers/ruling';

/** What a lead wants: a correction of a part, or an earlier one taken back. */
export type WantedChange = KeyChange | { readonly type: 'take back'; readonly correction: number };

/** A candidate's result that moves, by the code of the script: totals of the whole result, and the bands they reach. */
export interface ResultMove {
  readonly script: string;
  readonly before: Hundredths;
  readonly after: Hundredths;
  /** It would fall, and stays, as the round says of released results. */
  readonly kept: boolean;
  readonly bandBefore: string | null;
  readonly bandAfter: string | null;
}

/** What a correction does in one round. */
export interface RoundMoves {
  readonly round: number;
  readonly title: string;
  readonly released: boolean;
  readonly scripts: number;
  /** How many results move, reach another band, and stay where they would fall. */
  readonly moved: number;
  readonly across: number;
  readonly kept: number;
  /** The first of them that move. */
  readonly moves: readonly ResultMove[];
  /** What results are out of, before and after; with another maximum the bands are to be set anew. */
  readonly of: { readonly before: Hundredths; readonly after: Hundredths };
  readonly bandsAnew: boolean;
}

/** What a correction would change. `seen` names the state that this is of. */
export interface CorrectionPreview {
  readonly rounds: readonly RoundMoves[];
  readonly seen: string;
}

/** A correction as it was decided: the change, the reason, and the preview that was looked at. */
export interface CorrectionMade {
  readonly change: WantedChange;
  readonly reason: string;
  readonly seen: string;
}

/** A correction on record. */
export interface CorrectionRow {
  readonly id: number;
  /** Null where it takes back an earlier one. */
  readonly change: KeyChange | null;
  readonly takesBack: number | null;
  readonly by: string;
  readonly at: number;
  readonly reason: string;
  /** Null while scripts are marked again. */
  readonly finishedAt: number | null;
  readonly done: number;
  readonly of: number;
  readonly moved: number;
  readonly told: number;
  /** Whether it can be taken back: it stands, and is finished. */
  readonly stands: boolean;
}

/** The page of a part: what was corrected of it, and what can be. */
export interface CorrectionPage {
  readonly kind: string;
  /** The part's content as it is judged now. */
  readonly content: unknown;
  readonly version: number;
  readonly withdrawn: WithdrawnRule;
  readonly rows: readonly CorrectionRow[];
}

/** Bands of a round as a lead sets them. */
export interface BandsMade {
  readonly bands: readonly Band[];
  readonly reason: string;
}

/** The bands of a round as they stand. */
export interface BandsView {
  /** Null where they are to be set. */
  readonly bands: readonly Band[] | null;
  /** Those that were set last, or the paper's: what one begins with. */
  readonly last: readonly Band[];
  /** What results are out of. */
  readonly of: Hundredths;
  /** Whether they can be set: until the sign-off, or while they are to be set. */
  readonly open: boolean;
}
