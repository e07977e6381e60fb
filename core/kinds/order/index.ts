import { shuffled } from '../../random';
import { plainKind, type Kind } from '../contract';
import {
  contentSchema,
  responseSchema,
  type OrderContent,
  type OrderResponse,
  type OrderShown,
} from './content';
import { scoreOrder } from './score';

const textOf = (items: OrderShown['items'], key: string) =>
  items.find((item) => item.key === key)?.text ?? key;

const numbered = (items: OrderShown['items'], keys: readonly string[]) =>
  keys.map((key, i) => `${i + 1}. ${textOf(items, key)}`).join('\n');

function misfit(shown: OrderShown, { sequence }: OrderResponse): string | null {
  if (sequence.length === 0) return null;
  const same =
    [...sequence].sort().join() ===
    shown.items
      .map((item) => item.key)
      .sort()
      .join();
  return same ? null : 'each item stands once in the order';
}

const RULES = {
  exact: 'Marks are given only when the whole order is right.',
  pairs: 'Each two neighbours in the right order earn a share.',
  rank: 'The nearer to the right order, the more of the marks.',
} as const;

export const order: Kind<OrderContent, OrderShown, OrderResponse> = {
  ...plainKind,
  name: 'order',
  judge: 'machine',
  content: contentSchema,
  response: responseSchema,
  show: (c) => ({ items: c.items.map(({ key, text }) => ({ key, text })), rule: c.rule, shuffle: c.shuffle }),
  arrange: (shown, random) => (shown.shuffle ? { ...shown, items: shuffled(shown.items, random) } : shown),
  empty: () => ({ sequence: [] }),
  misfit,
  progress: (_, { sequence }) =>
    sequence.length === 0
      ? { state: 'empty', missing: 'Put these in order, or keep them as they stand' }
      : { state: 'done', missing: null },
  ruleInWords: (shown) => RULES[shown.rule],
  score: scoreOrder,
  asText: (shown, { sequence }) => numbered(shown.items, sequence),
  rightAnswer: (c) => c.right.map((key) => textOf(c.items, key)).join(' → '),
  statistics: (c, { sequence }) =>
    sequence.map((key, i) => `place:${i + 1}:${c.right[i] === key ? 'right' : 'wrong'}`),
};
