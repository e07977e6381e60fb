import type { CaseOutcome, Json } from '../evidence';

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
