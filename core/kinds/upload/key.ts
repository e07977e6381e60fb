import { message } from '../../messages/message';
import type { Fact, KeyKind } from '../contract';
import { plainKey } from '../plainKey';
import { severe } from '../shared/issues';
import { wordsOf } from '../shared/richText';
import { blankRubric, copyOfCriteria, issuesOfRubric, rubricComponents } from '../shared/rubric';
import type { UploadAsked, UploadKey } from './content';
import type { UploadResponse, UploadShown } from './response';
import { askedSchema, keySchema, responseSchema } from './schemas';

export const uploadKey: KeyKind<UploadAsked, UploadKey, UploadShown, UploadResponse, null> = {
  ...plainKey,
  name: 'upload',
  asked: askedSchema,
  key: keySchema,
  response: responseSchema,
  documents: ['key.rubric.scheme', 'key.rubric.modelAnswer'],
  blank: () => ({
    asked: { pagesFrom: 1, pagesTo: 4, text: false, criteria: [{ title: '', hundredths: 100 }] },
    key: { rubric: blankRubric() },
  }),
  check: ({ asked, key }, { marks }) => [
    ...issuesOfRubric(key.rubric, asked.criteria, marks),
    ...(asked.pagesFrom > asked.pagesTo
      ? [severe(['asked', 'pagesFrom'], message('upload.pagesCross'))]
      : []),
  ],
  arrange: () => null,
  show: ({ pagesFrom, pagesTo, text, criteria }) => ({
    pagesFrom,
    pagesTo,
    text,
    criteria: copyOfCriteria(criteria),
  }),
  components: ({ key }) => rubricComponents(key.rubric),
  markScheme: ({ key }) => key.rubric.scheme,
  modelAnswer: ({ key }) => key.rubric.modelAnswer ?? null,
  score: () => [],
  rightResponse: () => null,
  facts: ({ content: { key }, response: { pages, text } }) => {
    const component = key.rubric.criteria[0]!.key;
    const fact = (type: Fact['type'], count: number): Fact[] =>
      count === 0 ? [] : [{ component, type, answer: String(count), right: null }];
    return [...fact('figure', pages.length), ...fact('words', wordsOf(text))];
  },
};
