import { phrasesIn } from '../../documents/phrasesIn';
import { message } from '../../messages/message';
import type { Content, Fact, Issue, KeyKind, Place } from '../contract';
import { plainKey } from '../plainKey';
import { hasTwice, keysOf } from '../shared/entries';
import { severe } from '../shared/issues';
import { issuesOfPhrases } from '../shared/phrases';
import type { SelectTextAsked, SelectTextKey } from './content';
import { chosenOf, type SelectTextResponse, type SelectTextShown } from './response';
import { passageComponents, scoreSelectText } from './score';
import { askedSchema, keySchema, responseSchema } from './schemas';

type SelectContent = Content<SelectTextAsked, SelectTextKey>;
type Passage = SelectTextAsked['passages'][number];

function checkPassage(passage: Passage, { right }: SelectTextKey, place: Place, at: number): Issue[] {
  const path = ['asked', 'passages', at];
  const keys = keysOf(passage.phrases);
  const issues = passage.body
    ? keys
        .filter((key) => !phrasesIn([passage.body!]).some(({ name }) => name === key))
        .map((key) => severe([...path, 'phrases'], message('select-text.noPhrase', { key })))
    : issuesOfPhrases(keys, place, [...path, 'phrases']);
  if (passage.limit !== null && passage.limit > keys.length)
    issues.push(severe([...path, 'limit'], message('select-text.limitTooLarge')));
  if (!keys.some((key) => right.includes(key)))
    issues.push(severe(['key', 'right'], message('select-text.noneRight', { title: passage.title })));
  return issues;
}

function check({ asked, key }: SelectContent, place: Place): Issue[] {
  const phrases = asked.passages.flatMap((passage) => keysOf(passage.phrases));
  const issues = asked.passages.flatMap((passage, i) => checkPassage(passage, key, place, i));
  if (hasTwice(keysOf(asked.passages)) || hasTwice(phrases))
    issues.push(severe(['asked', 'passages'], message('author.sameKey')));
  if (hasTwice(key.right) || key.right.some((one) => !phrases.includes(one)))
    issues.push(severe(['key', 'right'], message('select-text.rightUnknown')));
  return issues;
}

/** As many right ones as a passage takes. */
const rightOf = ({ asked, key }: SelectContent): string[] =>
  asked.passages.flatMap(({ phrases, limit }) =>
    keysOf(phrases)
      .filter((one) => key.right.includes(one))
      .slice(0, limit ?? undefined),
  );

export const selectTextKey: KeyKind<
  SelectTextAsked,
  SelectTextKey,
  SelectTextShown,
  SelectTextResponse,
  null
> = {
  ...plainKey,
  name: 'select-text',
  asked: askedSchema,
  key: keySchema,
  response: responseSchema,
  documents: ['asked.passages.*.body'],
  blank: () => ({
    asked: {
      passages: [
        {
          key: 'a',
          title: '',
          body: ':phrase[…]{#x} :phrase[…]{#y}',
          limit: 1,
          phrases: ['x', 'y'].map((key) => ({ key, text: '' })),
        },
      ],
    },
    key: { right: ['x'] },
  }),
  check,
  arrange: () => null,
  show: ({ passages }) => ({
    passages: passages.map(({ key, title, body, limit, phrases }) => ({
      key,
      title,
      body,
      limit,
      phrases: phrases.map((phrase) => ({ key: phrase.key, text: phrase.text })),
    })),
  }),
  components: ({ asked }, marks) => passageComponents(asked, marks),
  score: scoreSelectText,
  rightResponse: (content) => ({ chosen: rightOf(content) }),
  facts: ({ content: { asked, key }, response }) =>
    asked.passages.flatMap((passage) =>
      chosenOf(passage, response).map((phrase): Fact => ({
        component: passage.key,
        type: 'option',
        answer: phrase.text,
        right: key.right.includes(phrase.key),
      })),
    ),
};
