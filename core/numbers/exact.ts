/** An exact number: a fraction of whole numbers, with a positive denominator. Never a binary fraction. */
export interface Exact {
  readonly over: bigint;
  readonly under: bigint;
}

export const exact = (over: bigint, under = 1n): Exact =>
  under < 0n ? { over: -over, under: -under } : { over, under };

/** `digits / 10^places`; a negative `places` multiplies. */
export const exactDecimal = (digits: bigint, places: number): Exact =>
  places >= 0 ? exact(digits, 10n ** BigInt(places)) : exact(digits * 10n ** BigInt(-places));

export const ZERO: Exact = { over: 0n, under: 1n };

const size = (n: bigint): bigint => (n < 0n ? -n : n);

function commonDivisor(a: bigint, b: bigint): bigint {
  while (b > 0n) [a, b] = [b, a % b];
  return a;
}

/** The same value in lowest terms, so that long sums stay short. */
export function lowest({ over, under }: Exact): Exact {
  const divisor = commonDivisor(size(over), under);
  return divisor > 1n ? { over: over / divisor, under: under / divisor } : { over, under };
}

export const sameExact = (a: Exact, b: Exact): boolean => a.over * b.under === b.over * a.under;

export const addExact = (a: Exact, b: Exact): Exact =>
  lowest(exact(a.over * b.under + b.over * a.under, a.under * b.under));

export const negative = ({ over, under }: Exact): Exact => exact(-over, under);

export const minusExact = (a: Exact, b: Exact): Exact => addExact(a, negative(b));

export const timesExact = (a: Exact, b: Exact): Exact => lowest(exact(a.over * b.over, a.under * b.under));

/** Null where it would be a division by zero. */
export const overExact = (a: Exact, b: Exact): Exact | null =>
  b.over === 0n ? null : lowest(exact(a.over * b.under, a.under * b.over));

export const absolute = ({ over, under }: Exact): Exact => exact(size(over), under);

/** Below 0, 0 or above 0, as a is less than, equal to or more than b. */
export const compareExact = (a: Exact, b: Exact): -1 | 0 | 1 => {
  const difference = a.over * b.under - b.over * a.under;
  return difference < 0n ? -1 : difference > 0n ? 1 : 0;
};

/** |a − b| ≤ tolerance, exactly; the limit itself is within. */
export const withinDistance = (a: Exact, b: Exact, tolerance: Exact): boolean =>
  size(a.over * b.under - b.over * a.under) * tolerance.under <= tolerance.over * a.under * b.under;

/** |a − b| ≤ |b| · share, exactly; `share` 0.01 is one per cent. */
export const withinShareOf = (a: Exact, b: Exact, share: Exact): boolean =>
  withinDistance(a, b, exact(size(b.over) * share.over, b.under * share.under));

/** Rounded half away from zero to `places` decimals; a negative number of places rounds to tens, hundreds and so on. */
export function roundExact({ over, under }: Exact, places: number): Exact {
  const scale = 10n ** BigInt(Math.abs(places));
  const [top, bottom] = places >= 0 ? [over * scale, under] : [over, under * scale];
  const up = (size(top) * 2n + bottom) / (2n * bottom);
  const rounded = over < 0n ? -up : up;
  return places >= 0 ? exact(rounded, scale) : exact(rounded * scale);
}

/** The power of ten of the first digit that is not nought: 2 for 345, −2 for 0.0345. Nought has none. */
export function magnitude({ over, under }: Exact): number | null {
  if (over === 0n) return null;
  const top = size(over);
  // Both lengths together are off by one at the most.
  let power = top.toString().length - under.toString().length;
  const atLeast = (p: number) =>
    p >= 0 ? top >= under * 10n ** BigInt(p) : top * 10n ** BigInt(-p) >= under;
  if (!atLeast(power)) power--;
  return power;
}

/** Rounded half away from zero to `figures` significant figures. */
export function roundToSignificant(value: Exact, figures: number): Exact {
  const first = magnitude(value);
  return first === null ? value : roundExact(value, figures - 1 - first);
}

const FIGURE = /^([-−]?)(\d+)(?:\.(\d+)|\/(\d+))?$/;

export const isExactText = (text: string): boolean => {
  const match = FIGURE.exec(text.trim());
  return match !== null && !/^0+$/.test(match[4] ?? '1');
};

/**
 * Reads a figure as content holds it: digits with a point or with a slash between two whole numbers, and a minus in
 * front. Throws RangeError where it is none.
 */
export function exactOf(text: string): Exact {
  const match = FIGURE.exec(text.trim());
  if (!match || !isExactText(text)) throw new RangeError(`not a figure: ${text}`);
  const [, sign, whole = '', fraction = '', under] = match;
  const digits = BigInt(whole + fraction) * (sign ? -1n : 1n);
  return under === undefined ? exactDecimal(digits, fraction.length) : exact(digits, BigInt(under));
}

/**
 * The decimal that a finite number of JavaScript is written as, which is the shortest that reads back to it (ECMA-262,
 * Number::toString). Throws RangeError for others.
 */
export function exactOfNumber(value: number): Exact {
  const match = /^(-?)(\d+)(?:\.(\d+))?(?:e([+-]\d+))?$/.exec(String(value));
  if (!match) throw new RangeError(`not a finite number: ${value}`);
  const [, sign, whole = '', fraction = '', power = '0'] = match;
  return exactDecimal(BigInt(`${sign}${whole}${fraction}`), fraction.length - Number(power));
}

/** A value as `exactOf` reads it, the same text for the same value: a decimal where it ends, else a fraction. */
export function exactText({ over, under }: Exact): string {
  const { over: top, under: bottom } = lowest({ over, under });
  let [rest, places] = [bottom, 0];
  for (const prime of [10n, 5n, 2n])
    while (rest % prime === 0n) {
      rest /= prime;
      places++;
    }
  if (rest !== 1n) return `${top}/${bottom}`;
  return showExact(exact(top, bottom), '.', places).replace('−', '-');
}

/**
 * A figure as people read it, with the decimal sign of a locale: with as many decimals as asked, or as it needs (at the
 * most forty, for what never ends).
 */
export function showExact(value: Exact, decimalSign: '.' | ',', places?: number): string {
  let needed = places ?? 0;
  if (places === undefined) while (needed < 40 && !sameExact(roundExact(value, needed), value)) needed++;
  const { over, under } = roundExact(value, needed);
  const digits = (size(over) * 10n ** BigInt(needed)) / under;
  const text = digits.toString().padStart(needed + 1, '0');
  const cut = text.length - needed;
  return `${over < 0n ? '−' : ''}${text.slice(0, cut)}${needed > 0 ? decimalSign + text.slice(cut) : ''}`;
}
