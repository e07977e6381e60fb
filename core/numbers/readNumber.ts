import { exact, exactDecimal, type Exact } from './exact';
import { numberFormatOf, type NumberFormat } from './numberFormat';

/** What else than plain figures may be entered, and what may stand beside them. */
export interface ReadingRule {
  readonly locale: string;
  readonly scientific: boolean;
  readonly fractions: boolean;
  /** The unit or currency printed beside the box, and its synonyms: they may be typed or pasted too. */
  readonly units: readonly string[];
}

export interface NumberRead {
  readonly value: Exact;
  /** Decimal places as written; null for a fraction. */
  readonly places: number | null;
  /**
   * Significant figures as written, at the least and at the most: noughts at the end of a whole number may only hold
   * the place. Null for a fraction.
   */
  readonly figures: { readonly least: number; readonly most: number } | null;
}

/** Why a text is not a figure here. It is kept as it was typed. */
export type NumberProblem =
  | 'empty'
  | 'letters'
  | 'several-numbers'
  | 'two-separators'
  | 'ambiguous'
  | 'incomplete-groups'
  | 'sign'
  | 'unfinished'
  | 'too-long'
  | 'scientific-not-asked'
  | 'fraction-not-asked'
  | 'exponent-too-large'
  | 'flat-power'
  | 'division-by-zero';

export type NumberReading = { readonly read: NumberRead } | { readonly problem: NumberProblem };

const LONGEST = 120;
const LONGEST_TYPED = 1_000;
const LARGEST_EXPONENT = 400;

