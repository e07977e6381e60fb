import type { Random } from '../../random';
import type { Sample } from '../contract';
import type { GridChoiceAsked, GridChoiceKey } from './content';
import type { GridChoiceResponse } from './response';

const statements = [
  { key: 'lot', text: 'The lot is weighed' },
  { key: 'label', text: 'The label is written' },
  { key: 'book', text: 'The book is signed' },
];
const categories = [
  { key: 'posted', text: 'before posting' },
  { key: 'filed', text: 'before filing' },
];
const dealt = (random: Random, most: number): GridChoiceResponse => ({
  rows: Object.fromEntries(
    statements
      .filter(() => random() < 0.8)
      .map(({ key }) => [
        key,
        categories
          .filter(() => random() < 0.5)
          .slice(0, most)
          .map((c) => c.key),
      ]),
  ),
});

export const samples: Sample<GridChoiceAsked, GridChoiceKey, GridChoiceResponse>[] = [
  {
    title: 'one for each statement, shuffled',
    content: {
      asked: {
        statements,
        categories,
        mode: 'one',
        rule: 'all-or-nothing',
        mayStayEmpty: false,
        shuffle: true,
      },
      key: { rows: { lot: ['posted'], label: ['posted'], book: ['filed'] } },
    },
    marks: 200,
    best: { rows: { lot: ['posted'], label: ['posted'], book: ['filed'] } },
    partly: { rows: { lot: ['posted'] } },
    wrong: { rows: { lot: ['filed'], label: ['filed'], book: ['posted'] } },
    misfit: { rows: { lot: ['posted', 'filed'] } },
    randomResponse: (random) => dealt(random, 1),
    secrets: ['"book":["filed"]'],
  },
  {
    title: 'several, one statement to which nothing applies',
    content: {
      asked: { statements, categories, mode: 'several', rule: 'each', mayStayEmpty: true, shuffle: false },
      key: { rows: { lot: ['posted', 'filed'], label: ['filed'], book: [] } },
    },
    marks: 301,
    best: { rows: { lot: ['filed', 'posted'], label: ['filed'] } },
    partly: { rows: { lot: ['filed'], label: ['posted'] } },
    wrong: { rows: { label: ['posted'], book: ['posted'] } },
    misfit: { rows: { lid: ['posted'] } },
    randomResponse: (random) => dealt(random, 2),
    secrets: ['"book":[]'],
  },
];
