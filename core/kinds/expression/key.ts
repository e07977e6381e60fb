import { isInForm } from '../../expressions/forms';
import { expressionAsText } from '../../expressions/toText';
import { readExpression } from '../../expressions/readExpression';
import { message } from '../../messages/message';
import { numberFormatOf } from '../../numbers/numberFormat';
import type { Issue, KeyKind } from '../contract';
import { plainKey } from '../plainKey';
import { wholeComponent } from '../shared/credits';
import { severe } from '../shared/issues';
import { isBlank } from './candidate';
import type { ExpressionAsked, ExpressionKey } from './content';
import type { ExpressionResponse, ExpressionShown } from './response';
import { comparisons, scoreExpression, withSign, type ExpressionContent } from './score';
import { askedSchema, keySchema, responseSchema } from './schemas';

/** Keys are written with a point, whatever the round's locale. */
const readingOfKey = ({ list, letters, functions }: ExpressionAsked) =>
  ({ decimal: '.', list, letters, functions }) as const;

function check({ asked, key }: ExpressionContent): Issue[] {
  const issues = key.accepted.flatMap(({ latex, percent }, i) => {
    const path = ['key', 'accepted', i, 'latex'];
    const read = readExpression(latex, readingOfKey(asked));
    if ('refused' in read)
      return [severe(path, message('expression.keyUnreadable', { latex, code: read.refused.code }))];
    const inForm =
      asked.form && percent === 100 && isInForm(asked.form, latex, readingOfKey(asked)).is === false;
    return inForm ? [severe(path, message('expression.keyOtherForm', { latex }))] : [];
  });
  if (!key.accepted.some(({ percent }) => percent === 100))
    issues.push(severe(['key', 'accepted'], message('expression.noFullMarks')));
  for (const [letter, { from, to }] of Object.entries(key.domain))
    if (from !== undefined && to !== undefined && from >= to)
      issues.push(severe(['key', 'domain', letter], message('expression.domain')));
  return issues;
}

export const expressionKey: KeyKind<
  ExpressionAsked,
  ExpressionKey,
  ExpressionShown,
  ExpressionResponse,
  null
> = {
  ...plainKey,
  name: 'expression',
  asked: askedSchema,
  key: keySchema,
  response: responseSchema,
  blank: () => ({
    asked: {
      before: '',
      after: '',
      tools: ['fractions', 'powers', 'brackets'],
      list: false,
      letters: [],
      functions: [],
      form: null,
    },
    key: { accepted: [{ latex: '', percent: 100, note: '' }], otherForm: 0, domain: {}, log: 10 },
  }),
  check,
  arrange: () => null,
  show: (asked, _, { locale }) => ({
    before: asked.before,
    after: asked.after,
    tools: [...asked.tools],
    form: asked.form,
    decimal: numberFormatOf(locale).decimal,
    list: asked.list,
    letters: [...asked.letters],
    functions: [...asked.functions],
  }),
  components: (_, marks) => wholeComponent(marks),
  evidence: ({ content, response, place }) =>
    comparisons(content, response, numberFormatOf(place.locale).decimal),
  score: scoreExpression,
  rightResponse: ({ key }, _, { locale }) => ({
    latex: withSign(
      key.accepted.find(({ percent }) => percent === 100)!.latex,
      numberFormatOf(locale).decimal,
    ),
  }),
  facts: ({ content: { asked }, response: { latex }, place: { locale } }) => {
    const { decimal } = numberFormatOf(locale);
    const answer = expressionAsText(latex, { ...readingOfKey(asked), decimal });
    return isBlank(latex) ? [] : [{ component: 'whole', type: 'expression', answer, right: null }];
  },
};
