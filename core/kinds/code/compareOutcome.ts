import type { CaseOutcome, Json } from '../contract';

/** Are two values the same, figures within `tolerance`, lists in order, objects by key? */
export function sameValue(a: Json, b: Json, tolerance: number): boolean {
  if (typeof a === 'number' && typeof b === 'number') return a === b || Math.abs(a - b) <= tolerance;
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((item, i) => sameValue(item, b[i]!, tolerance));
  if (a && b && typeof a === 'object' && typeof b === 'object' && !Array.isArray(a) && !Array.isArray(b)) {
    const keys = Object.keys(a);
    if (keys.length !== Object.keys(b).length) return false;
    return keys.every((key) => Object.hasOwn(b, key) && sameValue(a[key]!, b[key]!, tolerance));
  }
  return a === b;
}

export type CaseVerdict =
  'accepted' | 'wrong answer' | 'error' | 'too slow' | 'too much memory' | 'too much output';

export function judgeCase(expected: Json, outcome: CaseOutcome | undefined, tolerance: number): CaseVerdict {
  if (!outcome) return 'error';
  switch (outcome.result) {
    case 'returned':
      return sameValue(expected, outcome.value, tolerance) ? 'accepted' : 'wrong answer';
    case 'error':
      return 'error';
    case 'too-slow':
      return 'too slow';
    case 'too-much-memory':
      return 'too much memory';
    case 'too-much-output':
      return 'too much output';
  }
}
