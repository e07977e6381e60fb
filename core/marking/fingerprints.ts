import type { TextForm } from '../kinds/contract';

/*
 * Fingerprints of writing and of programs, by winnowing (Schleimer, Wilkerson and Aiken 2003): hashes of runs of `K` tokens,
 * of which every window keeps its least. Any shared run of K + WINDOW − 1 tokens shares a fingerprint.
 */

export interface Token {
  /** What is compared: words in lower case, programs with their own names left out. */
  readonly text: string;
  /** In characters of the text. */
  readonly start: number;
  readonly end: number;
}

export interface Fingerprint {
  readonly hash: number;
  /** The first of its tokens. */
  readonly token: number;
}

interface Cut {
  readonly k: number;
  readonly window: number;
}

/** Programs repeat their small turns, so that longer runs are needed before something is told. */
export const cutOf = (form: TextForm): Cut => (form === 'words' ? { k: 5, window: 4 } : { k: 9, window: 4 });

const WORD =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}]|[\p{L}\p{N}]+/gu;
const KEYWORDS = new Set(
  (
    'and as break case catch class const continue def del elif else except false finally for from function if import in ' +
    'is lambda let new none not null of or pass raise return select switch throw true try undefined var where while with ' +
    'yield group by order join on having distinct union limit min max sum count avg len range sorted reduce map filter'
  ).split(' '),
);
const COMMENTS: Record<Exclude<TextForm, 'words'>, string> = {
  python: '#[^\\n]*',
  javascript: '\\/\\/[^\\n]*|\\/\\*[^]*?\\*\\/',
  sql: '--[^\\n]*|\\/\\*[^]*?\\*\\/',
};
const STRING = '"(?:\\\\.|[^"\\\\\\n])*"|\'(?:\\\\.|[^\'\\\\\\n])*\'|`(?:\\\\.|[^`\\\\])*`';

function programTokens(text: string, form: Exclude<TextForm, 'words'>): Token[] {
  const parts = new RegExp(
    `(?<comment>${COMMENTS[form]})|(?<string>${STRING})|(?<name>[\\p{L}_$][\\p{L}\\p{N}_$]*)|(?<number>\\d[\\w.]*)|\\S`,
    'gu',
  );
  return [...text.matchAll(parts)].flatMap((match) => {
    const { comment, string, name, number } = match.groups!;
    if (comment !== undefined) return [];
    const known = name !== undefined && KEYWORDS.has(name.toLowerCase());
    const kept = known ? name.toLowerCase() : name !== undefined ? 'name' : match[0];
    const shown = string !== undefined ? 'string' : number !== undefined ? 'number' : kept;
    return [{ text: shown, start: match.index, end: match.index + match[0].length }];
  });
}

/** The tokens of a text: what a changed name, a capital or a space does not hide. */
export const tokensOf = (text: string, form: TextForm): Token[] =>
  form === 'words'
    ? [...text.matchAll(WORD)].map((match) => ({
        text: match[0].normalize('NFKC').toLowerCase(),
        start: match.index,
        end: match.index + match[0].length,
      }))
    : programTokens(text, form);

/** A hash of 53 bits, so that two runs of a large round do not meet by chance. */
function hashOf(tokens: readonly Token[], from: number, k: number): number {
  let [a, b] = [0xdeadbeef, 0x41c6ce57];
  for (let i = from; i < from + k; i++) {
    const { text } = tokens[i]!;
    for (let c = 0; c <= text.length; c++) {
      // The end of a token counts too: “ab c” is not “a bc”.
      const code = c === text.length ? 1 : text.charCodeAt(c);
      a = Math.imul(a ^ code, 2654435761);
      b = Math.imul(b ^ code, 1597334677);
    }
  }
  a = Math.imul(a ^ (a >>> 16), 2246822507) ^ Math.imul(b ^ (b >>> 13), 3266489909);
  b = Math.imul(b ^ (b >>> 16), 2246822507) ^ Math.imul(a ^ (a >>> 13), 3266489909);
  return 4294967296 * (2097151 & b) + (a >>> 0);
}

/** Every run's hash, for what is to be taken out: the paper's own text and starter code. */
export function allRuns(text: string, form: TextForm): number[] {
  const [tokens, { k }] = [tokensOf(text, form), cutOf(form)];
  return Array.from({ length: Math.max(0, tokens.length - k + 1) }, (_, i) => hashOf(tokens, i, k));
}

/** The fingerprints of tokens, without the runs in `known`; the last of equal ones in a window is kept. */
export function fingerprintsOf(
  tokens: readonly Token[],
  form: TextForm,
  known: ReadonlySet<number>,
): Fingerprint[] {
  const { k, window } = cutOf(form);
  const runs = Array.from({ length: Math.max(0, tokens.length - k + 1) }, (_, i) => hashOf(tokens, i, k));
  const chosen: Fingerprint[] = [];
  let last = -1;
  // A text shorter than a window has one all the same.
  const windows = runs.length === 0 ? 0 : Math.max(1, runs.length - window + 1);
  for (let from = 0; from < windows; from++) {
    let least = from;
    for (let i = from; i < Math.min(from + window, runs.length); i++) if (runs[i]! <= runs[least]!) least = i;
    if (least === last) continue;
    last = least;
    if (!known.has(runs[least]!)) chosen.push({ hash: runs[least]!, token: least });
  }
  return chosen;
}
