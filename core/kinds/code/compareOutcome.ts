import { exactOfNumber, withinDistance, type Exact } from '../../numbers/exact';
import type { CaseOutcome, Json } from '../evidence';

/**
 * Are two values the same, figures within `tolerance` (its limit included), lists in order, objects by key? Figures are
 * compared as the decimals that they are written as: 0.4 is within 0.1 of 0.3, which binary fractions deny.
 */
export function sameValue(a: Json, b: Json, tolerance: number): boolean {
  return isSame(a, b, exactOfNumber(tolerance));
}

function isSame(a: Json, b: Json, tolerance: Exact): boolean {
  if (typeof a === 'number' && typeof b === 'number')
    return a === b || withinDistance(exactOfNumber(a), exactOfNumber(b), tolerance);
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((item, i) => isSame(item, b[i]!, tolerance));
  if (a && b && typeof a === 'object' && typeof b === 'object' && !Array.isArray(a) && !Array.isArray(b)) {
    const keys = Object.keys(a);
    if (keys.length !== Object.keys(b).length) return false;
    return keys.every((key) => Object.hasOwn(b, key) && isSame(a[key]!, b[key]!, tolerance));
  }
  return a === b;
}

export type CaseVerdict = 'accepted' | 'wrong' | 'error' | 'tooSlow' | 'tooMuchMemory' | 'tooMuchOutput';

export function judgeCase(expected: Json, outcome: CaseOutcome, tolerance: number): CaseVerdict {
  switch (outcome.result) {
    case 'returned':
      return sameValue(expected, outcome.value, tolerance) ? 'accepted' : 'wrong';
    case 'error':
      return 'error';
    case 'too-slow':
      return 'tooSlow';
    case 'too-much-memory':
      return 'tooMuchMemory';
    case 'too-much-output':
      return 'tooMuchOutput';
  }
}
