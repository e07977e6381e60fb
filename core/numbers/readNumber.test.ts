import { describe, expect, it } from 'vitest';
import { exactDecimal, exact, sameExact } from './exact';
import { numberFormatOf } from './numberFormat';
import { readNumber, type NumberProblem } from './readNumber';

const read = (typed: string, locale: string, more = {}) =>
  readNumber(typed, { locale, scientific: false, fractions: false, units: [], ...more });
/** A figure as digits and places: 71.3 is [713, 1]. */
type Figure = readonly [digits: bigint | number, places: number];

const expectFigure = (typed: string, locale: string, [digits, places]: Figure, more = {}) => {
  const reading = read(typed, locale, more);
  if ('problem' in reading) throw new Error(`${typed} in ${locale}: ${reading.problem}`);
  expect(sameExact(reading.read.value, exactDecimal(BigInt(digits), places))).toBe(true);
};
const expectProblem = (typed: string, locale: string, problem: NumberProblem, more = {}) =>
  expect(read(typed, locale, more)).toEqual({ problem });

describe('the format of a locale', () => {
  it.each([
    ['en', { decimal: '.', group: ',', indian: false }],
    ['de', { decimal: ',', group: '.', indian: false }],
    ['fr', { decimal: ',', group: ' ', indian: false }],
    ['en-IN', { decimal: '.', group: ',', indian: true }],
    ['de-CH', { decimal: '.', group: "'", indian: false }],
  ])('%s', (locale, format) => expect(numberFormatOf(locale)).toEqual(format));
});

