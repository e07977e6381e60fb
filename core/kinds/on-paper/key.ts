import { message } from '../../messages/message';
import type { KeyKind } from '../contract';
import { plainKey } from '../plainKey';
import { severe } from '../shared/issues';
import { blankRubric, copyOfCriteria, issuesOfRubric, rubricComponents } from '../shared/rubric';
import type { OnPaperAsked, OnPaperKey } from './content';
import type { OnPaperResponse, OnPaperShown } from './response';
import { askedSchema, keySchema, responseSchema } from './schemas';

export const onPaperKey: KeyKind<OnPaperAsked, OnPaperKey, OnPaperShown, OnPaperResponse, null> = {
  ...plainKey,
  name: 'on-paper',
  asked: askedSchema,
  key: keySchema,
  response: responseSchema,
  documents: ['asked.sheet', 'key.rubric.scheme', 'key.rubric.modelAnswer'],
  blank: () => ({
    asked: { sheet: '', criteria: [{ title: '', hundredths: 100 }] },
    key: { rubric: blankRubric() },
  }),
  check: ({ asked, key }, { marks }) => [
    ...issuesOfRubric(key.rubric, asked.criteria, marks),
    ...(asked.sheet.blocks.length === 0 ? [severe(['asked', 'sheet'], message('on-paper.noSheet'))] : []),
  ],
  arrange: () => null,
  show: ({ sheet, criteria }) => ({ sheet, criteria: copyOfCriteria(criteria) }),
  components: ({ key }) => rubricComponents(key.rubric),
  markScheme: ({ key }) => key.rubric.scheme,
  modelAnswer: ({ key }) => key.rubric.modelAnswer ?? null,
  score: () => [],
  rightResponse: () => null,
  facts: ({ content: { key }, response: { done } }) =>
    done ? [{ component: key.rubric.criteria[0]!.key, type: 'option', answer: 'done', right: null }] : [],
};
