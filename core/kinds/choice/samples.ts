import type { Document } from '../../documents/document';
import { shuffled, type Random } from '../../random';
import { SMALL_PICTURE_HASH } from '../../testing/smallPicture';
import type { Sample } from '../contract';
import type { ChoiceAsked, ChoiceKey } from './content';
import type { ChoiceResponse } from './response';

const formula: Document = {
  format: 1,
  blocks: [{ type: 'paragraph', children: [{ type: 'formula', tex: '\\frac12', says: null }] }],
};
const picture: Document = {
  format: 1,
  blocks: [{ type: 'picture', file: SMALL_PICTURE_HASH, description: 'A cut seed', caption: null }],
};
const keys = ['kale', 'holly', 'rush', 'thrift'];
const options = keys.map((key) => ({ key, text: `Sea ${key}` }));
const some = (most: number) => (random: Random) => ({
  chosen: shuffled(keys, random).slice(0, Math.floor(random() * (most + 1))),
});

export const samples: Sample<ChoiceAsked, ChoiceKey, ChoiceResponse>[] = [
  {
    title: 'one of four, a wrong choice costs a third',
    content: {
      asked: {
        options,
        mode: 'one',
        choose: null,
        rule: 'all-or-nothing',
        penalty: { over: 1, under: 3 },
        shuffle: true,
      },
      key: { right: ['holly'] },
    },
    marks: 100,
    best: { chosen: ['holly'] },
    partly: null,
    wrong: { chosen: ['rush'] },
    misfit: { chosen: ['samphire'] },
    randomResponse: some(1),
    secrets: ['right'],
  },
  {
    title: 'choose two',
    content: {
      asked: { options, mode: 'several', choose: 2, rule: 'each', penalty: null, shuffle: false },
      key: { right: ['kale', 'rush'] },
    },
    marks: 200,
    best: { chosen: ['rush', 'kale'] },
    partly: { chosen: ['kale'] },
    wrong: { chosen: ['holly', 'thrift'] },
    misfit: { chosen: ['kale', 'rush', 'holly'] },
    randomResponse: some(2),
    secrets: ['right'],
  },
  {
    title: 'a formula and a picture as options',
    content: {
      asked: {
        options: [
          { key: 'half', text: 'one half', body: formula },
          { key: 'seed', text: 'A cut seed', body: picture },
          { key: 'none', text: 'neither' },
        ],
        mode: 'one',
        choose: null,
        rule: 'all-or-nothing',
        penalty: null,
        shuffle: false,
      },
      key: { right: ['half'] },
    },
    marks: 100,
    best: { chosen: ['half'] },
    partly: null,
    wrong: { chosen: ['seed'] },
    misfit: { chosen: ['half', 'seed'] },
    randomResponse: (random) => ({
      chosen: [['half'], ['seed'], ['none'], []][Math.floor(random() * 4)]!,
    }),
    secrets: ['right'],
  },
];