describe('a figure', () => {
  it.each<[string, string, Figure]>([
    ['71.3', 'en', [713, 1]],
    ['71,3', 'de', [713, 1]],
    ['71,3', 'fr', [713, 1]],
    ['71.3', 'en-IN', [713, 1]],
    ['.5', 'en', [5, 1]],
    ['5.', 'en', [5, 0]],
    ['007', 'en', [7, 0]],
    ['-0', 'en', [0, 0]],
    // The other decimal sign, where no other reading is left.
    ['71,3', 'en', [713, 1]],
    ['0,7', 'en', [7, 1]],
    ['0,123', 'en', [123, 3]],
    ['1,2345', 'en', [12345, 4]],
    ['1.5', 'de', [15, 1]],
    ['1.5', 'fr', [15, 1]],
    ['1.234,5', 'en', [12345, 1]],
    ['1,234.5', 'de', [12345, 1]],
    // Groups of the locale.
    ['1,234', 'en', [1234, 0]],
    ['1,234,567.89', 'en', [123456789, 2]],
    ['1.234', 'de', [1234, 0]],
    ['1.234.567,89', 'de', [123456789, 2]],
    ['1 234 567,89', 'fr', [123456789, 2]],
    ['12,34,567', 'en-IN', [1234567, 0]],
    ['1,00,000.5', 'en-IN', [1000005, 1]],
    ['123,456', 'en-IN', [123456, 0]],
    // Spaces of any width, and apostrophes, in every locale.
    ['1 234', 'en', [1234, 0]],
    ['1\u00a0234', 'de', [1234, 0]],
    ['1\u202f234,5', 'fr', [12345, 1]],
    ['1\u2009234', 'en', [1234, 0]],
    ["1'234'567", 'en', [1234567, 0]],
    ['1’234.5', 'en', [12345, 1]],
    // Signs.
    ['-18', 'en', [-18, 0]],
    ['−18', 'en', [-18, 0]],
    ['–18', 'en', [-18, 0]],
    ['－18', 'en', [-18, 0]],
    ['- 18', 'en', [-18, 0]],
    ['+18', 'en', [18, 0]],
    ['＋18', 'en', [18, 0]],
    // Digits of other scripts and widths.
    ['７１．３', 'en', [713, 1]],
    ['٧١٫٣', 'en', [713, 1]],
    ['७१.३', 'en-IN', [713, 1]],
    ['৭১', 'en', [71, 0]],
    // What cannot be seen does not matter.
    ['\u200b71.3\u200e', 'en', [713, 1]],
    ['  71.3 ', 'en', [713, 1]],
    // Forty digits and more.
    ['1234567890123456789012345678901234567890.5', 'en', [12345678901234567890123456789012345678905n, 1]],
    ['0.0000000000000000000000000000000000000001', 'en', [1, 40]],
  ])('%j in %s', (typed, locale, figure) => expectFigure(typed, locale, figure));

  it.each<[string, string, NumberProblem]>([
    ['', 'en', 'empty'],
    [' \u200b ', 'en', 'empty'],
    ['twelve', 'en', 'letters'],
    ['12a', 'en', 'letters'],
    ['5²', 'en', 'letters'],
    ['O.5', 'en', 'letters'],
    ['(250)', 'en', 'letters'],
    ['NaN', 'en', 'letters'],
    ['Infinity', 'en', 'letters'],
    ['0x10', 'en', 'letters'],
    ['12 34', 'en', 'several-numbers'],
    ['5\n6', 'en', 'several-numbers'],
    ['5\t6', 'en', 'several-numbers'],
    ['1234 567', 'en', 'incomplete-groups'],
    ["12'34", 'en', 'incomplete-groups'],
    ['12,34,567', 'en', 'two-separators'],
    ['1,23,45', 'en-IN', 'two-separators'],
    ['1,2345,678', 'en', 'two-separators'],
    ['1.2.3', 'en', 'two-separators'],
    ['1,234,56', 'en', 'two-separators'],
    ['1.234', 'fr', 'ambiguous'],
    ['12.345', 'fr', 'ambiguous'],
    ['1,234', 'de-CH', 'ambiguous'],
    ['-', 'en', 'unfinished'],
    ['.', 'en', 'unfinished'],
    ['5-', 'en', 'sign'],
    ['1-2', 'en', 'sign'],
    ['--5', 'en', 'sign'],
    ['1'.repeat(121), 'en', 'too-long'],
    ['1e5', 'en', 'scientific-not-asked'],
    ['1/2', 'en', 'fraction-not-asked'],
    ['½', 'en', 'fraction-not-asked'],
  ])('not %j in %s: %s', (typed, locale, problem) => expectProblem(typed, locale, problem));

  it('may have digits of any script: each counts as its place in its row of ten', () => {
    // Unicode, 4.6: the decimal digits (Nd) of a script stand in one row, from 0 to 9.
    const digits: string[] = [];
    for (let code = 0; code <= 0x10ffff; code++)
      if (/\p{Nd}/u.test(String.fromCodePoint(code))) digits.push(String.fromCodePoint(code));
    expect(digits.length).toBeGreaterThan(600);
    digits.forEach((digit, i) => expectFigure(`1${digit}`, 'en', [10 + (i % 10), 0]));
  });

  it.each(['①', '5①', '10₂', '⒌', '௰', 'Ⅳ', '²', '㍘'])('%j holds a digit, but is no figure', (typed) =>
    expectProblem(typed, 'en', 'letters'),
  );

  it('is never misread in silence: the same text, locale by locale', () => {
    expectFigure('1,234', 'en', [1234, 0]);
    expectFigure('1,234', 'de', [1234, 3]);
    expectFigure('1,234', 'fr', [1234, 3]);
    expectFigure('1.234', 'en', [1234, 3]);
    expectFigure('1.234', 'en-IN', [1234, 3]);
  });
});

describe('scientific notation', () => {
  const more = { scientific: true };
  it.each<[string, string, Figure]>([
    ['1.2e3', 'en', [1200, 0]],
    ['1.2E-3', 'en', [12, 4]],
    ['1,2e3', 'de', [1200, 0]],
    ['1.2×10^3', 'en', [1200, 0]],
    ['1.2 × 10^3', 'en', [1200, 0]],
    ['1,2·10³', 'de', [1200, 0]],
    ['1.2 x 10^-3', 'en', [12, 4]],
    ['1.2*10^3', 'en', [1200, 0]],
    ['-5×10⁻²', 'en', [-5, 2]],
    ['6e23', 'en', [6n * 10n ** 23n, 0]],
    ['12', 'en', [12, 0]],
  ])('%j in %s', (typed, locale, figure) => expectFigure(typed, locale, figure, more));
  it.each<[string, NumberProblem]>([
    ['1e401', 'exponent-too-large'],
    ['1e-99999999999', 'exponent-too-large'],
    ['e5', 'unfinished'],
    ['1e', 'letters'],
    // Without a sign for the power: 5,000 or 515, and 0x105 is no figure of people at all.
    ['5×103', 'flat-power'],
    ['5 x 10 3', 'flat-power'],
    ['5·10-3', 'flat-power'],
    ['0x105', 'flat-power'],
    ['5^3', 'letters'],
  ])('not %j: %s', (typed, problem) => expectProblem(typed, 'en', problem, more));
});

