import { exact, exactDecimal, type Exact } from '../numbers/exact';

/**
 * A value of a program as it travels and is kept: by its type, and exact. Null, truths and texts are themselves; all else
 * is a list that begins with its type.
 *
 * `i` a whole number (decimal digits, or `0x` and hexadecimal ones beyond some 4,000 digits) · `f` a binary fraction as its
 * language writes it, `nan` and `inf` too · `d` an exact decimal · `b` bytes in hexadecimal · `l` a list · `s` a set · `m` a
 * map: key, value, key, value.
 */
export type Value = null | boolean | string | readonly Value[];

export type Figure = readonly [type: 'i' | 'f' | 'd', text: string];

const PATTERNS: Readonly<Record<string, RegExp>> = {
  i: /^-?(?:\d{1,5000}|0x[0-9a-f]+)$/,
  f: /^(?:-?(?:\d{1,400}(?:\.\d{1,400})?(?:e[+-]?\d{1,4})?|inf)|nan)$/,
  d: /^-?\d{1,6000}(?:\.\d{1,6000})?(?:[eE][+-]?\d{1,4})?$/,
  b: /^(?:[0-9a-f]{2})*$/,
};

/** Is something that came from outside a value? Its depth has been counted before. */
export function isValue(from: unknown): from is Value {
  if (from === null || typeof from === 'boolean' || typeof from === 'string') return true;
  if (!Array.isArray(from)) return false;
  const [type, ...items] = from as unknown[];
  const pattern = typeof type === 'string' ? PATTERNS[type] : undefined;
  if (pattern) return items.length === 1 && typeof items[0] === 'string' && pattern.test(items[0]);
  if (type === 'm') return items.length % 2 === 0 && items.every(isValue);
  return (type === 'l' || type === 's') && items.every(isValue);
}

/** A whole number as `i` holds it. */
export function wholeOf(text: string): bigint {
  return text.startsWith('-') ? -BigInt(text.slice(1)) : BigInt(text);
}

const DECIMAL = /^(-?)(\d+)(?:\.(\d+))?(?:[eE]([+-]?\d+))?$/;

/** Beyond it a decimal is compared by its text alone: no fraction of 64 bits gets there. */
const MOST_POWER = 400;

/** The exact figure of a number's text; null for what is none, such as `nan`, or too large to be worked with. */
export function figureOf(type: 'i' | 'f' | 'd', text: string): Exact | null {
  if (type === 'i') return exact(wholeOf(text));
  const match = DECIMAL.exec(text);
  if (!match) return null;
  const [, sign, whole = '', fraction = '', power = '0'] = match;
  if (Math.abs(Number(power)) > MOST_POWER) return null;
  return exactDecimal(BigInt(`${sign}${whole}${fraction}`), fraction.length - Number(power));
}

export const isList = (value: Value): value is readonly Value[] => Array.isArray(value);

export const isNumber = (value: Value): value is Figure =>
  isList(value) && (value[0] === 'i' || value[0] === 'f' || value[0] === 'd');

/** Keys and values of a map, in their order. */
export function entriesOf(items: readonly Value[]): (readonly [Value, Value])[] {
  const entries: (readonly [Value, Value])[] = [];
  for (let i = 0; i + 1 < items.length; i += 2) entries.push([items[i]!, items[i + 1]!]);
  return entries;
}

const WORDS = {
  python: { null: 'None', true: 'True', false: 'False' },
  sql: { null: 'NULL', true: 'true', false: 'false' },
  other: { null: 'null', true: 'true', false: 'false' },
} as const;

/** A value as a language writes it: what a candidate reads in the table of cases. */
export function showValue(value: Value, language: string): string {
  const words = language === 'python' || language === 'sql' ? WORDS[language] : WORDS.other;
  if (value === null || typeof value === 'boolean') return words[String(value) as 'null'];
  if (typeof value === 'string') return JSON.stringify(value);
  const [type, ...items] = value;
  const all = (some: readonly Value[]) => some.map((one) => showValue(one, language)).join(', ');
  switch (type) {
    case 'l':
      return `[${all(items)}]`;
    case 's':
      return items.length === 0 ? 'set()' : `{${all(items)}}`;
    case 'm':
      return `{${entriesOf(items)
        .map(([key, of]) => `${showValue(key, language)}: ${showValue(of, language)}`)
        .join(', ')}}`;
    case 'b':
      return `bytes ${String(items[0])}`;
    default:
      return String(items[0]);
  }
}
