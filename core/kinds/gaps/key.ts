import { message } from '../../messages/message';
import { normaliseText } from '../../text/compareText';
import type { Content, Issue, KeyKind } from '../contract';
import { plainKey } from '../plainKey';
import { hasTwice, isSameOption } from '../shared/entries';
import { severe } from '../shared/issues';
import type { GapsAsked, GapsKey } from './content';
import { filledIn } from './filled';
import type { GapsResponse, GapsShown } from './response';
import { gapComponents, isRightIn, scoreGaps } from './score';
import { askedSchema, keySchema, responseSchema } from './schemas';

type GapsContent = Content<GapsAsked, GapsKey>;
type Asked = GapsAsked['gaps'][number];

function checkGap({ text }: GapsAsked, { gaps: rules }: GapsKey, gap: Asked, place: number): Issue[] {
  const rule = rules[gap.key];
  const issues: Issue[] = [];
  if (text.split(`[[${gap.key}]]`).length !== 2)
    issues.push(severe(['asked', 'text'], message('gaps.notOnce', { gap: place + 1 })));
  if (rule?.by !== gap.by) return [...issues, severe(['key', 'gaps', gap.key], message('gaps.noRule'))];
  const known = (right: string) => gap.by === 'list' && gap.options.some((one) => isSameOption(one, right));
  if (rule.by === 'list' && !known(rule.right))
    issues.push(severe(['key', 'gaps', gap.key, 'right'], message('gaps.rightNotListed')));
  if (gap.by === 'list' && hasTwice(gap.options.map((one) => one.trim())))
    issues.push(severe(['asked', 'gaps', place, 'options'], message('gaps.sameOption')));
  if (rule.by === 'typing' && !rule.accepted.some(({ percent }) => percent === 100))
    issues.push(severe(['key', 'gaps', gap.key, 'accepted'], message('gaps.noFullMarks')));
  return issues;
}

function check({ asked, key }: GapsContent): Issue[] {
  const keys = asked.gaps.map((gap) => gap.key);
  const issues = asked.gaps.flatMap((gap, i) => checkGap(asked, key, gap, i));
  if (new Set(keys).size !== keys.length || Object.keys(key.gaps).some((one) => !keys.includes(one)))
    issues.push(severe(['asked', 'gaps'], message('gaps.keys')));
  return issues;
}

const showGap = (gap: Asked): GapsShown['gaps'][number] =>
  gap.by === 'list'
    ? { key: gap.key, by: 'list', options: [...gap.options] }
    : { key: gap.key, by: 'typing', oneWord: gap.oneWord };

/** The first accepted text of each gap that earns all its marks. */
const rightIn = (rule: GapsKey['gaps'][string]) =>
  rule.by === 'list' ? rule.right : rule.accepted.find(({ percent }) => percent === 100)!.text;

function accept({ key }: GapsContent, gap: string, answer: string): GapsKey | null {
  const rule = key.gaps[gap];
  if (rule?.by !== 'typing' || answer.trim() === '') return null;
  const accepted = [...rule.accepted, { text: answer, percent: 100 }];
  return { gaps: { ...key.gaps, [gap]: { ...rule, accepted } } };
}

export const gapsKey: KeyKind<GapsAsked, GapsKey, GapsShown, GapsResponse, null> = {
  ...plainKey,
  name: 'gaps',
  asked: askedSchema,
  key: keySchema,
  response: responseSchema,
  blank: () => ({
    asked: { text: '[[a]]', gaps: [{ key: 'a', by: 'typing', oneWord: false }] },
    key: {
      gaps: {
        a: {
          by: 'typing',
          accepted: [{ text: '', percent: 100 }],
          ignoreCase: true,
          ignoreAccents: false,
          slips: 0,
        },
      },
    },
  }),
  check,
  arrange: () => null,
  show: (asked) => ({ text: asked.text, gaps: asked.gaps.map(showGap) }),
  components: ({ asked }, marks) => gapComponents(asked, marks),
  score: scoreGaps,
  rightResponse: ({ asked, key }) => ({
    filled: Object.fromEntries(asked.gaps.map((gap) => [gap.key, rightIn(key.gaps[gap.key]!)])),
  }),
  facts: ({ content, response }) =>
    content.asked.gaps.flatMap((gap) => {
      const given = filledIn(response, gap.key);
      const rule = content.key.gaps[gap.key]!;
      const answer = rule.by === 'list' ? given : normaliseText(given, rule);
      const fact = { component: gap.key, type: rule.by === 'list' ? 'option' : 'text' } as const;
      return answer === '' ? [] : [{ ...fact, answer, right: isRightIn(content, gap.key, given) }];
    }),
  accept,
};
