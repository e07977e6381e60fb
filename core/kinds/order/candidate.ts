import { message } from '../../messages/message';
import { plainCandidate, type CandidateKind } from '../contract';
import type { OrderResponse, OrderShown } from './response';

function misfit(shown: OrderShown, { sequence }: OrderResponse) {
  const known = sequence.every((key) => shown.items.some((item) => item.key === key));
  const each = new Set(sequence).size === sequence.length;
  const all = sequence.length === 0 || sequence.length === shown.items.length;
  return known && each && all ? null : message('order.misfit');
}

const RULES = { exact: 'order.ruleExact', pairs: 'order.rulePairs', rank: 'order.ruleRank' };

export const order: CandidateKind<OrderShown, OrderResponse> = {
  ...plainCandidate,
  name: 'order',
  empty: () => ({ sequence: [] }),
  misfit,
  progress: (_, { sequence }) =>
    sequence.length === 0
      ? { state: 'empty', missing: message('order.empty') }
      : { state: 'done', missing: null },
  rule: (shown) => message(RULES[shown.rule]),
  describe: (shown, { sequence }) => {
    const textOf = (key: string) => shown.items.find((item) => item.key === key)?.text ?? key;
    return { form: 'list', text: sequence.map((key, i) => `${i + 1}. ${textOf(key)}`).join('\n') };
  },
};
