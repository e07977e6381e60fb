import { exactOfNumber, withinDistance } from '../numbers/exact';
import { figureOf } from './value';

/**
 * How what a program wrote is compared: sign by sign; line by line without spaces at the ends of lines and empty lines at
 * the end; or word by word, numbers within the within.
 */
export const textRules = ['exact', 'lines', 'words'] as const;
export type TextRule = (typeof textRules)[number];

export interface TextComparison {
  readonly text: TextRule;
  readonly within: number;
  /** Of the lines. */
  readonly anyOrder: boolean;
}

function linesOf(text: string): string[] {
  const lines = text
    .replace(/\r\n?/g, '\n')
    .split('\n')
    .map((line) => line.trimEnd());
  while (lines.at(-1) === '') lines.pop();
  return lines;
}

const wordsOf = (text: string): string[] => text.split(/\s+/).filter((word) => word !== '');

const FIGURE = /^[+-]?\d{1,400}(?:\.\d{1,400})?(?:[eE][+-]?\d{1,3})?$/;

function sameWord(expected: string, got: string, within: number): boolean {
  if (expected === got) return true;
  if (within === 0 || !FIGURE.test(expected) || !FIGURE.test(got)) return false;
  const [a, b] = [expected, got].map((text) => figureOf('f', text.replace(/^\+/, '')));
  return withinDistance(a!, b!, exactOfNumber(within));
}

const sameList = (a: readonly string[], b: readonly string[], within: number): boolean =>
  a.length === b.length && a.every((word, i) => sameWord(word, b[i]!, within));

/** Is what a program wrote what was expected? */
export function sameText(expected: string, got: string, { text, within, anyOrder }: TextComparison): boolean {
  const cut = (whole: string) => (text === 'exact' ? whole.split('\n') : linesOf(whole));
  const [a, b] = [cut(expected), cut(got)];
  if (anyOrder) [a, b].forEach((lines) => lines.sort());
  if (text !== 'words') return sameList(a, b, 0);
  if (!anyOrder) return sameList(wordsOf(expected), wordsOf(got), within);
  return a.length === b.length && a.every((line, i) => sameList(wordsOf(line), wordsOf(b[i]!), within));
}
