import { readNumber } from '../../numbers/readNumber';
import { readAs } from './readEntry';
import { describe, expect, it } from 'vitest';
import '../candidateKinds';
import { say } from '../../messages/words';
import { creditsOf, foundOf, hundredthsOf, placeFor } from '../../testing/scoreAlone';
import { number } from './candidate';
import { numberKey } from './key';
import { samples } from './samples';

const [share, dial] = [samples[0]!.content, samples[1]!.content];
const percent = { ...dial, key: { ...dial.key, tolerance: { by: 'share', within: '0.02' } as const } };
const figures = {
  asked: { ...dial.asked, demand: { by: 'figures', figures: 2 } as const },
  key: { ...dial.key, tolerance: null },
};
const several = {
  ...dial,
  key: { ...dial.key, accepted: [50, 100].map((n) => ({ figure: '-18', percent: n, note: '' })) },
};
const score = (content: typeof dial, typed: string, locale = 'en', marks = 200) =>
  hundredthsOf(numberKey, { content, response: { typed }, marks, locale });

describe('number', () => {
  it.each([
    ['half up to one place', share, '71.3', 200],
    ['two places where one is asked', share, '71.25', 0],
    ['another accepted figure', share, '0.7', 100],
    ['at the edge of the distance', dial, '-18.5', 200],
    ['past the edge', dial, '-18.51', 0],
    ['at the edge of 2 %: 18 · 0.02 = 0.36', percent, '-18.36', 200],
    ['past 2 %', percent, '-18.37', 0],
    ['two figures', figures, '-18', 200],
    ['three figures where two are asked', figures, '-18.0', 0],
    ['of several that match the one with the most marks', several, '-18', 200],
    ['no figure', dial, 'eighteen', 0],
    ['its unit typed too', dial, '-18 °C', 200],
    ['another word for its unit', dial, '-18 degrees', 200],
    ['another unit', dial, '-18 K', 0],
  ])('%s', (_, content, typed, expected) => expect(score(content, typed)).toBe(expected));

  it.each([
    ['eighteen', 'en'],
    ['-18 K', 'en'],
    ['1.8e1', 'en'],
    ['1,2,3', 'en-IN'],
  ])('leaves %j, which cannot be read here and was told so, to people', (typed, locale) => {
    const found = foundOf(numberKey, { content: dial, response: { typed }, marks: 200, locale });
    const { missing } = number.progress(numberKey.show(dial.asked, null, placeFor(200, locale)), { typed });
    expect(found).toEqual([{ component: 'whole', undecided: missing!.code }]);
  });

  it('gives the reason that the page gave, where a number is not in the form that was asked for', () => {
    for (const [content, typed] of [
      [share, '71.25'],
      [share, '-71.3'],
      [figures, '-18.0'],
    ] as const) {
      const [credit] = creditsOf(numberKey, { content, response: { typed }, marks: 200 });
      const { missing } = number.progress(numberKey.show(content.asked, null, placeFor(200)), { typed });
      expect([credit!.hundredths, credit!.reasons]).toEqual([0, [missing]]);
    }
  });

  it.each([
    ['', 'Enter a number'],
    ['71.25', 'Give 1 decimal place; this number has 2'],
    ['7a', 'Enter a number: digits, a minus sign, a decimal point or comma'],
    ['-7.1', 'A minus sign is not allowed here'],
    ['7.1.2', 'The commas and points do not fit together'],
    ['71.3', ''],
  ])('says about %j: %s', (typed, words) => {
    const { missing } = number.progress(numberKey.show(share.asked, null, placeFor(200)), { typed });
    expect(missing ? say(missing) : '').toBe(words);
  });

  it('reads the decimal sign of the round’s locale, when scoring as in the box', () => {
    const accepted = [{ figure: '1.234', percent: 100, note: '' }];
    const content = { ...dial, key: { ...dial.key, accepted, tolerance: null } };
    expect([score(content, '1,234', 'de-DE'), score(content, '1,234', 'en-GB')]).toEqual([200, 0]);
  });

  it('gives the right answer in the asked form and the sign of the locale', () => {
    expect(numberKey.rightResponse(share, null, placeFor(200, 'de'))).toEqual({ typed: '71,3' });
  });

  it('accepts one more figure later, as the table of the answers names it, in whatever form it was entered', () => {
    const [fact] = numberKey.facts({
      content: share,
      response: { typed: '71.250 %' },
      place: placeFor(200),
      siblings: {},
    });
    expect(fact).toEqual({ component: 'whole', type: 'figure', answer: '71.25', right: false });
    const key = numberKey.accept(share, 'whole', '71.25')!;
    expect(score({ ...share, key }, '71.250')).toBe(200);
    expect(numberKey.accept(share, 'whole', 'seventy')).toBeNull();
  });

  it.each([
    [
      { ...share, key: { ...share.key, tolerance: { by: 'distance', within: '1' } as const } },
      'number.twoRules',
    ],
    [{ ...dial, asked: { ...dial.asked, minusPossible: false } }, 'number.minusNeeded'],
    [
      { ...dial, key: { ...dial.key, accepted: [{ figure: '-1', percent: 50, note: '' }] } },
      'number.noFullMarks',
    ],
  ])('has an issue where its halves do not fit (%#)', (content, code) => {
    expect(numberKey.check(content, placeFor(100)).map((issue) => issue.message.code)).toContain(code);
  });
});

describe('how a typed number was read', () => {
  it.each([
    ['en', '1,234', '1\u202F234'],
    ['en', '−12,345.60', '−12\u202F345.60'],
    ['en', '-123', null],
    ['en', '1234.5', null],
    // In German the comma is the decimal sign.
    ['de', '1.234,5', '1\u202F234,5'],
    ['de', '0,5', null],
  ])('%s: %s', (locale, typed, told) => {
    const reading = readNumber(typed, { locale, scientific: false, fractions: false, units: [] });
    expect('read' in reading && readAs(reading.read, typed, locale)).toBe(told);
  });
});
