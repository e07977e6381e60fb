import { message } from '../../messages/message';
import type { Content, Issue, KeyKind, Place } from '../contract';
import { plainKey } from '../plainKey';
import { severe } from '../shared/issues';
import { wordsOf } from '../shared/richText';
import { blankRubric, copyOfCriteria, issuesOfRubric, rubricComponents } from '../shared/rubric';
import type { WritingAsked, WritingKey } from './content';
import type { WritingResponse, WritingShown } from './response';
import { askedSchema, keySchema, responseSchema } from './schemas';

function check({ asked, key }: Content<WritingAsked, WritingKey>, { marks }: Place): Issue[] {
  const issues = issuesOfRubric(key.rubric, asked.criteria, marks);
  if (asked.wordsFrom !== null && asked.wordsTo !== null && asked.wordsFrom > asked.wordsTo)
    issues.push(severe(['asked', 'wordsFrom'], message('writing.wordsCross')));
  if (asked.limit === 'hard' && asked.wordsTo === null)
    issues.push(severe(['asked', 'limit'], message('writing.noLimit')));
  return issues;
}

export const writingKey: KeyKind<WritingAsked, WritingKey, WritingShown, WritingResponse, null> = {
  ...plainKey,
  name: 'writing',
  asked: askedSchema,
  key: keySchema,
  response: responseSchema,
  blank: () => ({
    asked: {
      format: 'rich',
      wordsFrom: null,
      wordsTo: null,
      limit: 'soft',
      criteria: [{ title: '', hundredths: 100 }],
    },
    key: { rubric: blankRubric() },
  }),
  documents: ['key.rubric.scheme', 'key.rubric.modelAnswer'],
  check,
  arrange: () => null,
  show: ({ format, wordsFrom, wordsTo, limit, criteria }) => ({
    format,
    wordsFrom,
    wordsTo,
    limit,
    criteria: copyOfCriteria(criteria),
  }),
  components: ({ key }) => rubricComponents(key.rubric),
  markScheme: ({ key }) => key.rubric.scheme,
  modelAnswer: ({ key }) => key.rubric.modelAnswer ?? null,
  score: () => [],
  rightResponse: () => null,
  facts: ({ content: { key }, response: { text } }) => {
    const words = wordsOf(text);
    const component = key.rubric.criteria[0]!.key;
    return words === 0 ? [] : [{ component, type: 'words', answer: String(words), right: null }];
  },
};