describe('fractions and mixed numbers', () => {
  const more = { fractions: true };
  it.each<[string, number, number]>([
    ['3/4', 3, 4],
    ['1 3/4', 7, 4],
    ['-1 3/4', -7, 4],
    ['¾', 3, 4],
    ['1¾', 7, 4],
    ['1 ¾', 7, 4],
    ['10/4', 10, 4],
    ['1⁄3', 1, 3],
    ['⅒', 1, 10],
    ['-2⅐', -15, 7],
  ])('%j', (typed, over, under) => {
    const reading = read(typed, 'en', more);
    expect('read' in reading && sameExact(reading.read.value, exact(BigInt(over), BigInt(under)))).toBe(true);
  });
  it.each<[string, NumberProblem]>([
    ['1/0', 'division-by-zero'],
    ['1/', 'letters'],
    ['1/2/3', 'letters'],
    ['½5', 'letters'],
    ['2½3', 'letters'],
    ['½½', 'letters'],
    ['2⅟4', 'letters'],
  ])('not %j: %s', (typed, problem) => expectProblem(typed, 'en', problem, more));
});

describe('the unit beside the box', () => {
  it.each<[string, readonly string[], Figure]>([
    ['71.3 %', ['%'], [713, 1]],
    ['71.3%', ['%', 'per cent'], [713, 1]],
    ['71.3 per cent', ['%', 'per cent'], [713, 1]],
    ['−18 °C', ['°C'], [-18, 0]],
    ['€5', ['€'], [5, 0]],
    ['-€5', ['€'], [-5, 0]],
    ['5 km', ['m', 'km'], [5, 0]],
    ['71.3', ['%'], [713, 1]],
  ])('%j with %j', (typed, units, figure) => expectFigure(typed, 'en', figure, { units }));
  it.each<[string, readonly string[], Figure]>([
    ['15℃', ['°C'], [15, 0]],
    ['15㎏', ['kg'], [15, 0]],
    ['120㎡', ['m²'], [120, 0]],
    ['120m2', ['m²'], [120, 0]],
    ['7 m³', ['m³'], [7, 0]],
    ['₨500', ['₨'], [500, 0]],
    ['-₨500', ['Rs'], [-500, 0]],
    ['５００㎢', ['km²'], [500, 0]],
    ['390 CO₂', ['CO₂'], [390, 0]],
    ['51㎞', ['km'], [51, 0]],
  ])('%j typed as one character, with %j', (typed, units, figure) =>
    expectFigure(typed, 'en', figure, { units }),
  );
  it('takes no digit with it', () => {
    // Read as 10²³ m, or as 3 with the unit before it?
    expectProblem('m23', 'en', 'letters', { units: ['m²'] });
    expectProblem('5㏠', 'en', 'letters', { units: ['日'] });
  });
  it('every squared unit and abbreviation of Unicode is read beside its own letters', () => {
    // CJK Compatibility (U+3371–33DF): none of their digits may be taken for the figure's.
    for (let code = 0x3371; code <= 0x33df; code++) {
      const sign = String.fromCodePoint(code);
      const unit = sign.normalize('NFKC');
      expectFigure(`15${sign}`, 'en', [15, 0], { units: [unit] });
      expectFigure(`15 ${unit}`, 'en', [15, 0], { units: [sign] });
    }
  });
  it('is not guessed: another one is refused', () =>
    expectProblem('5 mm', 'en', 'letters', { units: ['km'] }));
});

describe('the figures as written', () => {
  it.each([
    ['1200', { least: 2, most: 4 }, 0],
    ['1200.', { least: 4, most: 4 }, 0],
    ['0.0450', { least: 3, most: 3 }, 4],
    ['71.30', { least: 4, most: 4 }, 2],
    ['0', { least: 1, most: 1 }, 0],
  ])('%s', (typed, figures, places) => {
    expect(read(typed, 'en')).toMatchObject({ read: { figures, places } });
  });
});
