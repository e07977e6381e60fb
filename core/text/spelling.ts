const DIGIT = /\p{Nd}/u;
/** Words of the key as short as this have to be right. */
const SHORT_WORD = 3;

/** Scripts whose letters are told apart. Latin, Greek and Cyrillic have letters that look alike. */
const SCRIPTS = [
  ...['Latin', 'Greek', 'Cyrillic', 'Armenian', 'Hebrew', 'Arabic', 'Georgian', 'Cherokee', 'Coptic', 'Lisu'],
  ...['Devanagari', 'Bengali', 'Tamil', 'Thai', 'Hangul', 'Hiragana', 'Katakana', 'Han'],
].map((script) => new RegExp(`\\p{Script=${script}}`, 'u'));

/** The scripts of the letters of a text, by their number; what is of none of these is of one more. */
const scriptsOf = (letters: readonly string[]): Set<number> =>
  new Set(letters.filter((c) => /\p{L}/u.test(c)).map((c) => SCRIPTS.findIndex((script) => script.test(c))));

interface Wanted {
  readonly letters: readonly string[];
  /** May this character be replaced or exchanged? */
  readonly editable: readonly boolean[];
  /** May this character be left out? */
  readonly removable: readonly boolean[];
  /** May something be put in before the character at this place (or at the end)? */
  readonly open: readonly boolean[];
}

/**
 * Short words of the key and digits are not open to mistakes; what separates a short word from its neighbours can only be
 * left out: “seakale” for “sea kale” is one slip.
 */
function protect(text: string): Wanted {
  const letters = [...text];
  const editable = letters.map((c) => !DIGIT.test(c));
  const removable = [...editable];
  const short = letters.map(() => false);
  for (let start = 0; start < letters.length;) {
    let end = start;
    while (end < letters.length && /[\p{L}\p{M}']/u.test(letters[end]!)) end++;
    const count = letters.slice(start, end).filter((c) => /\p{L}/u.test(c)).length;
    if (count > 0 && count <= SHORT_WORD)
      for (let i = Math.max(start - 1, 0); i < Math.min(end + 1, letters.length); i++) {
        editable[i] = false;
        if (i >= start && i < end) short[i] = true;
        if (short[i] || letters[i] !== ' ') removable[i] = false;
      }
    start = Math.max(end, start + 1);
  }
  const open = [...letters, ''].map((_, i) => !short[i] && !short[i - 1]);
  return { letters, editable, removable, open };
}

/**
 * Can `wanted` become `given` by at most `most` edits, where leaving out, putting in and replacing a character and
 * exchanging two neighbours is one edit each, and none touches a word of up to three letters of `wanted` or a digit of
 * either, or brings in a letter of another script? The Damerau–Levenshtein distance (F. J. Damerau, CACM 7(3), 1964) by the algorithm of Lowrance and Wagner
 * (JACM 22(2), 1975), with forbidden edits left out.
 */
export function editsWithin(wanted: string, given: string, most: number): boolean {
  const { letters: s, editable, removable, open } = protect(wanted);
  const t = [...given];
  if (Math.abs(s.length - t.length) > most) return false;
  // A letter of another script may look like the right one; it is another letter, never a slip.
  const scripts = scriptsOf(s);
  if ([...scriptsOf(t)].some((script) => !scripts.has(script))) return false;
  const digit = t.map((c) => DIGIT.test(c));
  const cost: number[][] = Array.from({ length: s.length + 1 }, () =>
    Array<number>(t.length + 1).fill(Infinity),
  );
  const at = (i: number, j: number) => cost[i]![j]!;
  /** All of s from `k` up to `i`, and of t from `l` up to `j`, may be changed. */
  const free = ([k, i]: readonly [number, number], [l, j]: readonly [number, number]) =>
    editable.slice(k, i).every(Boolean) && !digit.slice(l, j).some(Boolean);
  const lastRow = new Map<string, number>();
  cost[0]![0] = 0;
  for (let i = 0; i <= s.length; i++) {
    let lastColumn = 0;
    for (let j = 0; j <= t.length; j++) {
      if (i + j === 0) continue;
      const [a, b] = [s[i - 1], t[j - 1]];
      let best = Infinity;
      if (i > 0 && removable[i - 1]) best = at(i - 1, j) + 1;
      if (j > 0 && open[i] && !digit[j - 1]) best = Math.min(best, at(i, j - 1) + 1);
      if (i > 0 && j > 0) {
        const same = a === b;
        if (same || (editable[i - 1] && !digit[j - 1]))
          best = Math.min(best, at(i - 1, j - 1) + (same ? 0 : 1));
        const [k, l] = [lastRow.get(b!) ?? 0, lastColumn];
        if (k > 0 && l > 0 && free([k - 1, i], [l - 1, j]))
          best = Math.min(best, at(k - 1, l - 1) + (i - k - 1) + 1 + (j - l - 1));
        if (same) lastColumn = j;
      }
      cost[i]![j] = best;
    }
    if (i > 0) lastRow.set(s[i - 1]!, i);
  }
  return at(s.length, t.length) <= most;
}
