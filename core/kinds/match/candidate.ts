import { message } from '../../messages/message';
import { plainCandidate, type CandidateKind, type Progress } from '../contract';
import { hasTwice, keysOf, textOf } from '../shared/entries';
import type { MatchResponse, MatchShown } from './response';

function progress({ left, leftOver }: MatchShown, { pairs }: MatchResponse): Progress {
  const open = left.filter(({ key }) => pairs[key] === undefined);
  const count = open.length;
  if (count === left.length) return { state: 'empty', missing: message('match.empty', { count }) };
  if (count === 0 || leftOver) return { state: 'done', missing: null };
  return { state: 'part', missing: message('match.open', { count, text: open[0]!.text }) };
}

function misfit({ left, right, once }: MatchShown, { pairs }: MatchResponse) {
  const [from, to] = [keysOf(left), keysOf(right)];
  for (const [one, partner] of Object.entries(pairs))
    if (!from.includes(one) || !to.includes(partner)) return message('match.unknown');
  return once && hasTwice(Object.values(pairs)) ? message('match.twice') : null;
}

export const match: CandidateKind<MatchShown, MatchResponse> = {
  ...plainCandidate,
  name: 'match',
  empty: () => ({ pairs: {} }),
  misfit,
  fitting: ({ left, right }, { pairs }) => ({
    pairs: Object.fromEntries(
      Object.entries(pairs).filter(
        ([one, partner]) => keysOf(left).includes(one) && keysOf(right).includes(partner),
      ),
    ),
  }),
  progress,
  guessing: ({ leftOver }) => (leftOver ? 'within' : 'free'),
  rule: ({ leftOver }) => message(leftOver ? 'match.ruleLeftOver' : 'match.rule'),
  describe: ({ left, right }, { pairs }) => ({
    form: 'list',
    text: left
      .filter(({ key }) => pairs[key] !== undefined)
      .map(({ key, text }) => `${text} – ${textOf(right, pairs[key]!)}`)
      .join('\n'),
  }),
};