const MINUS = /[-\u2010-\u2015\u2212\u2796]/g;
const PLUS = /[+\u2795]/g;
/** Spaces of any width; not line breaks and tabs, which stand between figures. */
const SPACES = /[\u0020\u00a0\u2000-\u200a\u202f\u205f\u3000]+/g;
const INVISIBLE = /[\u200b-\u200f\u00ad\u2060\u2066-\u2069\u202a-\u202e\ufeff]/g;
const APOSTROPHES = /['\u2019\u2018\u02bc]/g;
/** Raised digits with their sign: a power. */
const RAISED = /[⁺⁻]?[⁰¹²³⁴⁵⁶⁷⁸⁹]+/gu;

/** Is this one character for a fraction (½)? Its compatibility form is two figures around U+2044. */
const isFractionSign = (character: string): boolean => /^\d+\u2044\d+$/u.test(character.normalize('NFKC'));

/**
 * The compatibility form of a character, where taking it apart cannot change a figure: not of fractions, which
 * `readFraction` reads, nor of other signs that hold a digit (① or ₂), which would run into the digits beside them.
 */
function compatible(character: string): string {
  if (/\p{Nd}/u.test(character)) return plainDigit(character.normalize('NFKC'));
  const form = character.normalize('NFKC');
  return /\p{No}/u.test(character) || /^\d/u.test(form) ? character : form;
}

/** A digit of any script as one of ours: Unicode sets the digits of a script in a row of ten, from 0 (chapter 4.6). */
function plainDigit(digit: string): string {
  const code = digit.codePointAt(0)!;
  let first = code;
  while (/\p{Nd}/u.test(String.fromCodePoint(first - 1))) first--;
  return String((code - first) % 10);
}

/**
 * One way of writing for what is written in many: digits, signs, spaces, letters (NFKC), powers by `^`. Texts and units
 * are both read in it, once, so that a unit is cut from the very text in which it was found.
 */
function plainSigns(typed: string): string {
  return [
    ...typed
      .replace(INVISIBLE, '')
      .replace(RAISED, (power) => `^${power.normalize('NFKC')}`)
      .normalize('NFC'),
  ]
    .map(compatible)
    .join('')
    .replace(/\u066b/g, '.')
    .replace(MINUS, '-')
    .replace(PLUS, '+')
    .replace(APOSTROPHES, "'")
    .replace(SPACES, ' ')
    .replace(/^ | $/g, '');
}

/** How a unit may stand beside a figure: as it is written, and with powers on the line (m² as m2). */
const formsOfUnit = (unit: string): string[] => {
  const plain = plainSigns(unit).trim();
  return [...new Set([plain, plain.replaceAll('^', ''), plainSigns(unit.normalize('NFKC')).trim()])];
};

/** Does a cut here part two digits? Then what stands there is a figure, not a unit. */
const partsDigits = (before: string, after: string): boolean => /\d$/.test(before) && /^\d/.test(after);

/** Takes the unit or currency away that is printed beside the box, before or behind the figure. */
function withoutUnit(text: string, units: readonly string[]): string {
  const forms = units.flatMap(formsOfUnit).filter((unit) => unit !== '');
  for (const unit of forms.sort((a, b) => b.length - a.length)) {
    const [ahead, behind] = [text.slice(0, text.length - unit.length), text.slice(unit.length)];
    if (text.endsWith(unit) && !partsDigits(ahead, unit)) return ahead.trimEnd();
    if (text.startsWith(unit) && !partsDigits(unit, behind)) return behind.trimStart();
    // A sign may stand before a currency: −€5.
    const signed = text.slice(1 + unit.length);
    if (/^[-+]/.test(text) && text.slice(1).startsWith(unit) && !partsDigits(unit, signed))
      return text[0]! + signed.trimStart();
  }
  return text;
}

const groupsAre = (parts: readonly string[], indian: boolean): boolean => {
  const [first, ...rest] = parts;
  const threes = rest.every((part) => part.length === 3) && first!.length <= 3;
  const twos =
    rest.at(-1)?.length === 3 && rest.slice(0, -1).every((part) => part.length === 2) && first!.length <= 2;
  return first !== '' && !first!.startsWith('0') && (threes || (indian && twos));
};

/** Whole digits with complete groups under one sign; null where there are none or they are not complete. */
function ungrouped(whole: string, group: string, indian: boolean): string | null {
  if (/^\d*$/.test(whole)) return whole;
  const parts = whole.split(group);
  return parts.every((part) => /^\d*$/.test(part)) && groupsAre(parts, indian) ? parts.join('') : null;
}

interface Digits {
  readonly whole: string;
  readonly fraction: string;
  readonly hasPoint: boolean;
}

/** A text read with one decimal sign and one grouping sign; null where it does not fit them. */
function readWith(text: string, decimal: string, group: string, indian: boolean): Digits | null {
  const cut = text.split(decimal);
  if (cut.length > 2) return null;
  const [before = '', fraction = ''] = cut;
  const whole = ungrouped(before, group, indian);
  if (whole === null || !/^\d*$/.test(fraction)) return null;
  return { whole, fraction, hasPoint: cut.length === 2 };
}

/**
 * The one reading of unsigned digits with separators. The locale's own reading comes first; what it cannot read is read
 * with the other decimal sign where no other reading is left.
 */
function readDigits(text: string, { decimal, group, indian }: NumberFormat): Digits | NumberProblem {
  const own = [group, ' ', "'"].map((sign) => readWith(text, decimal, sign, indian)).find(Boolean);
  if (own) return own;
  if (/[ '].*[ ']|[ ']/.test(text) && /^[\d ']+$/.test(text))
    return text.includes(' ') && !/\d{3}/.test(text) ? 'several-numbers' : 'incomplete-groups';
  const other = decimal === '.' ? ',' : '.';
  const foreign = [decimal, ' ', "'"].map((sign) => readWith(text, other, sign, false)).find(Boolean);
  if (!foreign) return (text.match(/[.,]/g)?.length ?? 0) > 1 ? 'two-separators' : 'incomplete-groups';
  // Three digits behind the sign could be a group as well, unless nothing or a nought stands before it.
  const couldBeGroup = foreign.fraction.length === 3 && /^[1-9]\d{0,2}$/.test(foreign.whole);
  return couldBeGroup && !text.includes(decimal) ? 'ambiguous' : foreign;
}

/** A power of ten: behind e, or raised by `^` or by a sign of its own. */
const SCIENTIFIC = /^(.*?) ?(?:[eE]|[×x*·⋅] ?10 ?\^ ?)([-+]?\d+)$/;
/** `5×103` is 5,000 to one reader and 515 to another. */
const FLAT_POWER = /[×x*·⋅] ?10 ?[-+]?\d+$/;

interface Part {
  readonly negative: boolean;
  readonly text: string;
}

function signed(text: string): Part | NumberProblem {
  const match = /^([-+]?) ?(.*)$/s.exec(text)!;
  if (/[-+]/.test(match[2]!)) return 'sign';
  return { negative: match[1] === '-', text: match[2]! };
}

function readFraction(text: string, rule: ReadingRule): NumberReading | null {
  const last = [...text].at(-1) ?? '';
  // A sign for a fraction ends a mixed number; with a digit behind it (½5) it has no reading.
  const spelt = isFractionSign(last)
    ? `${text.slice(0, -last.length).trimEnd()} ${last.normalize('NFKC')}`.trimStart()
    : text;
  const match = /^([-+]?) ?(?:(\d+) )?(\d+) ?[/⁄∕] ?(\d+)$/.exec(spelt);
  if (!match) return /[/⁄∕]/u.test(spelt) || [...text].some(isFractionSign) ? { problem: 'letters' } : null;
  if (!rule.fractions) return { problem: 'fraction-not-asked' };
  const [, sign, whole = '0', over, under] = match;
  if (BigInt(under!) === 0n) return { problem: 'division-by-zero' };
  const top = BigInt(whole) * BigInt(under!) + BigInt(over!);
  return { read: { value: exact(sign === '-' ? -top : top, BigInt(under!)), places: null, figures: null } };
}

/**
 * Reads what a person typed or pasted as a figure, by the locale of the round: exactly, with at least forty significant
 * digits. Where a text has two readings or none it is refused with the reason. Source: `2-domain.md`, “Numbers, reading”.
 */
export function readNumber(typed: string, rule: ReadingRule): NumberReading {
  // Some single characters are eighteen in their compatibility form: bounded before they are looked at.
  if (typed.length > LONGEST_TYPED) return { problem: 'too-long' };
  const plain = plainSigns(typed);
  if (plain === '') return { problem: 'empty' };
  if (plain.length > LONGEST) return { problem: 'too-long' };
  const text = withoutUnit(plain, rule.units);
  const fraction = readFraction(text, rule);
  if (fraction) return fraction;
  const scientific = SCIENTIFIC.exec(text);
  const flat = !scientific && FLAT_POWER.test(text);
  if (flat && rule.scientific) return { problem: 'flat-power' };
  if ((scientific || flat) && !rule.scientific) return { problem: 'scientific-not-asked' };
  const [mantissa, power] = scientific ? [scientific[1]!, scientific[2]!] : [text, '0'];
  if (power.replace(/^[-+]?0*/, '').length > 3 || Math.abs(Number(power)) > LARGEST_EXPONENT)
    return { problem: 'exponent-too-large' };
  return readDecimal(mantissa, Number(power), rule);
}

function lengthWithoutZeros(digits: string): number {
  let length = digits.length;
  while (digits[length - 1] === '0') length -= 1;
  return length;
}

function readDecimal(text: string, power: number, { locale }: ReadingRule): NumberReading {
  if (/[\n\r\t]/.test(text)) return { problem: 'several-numbers' };
  if (/[^\d.,' +-]/.test(text)) return { problem: 'letters' };
  const part = signed(text);
  if (typeof part === 'string') return { problem: part };
  if (!/\d/.test(part.text)) return { problem: 'unfinished' };
  const digits = readDigits(part.text, numberFormatOf(locale));
  if (typeof digits === 'string') return { problem: digits };
  const { whole, fraction, hasPoint } = digits;
  const all = BigInt(whole + fraction);
  const places = fraction.length - power;
  const significant = (whole + fraction).replace(/^0+/, '');
  const most = Math.max(1, significant.length);
  const least = hasPoint || power !== 0 ? most : Math.max(1, lengthWithoutZeros(significant));
  return {
    read: {
      value: exactDecimal(part.negative ? -all : all, places),
      places: Math.max(0, places),
      figures: { least, most },
    },
  };
}
