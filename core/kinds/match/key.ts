import { message } from '../../messages/message';
import { shuffled } from '../../random';
import type { Content, Fact, Issue, KeyKind } from '../contract';
import { plainKey } from '../plainKey';
import { hasTwice, inOrderOf, keysOf, textOf } from '../shared/entries';
import { severe } from '../shared/issues';
import type { MatchArrangement, MatchAsked, MatchKey } from './content';
import type { MatchResponse, MatchShown } from './response';
import { pairComponents, scoreMatch } from './score';
import { arrangementSchema, askedSchema, keySchema, responseSchema } from './schemas';

type MatchContent = Content<MatchAsked, MatchKey>;

function check({ asked, key }: MatchContent): Issue[] {
  const [left, right] = [keysOf(asked.left), keysOf(asked.right)];
  const issues: Issue[] = [];
  if (hasTwice(left)) issues.push(severe(['asked', 'left'], message('author.sameKey')));
  if (hasTwice(right)) issues.push(severe(['asked', 'right'], message('author.sameKey')));
  for (const [one, partner] of Object.entries(key.pairs))
    if (!left.includes(one) || !right.includes(partner))
      issues.push(severe(['key', 'pairs', one], message('match.keyUnknown')));
  const partners = Object.values(key.pairs);
  if (partners.length === 0) issues.push(severe(['key', 'pairs'], message('match.nothingRight')));
  if (asked.once && hasTwice(partners)) issues.push(severe(['key', 'pairs'], message('match.keyTwice')));
  if (!asked.leftOver && left.some((one) => key.pairs[one] === undefined))
    issues.push(severe(['asked', 'leftOver'], message('match.someLeft')));
  return issues;
}

const facts = ({ asked, key }: MatchContent, { pairs }: MatchResponse): Fact[] =>
  keysOf(asked.left).flatMap((one): Fact[] => {
    const partner = pairs[one];
    if (partner === undefined) return [];
    const answer = textOf(asked.right, partner);
    return [{ component: one, type: 'option', answer, right: key.pairs[one] === partner }];
  });

export const matchKey: KeyKind<MatchAsked, MatchKey, MatchShown, MatchResponse, MatchArrangement> = {
  ...plainKey,
  name: 'match',
  asked: askedSchema,
  key: keySchema,
  response: responseSchema,
  arrangement: arrangementSchema,
  blank: () => ({
    asked: {
      left: [{ key: 'a', text: '' }],
      right: ['x', 'y'].map((key) => ({ key, text: '' })),
      once: true,
      leftOver: false,
      shuffle: true,
    },
    key: { pairs: {} },
  }),
  check,
  arrange: ({ asked }, random) => {
    const keys = keysOf(asked.right);
    return asked.shuffle ? shuffled(keys, random) : keys;
  },
  show: (asked, arrangement) => ({
    left: asked.left.map(({ key, text }) => ({ key, text })),
    right: inOrderOf(asked.right, arrangement).map(({ key, text }) => ({ key, text })),
    once: asked.once,
    leftOver: asked.leftOver,
  }),
  components: ({ asked }, marks) => pairComponents(asked, marks),
  score: scoreMatch,
  rightResponse: ({ key }) => ({ pairs: { ...key.pairs } }),
  facts: ({ content, response }) => facts(content, response),
};
