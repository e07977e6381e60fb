import type { Exact } from '../../numbers/exact';
import { share } from './credits';

/**
 * How several right options are scored: `all-or-nothing`; `each` (each right one +1/R, each wrong one −1/W, never
 * below 0); `decisions` (share of right decisions over all options).
 */
export type SeveralRule = 'all-or-nothing' | 'each' | 'decisions';

export const SEVERAL_RULES = ['all-or-nothing', 'each', 'decisions'] as const;

interface Chosen {
  readonly options: number;
  readonly right: number;
  /** Right ones that were chosen, and wrong ones. */
  readonly hits: number;
  readonly misses: number;
}

/** The share that a choice of several earns: `2-domain.md`, “Scoring rules”. */
export function shareOfSeveral(rule: SeveralRule, { options, right, hits, misses }: Chosen): Exact {
  const wrong = options - right;
  if (rule === 'all-or-nothing') return share(hits === right && misses === 0 ? 1 : 0, 1);
  if (rule === 'decisions') return share(hits + wrong - misses, options);
  // hits/R − misses/W over the common denominator R·W, never below 0; where nothing is right, no choice is rewarded
  const spread = Math.max(wrong, 1);
  const all = Math.max(right, 1);
  return share(Math.max(hits * spread - misses * all, 0), all * spread);
}
