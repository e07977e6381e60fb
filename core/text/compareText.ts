export interface TextRule {
  readonly ignoreCase: boolean;
  readonly ignoreAccents: boolean;
  /** Slips forgiven: the largest Damerau–Levenshtein distance that still counts, 0..3. */
  readonly slips: number;
}

/** NFKC, trimmed, inner spaces folded; case and accents dropped where the rule says so. */
export function normaliseText(text: string, rule: TextRule): string {
  let result = text.normalize('NFKC').trim().replace(/\s+/g, ' ').replace(/[‘’]/g, "'");
  if (rule.ignoreCase) result = result.toLocaleLowerCase('en');
  if (rule.ignoreAccents) result = result.normalize('NFD').replace(/\p{M}/gu, '').normalize('NFC');
  return result;
}

/**
 * Edits (insert, delete, replace, swap of neighbours) that turn `a` into `b`: the restricted
 * Damerau–Levenshtein distance (optimal string alignment). Source: F. J. Damerau, CACM 7(3), 1964.
 */
export function editDistance(a: string, b: string): number {
  const [s, t] = [[...a], [...b]];
  const rows: number[][] = [t.map((_, j) => j).concat(t.length)];
  for (let i = 1; i <= s.length; i++) {
    const row = [i];
    for (let j = 1; j <= t.length; j++) {
      const same = s[i - 1] === t[j - 1] ? 0 : 1;
      let best = Math.min(rows[i - 1]![j]! + 1, row[j - 1]! + 1, rows[i - 1]![j - 1]! + same);
      if (i > 1 && j > 1 && s[i - 1] === t[j - 2] && s[i - 2] === t[j - 1])
        best = Math.min(best, rows[i - 2]![j - 2]! + 1);
      row.push(best);
    }
    rows.push(row);
  }
  return rows[s.length]![t.length]!;
}

export function matchesText(given: string, accepted: readonly string[], rule: TextRule): boolean {
  const answer = normaliseText(given, rule);
  if (answer === '') return false;
  return accepted.some((variant) => {
    const wanted = normaliseText(variant, rule);
    if (Math.abs(wanted.length - answer.length) > rule.slips) return false;
    return answer === wanted || (rule.slips > 0 && editDistance(answer, wanted) <= rule.slips);
  });
}
