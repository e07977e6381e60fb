import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../random';
import type { ReadOptions } from './Cursor';
import { isInForm, type Form } from './forms';
import { judge, type JudgeOptions } from './judge';
import { readExpression } from './readExpression';
import { expressionAsText } from './toText';

const cases = <T>(name: string) =>
  JSON.parse(readFileSync(path.join(import.meta.dirname, 'cases', `${name}.json`), 'utf8')) as T[];

const pairs = cases<[string, string, string, JudgeOptions?]>('pairs');
const forms = cases<[Form, string, boolean, Partial<ReadOptions>?]>('forms');
const refused = cases<[string, string | null, Partial<ReadOptions>?]>('refused');

/** The clock of the tests: time is never over. */
const compare = (a: string, b: string, options: JudgeOptions = {}) => judge(a, b, options).is;

describe('comparing expressions', () => {
  it('finds no pair wrongly equal, none wrongly different, whichever is the key', () => {
    expect(pairs.length).toBeGreaterThanOrEqual(200);
    const found = pairs.flatMap(([key, given, , options]) => [
      compare(key, given, options),
      compare(given, key, { ...options, seed: 'turned' }),
    ]);
    const wrong = found.flatMap((is, i) => {
      const [key, given, wanted] = pairs[Math.floor(i / 2)]!;
      return is === wanted || is === 'undecided' ? [] : [`${key} | ${given}: ${is}, not ${wanted}`];
    });
    expect(wrong).toEqual([]);
    // Hardly any is left to people: in the table, those with several ± and those beyond all digits.
    expect(found.filter((is) => is === 'undecided').length).toBeLessThanOrEqual(8);
  });

  it('finds every expression equal to itself and none to itself with something small added', () => {
    for (const [key, , , options] of pairs.filter((_, i) => i % 3 === 0)) {
      expect([key, compare(key, key, options)]).not.toEqual([key, 'different']);
      const read = readExpression(key, options);
      if (!('tree' in read) || !['sum', 'product', 'power', 'root', 'function'].includes(read.tree.is))
        continue;
      expect([key, compare(key, `\\left(${key}\\right)+10^{-12}`, options)]).not.toEqual([key, 'equal']);
    }
  });

  it('never throws and never calls damaged text equal, whatever is cut or put in', () => {
    const random = seededRandom('damaged');
    const pieces = [
      '{',
      '}',
      '\\frac',
      '^',
      '_',
      '|',
      '\\left(',
      ')',
      ',',
      '.',
      '-',
      '7',
      '=',
      '\\sqrt',
      '%',
      '\\',
    ];
    const pick = <T>(from: readonly T[]) => from[Math.floor(random() * from.length)]!;
    for (let n = 0; n < 600; n++) {
      const [key, given] = pick(pairs);
      const at = Math.floor(random() * given.length);
      const damaged =
        random() < 0.5
          ? given.slice(0, at) + given.slice(at + 1)
          : given.slice(0, at) + pick(pieces) + given.slice(at);
      const found = judge(key, damaged);
      if ('why' in found) expect(found.why).not.toMatch(/^fault/);
    }
  });

  it('gives up where the time is over, and says so', () => {
    expect(judge('\\sin^2x', '1-\\cos^2x', { isLate: () => true })).toEqual({ is: 'undecided', why: 'time' });
  });

  it('reads the comma by the sign of the round', () => {
    expect(compare('1.5', '1,5')).toBe('different');
    expect(compare('1{,}5', '\\frac32', { decimal: ',' })).toBe('equal');
    expect(judge('1.5', '1{,}25')).toMatchObject({ is: 'unreadable', whose: 'given' });
  });
});

describe('reading expressions', () => {
  it.each(refused)('refuses %s and says what is missing: %s', (latex, missing, options = {}) => {
    const read = readExpression(latex, options);
    expect('refused' in read && read.refused.missing).toBe(missing);
  });

  it.each([
    ['2\\frac34', '2 3/4'],
    ['\\frac{x+1}{2}', '(x + 1)/2'],
    ['x^2-\\sqrt{5}', 'x² − √(5)'],
    ['\\left|x-1\\right|\\le2', '|x − 1| ≤ 2'],
    ['m\\angle A=45\\degree', 'm∠A = 45°'],
    ['\\triangle ABC\\cong\\triangle DEF', '△ABC ≅ △DEF'],
    ['\\left(-1,2\\right]', '(−1, 2]'],
    ['x=1\\lor x=2', 'x = 1 or x = 2'],
    ['\\frac{1}{}', '\\frac{1}{}'],
  ])('writes %s in one line as %s', (latex, text) => expect(expressionAsText(latex)).toBe(text));

  it('ends at once on what is nested without end', () => {
    for (const latex of ['('.repeat(900), '{'.repeat(1900), '\\sqrt'.repeat(300), '-'.repeat(1999)])
      expect('refused' in readExpression(latex)).toBe(true);
  });
});

describe('forms', () => {
  it('are told for sixty and more', () => {
    expect(forms.length).toBeGreaterThanOrEqual(60);
    const wrong = forms.filter(([form, latex, wanted, options]) => {
      const { is } = isInForm(form, latex, options);
      return (is === true) !== wanted;
    });
    expect(wrong).toEqual([]);
  });

  it('are left to people where a polynomial of a high degree may split', () => {
    expect(isInForm('factorised', '2\\left(x^6+x+1\\right)').is).toBeNull();
  });
});
