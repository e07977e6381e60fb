/** Six digits in two groups, as “482 913”, of any whole number that is not negative. */
export function sixDigits(number: number): string {
  const digits = String(number % 1_000_000).padStart(6, '0');
  return `${digits.slice(0, 3)} ${digits.slice(3)}`;
}

/** Spaces, dashes and points do not matter to a nervous person. */
const plain = (code: string) => code.normalize('NFKC').replace(/[\s.\-\u2010-\u2015]/g, '');

/** Can this be a code of six digits at all? What cannot is no try. */
export const areSixDigits = (given: string): boolean => /^\d{6}$/.test(plain(given));

export const sameDigits = (given: string, code: string): boolean => plain(given) === plain(code);
