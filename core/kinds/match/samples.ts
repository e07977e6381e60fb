import { shuffled, type Random } from '../../random';
import type { Sample } from '../contract';
import type { MatchAsked, MatchKey } from './content';
import type { MatchResponse } from './response';

const left = ['scale', 'dial', 'lamp'].map((key) => ({ key, text: `The ${key}` }));
const right = ['grams', 'degrees', 'lux', 'litres'].map((key) => ({ key, text: `in ${key}` }));

const dealt = (once: boolean) => (random: Random) => {
  const partners = shuffled(right, random);
  const pairs = left.flatMap(({ key }, i) => {
    const partner = once ? partners[i]! : partners[Math.floor(random() * 2)]!;
    return random() < 0.8 ? [[key, partner.key] as const] : [];
  });
  return { pairs: Object.fromEntries(pairs) };
};

export const samples: Sample<MatchAsked, MatchKey, MatchResponse>[] = [
  {
    title: 'one to one, shuffled',
    content: {
      asked: { left, right, once: true, leftOver: false, shuffle: true },
      key: { pairs: { scale: 'grams', dial: 'degrees', lamp: 'lux' } },
    },
    marks: 200,
    best: { pairs: { scale: 'grams', dial: 'degrees', lamp: 'lux' } },
    partly: { pairs: { scale: 'grams', dial: 'lux' } },
    wrong: { pairs: { scale: 'lux', dial: 'grams', lamp: 'litres' } },
    misfit: { pairs: { scale: 'lux', dial: 'lux' } },
    randomResponse: dealt(true),
    secrets: ['"scale":"grams"'],
  },
  {
    title: 'many to one, one without a partner',
    content: {
      asked: { left, right: right.slice(0, 2), once: false, leftOver: true, shuffle: false },
      key: { pairs: { scale: 'grams', dial: 'grams' } },
    },
    marks: 300,
    best: { pairs: { dial: 'grams', scale: 'grams' } },
    partly: { pairs: { dial: 'grams', scale: 'degrees' } },
    wrong: { pairs: { dial: 'degrees', scale: 'degrees', lamp: 'degrees' } },
    misfit: { pairs: { dial: 'volts' } },
    randomResponse: (random: Random): MatchResponse => ({
      pairs: Object.fromEntries(
        left.flatMap(({ key }) => {
          const partner = ['grams', 'degrees', undefined][Math.floor(random() * 3)];
          return partner ? [[key, partner] as const] : [];
        }),
      ),
    }),
    secrets: ['"dial":"grams"'],
  },
];
