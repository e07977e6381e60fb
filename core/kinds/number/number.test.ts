import { describe, expect, it } from 'vitest';
import { number } from '.';
import { samples } from './samples';

const share = samples[0]!.content;
const dial = samples[1]!.content;
const percent = { ...dial, tolerance: { by: 'share' as const, within: '0.02' } };
const figures = { ...dial, tolerance: { by: 'figures' as const, figures: 2 } };

describe('number', () => {
  it.each([
    ['half up to one place', share, '71.3', 200],
    ['two places where one is asked', share, '71.25', 0],
    ['another accepted figure', share, '0,7', 100],
    ['at the edge of the distance', dial, '-18.5', 200],
    ['past the edge', dial, '-18.51', 0],
    ['at the edge of 2 %: 18 · 0.02 = 0.36', percent, '-18.36', 200],
    ['past 2 %', percent, '-18.37', 0],
    ['two figures', figures, '-18', 200],
    ['three figures where two are asked', figures, '-18.0', 0],
    ['no figure', dial, 'eighteen', 0],
    ['its unit typed too', dial, '-18 °C', 200],
    ['another word for its unit', dial, '-18 degrees', 200],
    ['another unit', dial, '-18 K', 0],
  ])('%s', (_, content, typed, expected) => {
    expect(number.score({ content, response: { typed }, maximum: 200 }).hundredths).toBe(expected);
  });

  it.each([
    ['', 'Enter a figure'],
    ['71,25', 'One decimal place is asked; this has two'],
    ['7a', 'Only a figure belongs here: digits, a minus sign, a decimal sign'],
    ['-7.1', 'No minus sign is possible here'],
    ['7.1.2', 'The commas and points do not fit together'],
    ['71.3', null],
  ])('says about %j: %s', (typed, missing) => {
    expect(number.progress(number.show(share), { typed }).missing).toBe(missing);
  });

  it('reads the decimal sign of the round’s locale, when scoring as in the box', () => {
    const content = { ...dial, accepted: [{ figure: '1.234', percent: 100, note: '' }] };
    const score = (typed: string, locale: string) =>
      number.score({ content, response: { typed }, maximum: 100, place: { locale } }).hundredths;
    expect([score('1,234', 'de-DE'), score('1,234', 'en-GB')]).toEqual([100, 0]);
  });

  it('gives the right answer in the asked form', () => expect(number.rightAnswer(share)).toBe('71.3 %'));
});
