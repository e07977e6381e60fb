import { message } from '../../messages/message';
import { shuffled } from '../../random';
import type { Content, Issue, KeyKind } from '../contract';
import { plainKey } from '../plainKey';
import { inOrderOf } from '../shared/entries';
import { severe } from '../shared/issues';
import { wholeComponent } from '../shared/credits';
import type { ChoiceArrangement, ChoiceAsked, ChoiceKey } from './content';
import type { ChoiceResponse, ChoiceShown } from './response';
import { scoreChoice } from './score';
import { arrangementSchema, askedSchema, keySchema, responseSchema, strikeSchema } from './schemas';

function check({ asked, key }: Content<ChoiceAsked, ChoiceKey>): Issue[] {
  const keys = asked.options.map((o) => o.key);
  const issues: Issue[] = [];
  if (new Set(keys).size !== keys.length)
    issues.push(severe(['asked', 'options'], message('choice.sameKey')));
  if (!key.right.every((one) => keys.includes(one)) || new Set(key.right).size !== key.right.length)
    issues.push(severe(['key', 'right'], message('choice.rightMissing')));
  if (asked.mode === 'one' && key.right.length !== 1)
    issues.push(severe(['key', 'right'], message('choice.oneRight')));
  if (asked.choose !== null && asked.choose > keys.length)
    issues.push(severe(['asked', 'choose'], message('choice.chooseTooMany')));
  if (asked.mode === 'several' && asked.choose !== null && asked.choose < key.right.length)
    issues.push(severe(['asked', 'choose'], message('choice.chooseTooFew')));
  // Who chooses as many as the page asks for would have to choose a wrong one.
  if (asked.mode === 'several' && asked.choose !== null && asked.choose > key.right.length)
    issues.push(severe(['asked', 'choose'], message('choice.chooseBeyondRight')));
  return issues;
}

export const choiceKey: KeyKind<ChoiceAsked, ChoiceKey, ChoiceShown, ChoiceResponse, ChoiceArrangement> = {
  ...plainKey,
  name: 'choice',
  documents: ['asked.options.*.body'],
  asked: askedSchema,
  key: keySchema,
  response: responseSchema,
  events: { strike: strikeSchema },
  arrangement: arrangementSchema,
  blank: () => ({
    asked: {
      options: ['a', 'b', 'c', 'd'].map((key) => ({ key, text: '' })),
      mode: 'one',
      choose: null,
      rule: 'each',
      penalty: null,
      shuffle: true,
    },
    key: { right: [] },
  }),
  check,
  arrange: ({ asked }, random) => {
    const keys = asked.options.map((o) => o.key);
    return asked.shuffle ? shuffled(keys, random) : keys;
  },
  show: (asked, arrangement) => ({
    options: inOrderOf(asked.options, arrangement).map(({ key, text, body }) =>
      body ? { key, text, body } : { key, text },
    ),
    mode: asked.mode,
    choose: asked.choose,
    rule: asked.rule,
    costs: asked.penalty !== null,
  }),
  components: (_, marks) => wholeComponent(marks),
  score: scoreChoice,
  rightResponse: ({ key }, arrangement) => ({ chosen: arrangement.filter((one) => key.right.includes(one)) }),
  facts: ({ content: { asked, key }, response: { chosen } }) =>
    chosen.map((one) => ({
      component: 'whole',
      type: 'option' as const,
      answer: asked.options.find((o) => o.key === one)?.text ?? one,
      right: key.right.includes(one),
    })),
};
