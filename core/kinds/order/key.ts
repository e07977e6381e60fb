import { message } from '../../messages/message';
import { shuffled, type Random } from '../../random';
import type { Content, Issue, KeyKind } from '../contract';
import { plainKey } from '../plainKey';
import { wholeComponent } from '../shared/credits';
import { severe } from '../shared/issues';
import type { OrderArrangement, OrderAsked, OrderKey } from './content';
import type { OrderResponse, OrderShown } from './response';
import { scoreOrder } from './score';
import { arrangementSchema, askedSchema, keySchema, responseSchema } from './schemas';

type OrderContent = Content<OrderAsked, OrderKey>;

const keysOf = ({ items }: OrderAsked) => items.map((item) => item.key);
const same = (a: readonly string[], b: readonly string[]) => a.join(' ') === b.join(' ');

function check({ asked, key }: OrderContent): Issue[] {
  const keys = keysOf(asked);
  if (new Set(keys).size !== keys.length || !same([...key.right].sort(), [...keys].sort()))
    return [severe(['key', 'right'], message('order.notEachOnce'))];
  const dealtRight = !asked.shuffle && same(key.right, keys);
  return dealtRight ? [severe(['asked', 'items'], message('order.alreadyRight'))] : [];
}

/** Dealt at random, but never in the right order: then the first item goes last. */
function arrange({ asked, key }: OrderContent, random: Random): string[] {
  if (!asked.shuffle) return keysOf(asked);
  const dealt = shuffled(keysOf(asked), random);
  return same(dealt, key.right) ? [...dealt.slice(1), dealt[0]!] : dealt;
}

export const orderKey: KeyKind<OrderAsked, OrderKey, OrderShown, OrderResponse, OrderArrangement> = {
  ...plainKey,
  name: 'order',
  asked: askedSchema,
  key: keySchema,
  response: responseSchema,
  arrangement: arrangementSchema,
  blank: () => ({
    asked: { items: ['a', 'b', 'c'].map((key) => ({ key, text: '' })), rule: 'rank', shuffle: true },
    key: { right: ['a', 'b', 'c'] },
  }),
  check,
  arrange,
  show: (asked, arrangement) => ({
    items: arrangement.map((key) => ({ key, text: asked.items.find((item) => item.key === key)!.text })),
    rule: asked.rule,
  }),
  components: (_, marks) => wholeComponent(marks),
  score: scoreOrder,
  rightResponse: ({ key }) => ({ sequence: [...key.right] }),
  facts: ({ content: { asked, key }, response: { sequence } }) =>
    sequence.length === 0
      ? []
      : [
          {
            component: 'whole',
            type: 'sequence',
            answer: sequence
              .map((one) => asked.items.find((item) => item.key === one)?.text ?? one)
              .join(' → '),
            right: same(sequence, key.right),
          },
        ],
};
