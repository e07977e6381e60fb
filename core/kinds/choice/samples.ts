import { shuffled, type Random } from '../../random';
import type { Sample } from '../contract';
import type { ChoiceAsked, ChoiceKey } from './content';
import type { ChoiceResponse } from './response';

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
];
