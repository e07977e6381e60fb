import type { Sample } from '../contract';
import type { OrderContent, OrderResponse } from './content';

const items = ['c', 'a', 'd', 'b'].map((key) => ({ key, text: `step ${key}` }));

export const samples: Sample<OrderContent, OrderResponse>[] = [
  {
    title: 'four steps by rank',
    content: { items, right: ['a', 'b', 'c', 'd'], rule: 'rank', shuffle: false },
    maximum: 300,
    best: { sequence: ['a', 'b', 'c', 'd'] },
    partly: { sequence: ['b', 'a', 'c', 'd'] },
    secrets: ['right', '"a","b","c","d"'],
  },
];
