import type { Random } from '../../random';
import type { Sample } from '../contract';
import type { GapsAsked, GapsKey } from './content';
import type { GapsResponse } from './response';

const rule = { by: 'typing', ignoreCase: true, ignoreAccents: true } as const;
const words = ['', 'tenth', 'tenht', 'third', 'zehntel', '  '];
const pick = (from: readonly string[], random: Random) => from[Math.floor(random() * from.length)]!;

export const samples: Sample<GapsAsked, GapsKey, GapsResponse>[] = [
  {
    title: 'one from a list, one typed',
    content: {
      asked: {
        text: 'Lot K-2 is [[a]] because no more than a [[b]] are empty.',
        gaps: [
          { key: 'a', by: 'list', options: ['kept', 're-sown'] },
          { key: 'b', by: 'typing', oneWord: true },
        ],
      },
      key: {
        gaps: {
          a: { by: 'list', right: 'kept' },
          b: {
            ...rule,
            accepted: [
              { text: 'tenth', percent: 100 },
              { text: 'decimal', percent: 50 },
            ],
            slips: 1,
          },
        },
      },
    },
    marks: 201,
    best: { filled: { a: 'kept', b: 'Tenth' } },
    partly: { filled: { a: 'kept' } },
    wrong: { filled: { a: 're-sown', b: 'third' } },
    misfit: { filled: { z: 'kept' } },
    randomResponse: (random) => ({
      filled: { a: pick(['', 'kept', 're-sown'], random), b: pick(words, random) },
    }),
    secrets: ['tenth', 'right', 'accepted', 'decimal'],
  },
  {
    title: 'in a table',
    content: {
      asked: {
        text: 'Fill in the two lots.\n\n| Lot | Sown | Decision |\n|---|--:|---|\n| K-1 | 240 | [[a]] |\n| K-2 | [[b]] | kept |\n\nBoth were counted on day 21.',
        gaps: [
          { key: 'a', by: 'list', options: ['kept', 're-sown'] },
          { key: 'b', by: 'typing', oneWord: true },
        ],
      },
      key: {
        gaps: {
          a: { by: 'list', right: 'kept' },
          b: { ...rule, accepted: [{ text: '220', percent: 100 }], slips: 0 },
        },
      },
    },
    marks: 200,
    best: { filled: { a: 'kept', b: '220' } },
    partly: { filled: { b: '220' } },
    wrong: { filled: { a: 're-sown', b: '240' } },
    misfit: { filled: { c: '220' } },
    randomResponse: (random) => ({
      filled: { a: pick(['', 'kept', 're-sown'], random), b: pick(['', '220', '22'], random) },
    }),
    secrets: ['220', 'right', 'accepted'],
  },
];
