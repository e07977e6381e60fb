import { shuffled, type Random } from '../../random';
import type { Sample } from '../contract';
import type { OrderAsked, OrderKey } from './content';
import type { OrderResponse } from './response';

const keys = ['c', 'a', 'd', 'b'];
const items = keys.map((key) => ({ key, text: `step ${key}` }));
const right = ['a', 'b', 'c', 'd'];

const common = {
  marks: 300,
  best: { sequence: right },
  wrong: { sequence: ['d', 'c', 'b', 'a'] },
  misfit: { sequence: ['a', 'b', 'c', 'x'] },
  randomResponse: (random: Random) => ({ sequence: random() < 0.1 ? [] : shuffled(keys, random) }),
  secrets: ['right', '"a","b","c","d"'],
};

export const samples: Sample<OrderAsked, OrderKey, OrderResponse>[] = [
  {
    title: 'four steps by rank',
    content: { asked: { items, rule: 'rank', shuffle: false }, key: { right } },
    ...common,
    partly: { sequence: ['b', 'a', 'c', 'd'] },
  },
  {
    title: 'four steps by neighbours, shuffled',
    content: { asked: { items, rule: 'pairs', shuffle: true }, key: { right } },
    ...common,
    partly: { sequence: ['b', 'a', 'c', 'd'] },
    secrets: ['right'],
  },
];
