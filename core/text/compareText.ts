import { editsWithin } from './spelling';

export interface TextRule {
  readonly ignoreCase: boolean;
  readonly ignoreAccents: boolean;
  /** Spelling mistakes forgiven: the largest distance that still counts, 0..3 (see `editsWithin`). */
  readonly slips: number;
}

/* oxlint-disable no-misleading-character-class -- the classes name single marks by their codes, never clusters */
/** Characters nobody sees: zero-width, direction and soft-hyphen marks, and variation selectors. */
const UNSEEN = /[\u00AD\u061C\u180E\u200B-\u200F\u202A-\u202E\u2060-\u2064\u2066-\u2069\uFE00-\uFE0F\uFEFF]/g;
const SINGLE_QUOTES = /[\u2018-\u201B\u2032\u02BB\u02BC\u0060\u00B4\u2039\u203A]/g;
const DOUBLE_QUOTES = /[\u201C-\u201F\u2033\u00AB\u00BB]/g;
const DASHES = /[\u2010-\u2015\u2043\u2212\uFE58\uFE63]/g;

/** Letters with a stroke, which no normal form takes apart. */
const STROKES: Readonly<Record<string, string>> = {
  ł: 'l',
  Ł: 'L',
  ø: 'o',
  Ø: 'O',
  đ: 'd',
  Đ: 'D',
  ħ: 'h',
  Ħ: 'H',
  ŧ: 't',
  Ŧ: 'T',
  ƀ: 'b',
  Ƀ: 'B',
  ɨ: 'i',
  Ɨ: 'I',
  ʉ: 'u',
  Ʉ: 'U',
  ɍ: 'r',
  Ɍ: 'R',
  ɏ: 'y',
  Ɏ: 'Y',
  ⱥ: 'a',
  Ⱥ: 'A',
  ȼ: 'c',
  Ȼ: 'C',
  ɇ: 'e',
  Ɇ: 'E',
  ǥ: 'g',
  Ǥ: 'G',
  ɉ: 'j',
  Ɉ: 'J',
  ƚ: 'l',
  Ƚ: 'L',
  ƶ: 'z',
  Ƶ: 'Z',
  ı: 'i',
};

/**
 * Full case folding, as near as JavaScript comes: each character in small letters, by way of capitals, so that ß and ẞ
 * are ss, and ς and σ the same. Only the dotless ı would become another letter. Source: Unicode Standard, 3.13.
 */
const foldCase = (text: string): string =>
  [...text].map((c) => (c === 'ı' ? c : c.toLowerCase().toUpperCase().toLowerCase())).join('');

const dropAccents = (text: string): string =>
  [
    ...text
      .normalize('NFD')
      .replace(/[\u0300-\u036F\u1AB0-\u1AFF\u1DC0-\u1DFF]/g, '')
      .normalize('NFC'),
  ]
    .map((c) => STROKES[c] ?? c)
    .join('');

function dropFinalStop(text: string): string {
  const without = text.replace(/[.。]$/u, '').trim();
  return without === '' ? text : without;
}

/** A text as it is compared: by “Text” of the scoring rules (`2-domain.md`). Letters of other scripts stay what they are. */
export function normaliseText(text: string, rule: Pick<TextRule, 'ignoreCase' | 'ignoreAccents'>): string {
  const plain = text
    .replace(UNSEEN, '')
    .replace(SINGLE_QUOTES, "'")
    .replace(DOUBLE_QUOTES, '"')
    .normalize('NFKC')
    .replace(UNSEEN, '')
    .replace(DASHES, '-')
    .replace(/\s+/gu, ' ')
    .trim();
  const folded = rule.ignoreCase ? foldCase(plain).normalize('NFKC') : plain;
  return dropFinalStop(rule.ignoreAccents ? dropAccents(folded) : folded);
}

/** Is this the accepted text under the rule? Nothing entered never is. */
export function matchesText(given: string, accepted: string, rule: TextRule): boolean {
  const [answer, wanted] = [normaliseText(given, rule), normaliseText(accepted, rule)];
  if (answer === '') return false;
  return answer === wanted || (rule.slips > 0 && editsWithin(wanted, answer, rule.slips));
}
