import { message } from '../../messages/message';
import { plainCandidate, type CandidateKind, type Progress } from '../contract';
import { hasTwice, keysOf, knownOnce } from '../shared/entries';
import { chosenOf, type SelectTextResponse, type SelectTextShown } from './response';

/** Done when every passage has as many as it takes; one without a limit needs one at least. */
function progress({ passages }: SelectTextShown, response: SelectTextResponse): Progress {
  const open = passages
    .map((passage) => ({ passage, count: (passage.limit ?? 1) - chosenOf(passage, response).length }))
    .filter(({ count }) => count > 0);
  if (response.chosen.length === 0) return { state: 'empty', missing: message('select-text.empty') };
  const [first] = open;
  if (!first) return { state: 'done', missing: null };
  const { count, passage } = first;
  return { state: 'part', missing: message('select-text.more', { count, title: passage.title }) };
}

function misfit({ passages }: SelectTextShown, response: SelectTextResponse) {
  const known = passages.flatMap(({ phrases }) => phrases.map(({ key }) => key));
  if (response.chosen.some((key) => !known.includes(key))) return message('select-text.unknown');
  if (hasTwice(response.chosen)) return message('select-text.twice');
  const full = passages.find((one) => one.limit !== null && chosenOf(one, response).length > one.limit);
  return full ? message('select-text.tooMany', { title: full.title, count: full.limit! }) : null;
}

export const selectText: CandidateKind<SelectTextShown, SelectTextResponse> = {
  ...plainCandidate,
  name: 'select-text',
  empty: () => ({ chosen: [] }),
  misfit,
  fitting: ({ passages }, { chosen }) => ({
    chosen: knownOnce(
      chosen,
      passages.flatMap(({ phrases }) => keysOf(phrases)),
    ),
  }),
  progress,
  guessing: ({ passages }) => (passages.every(({ limit }) => limit !== null) ? 'free' : 'within'),
  rule: ({ passages }) =>
    message(passages.every(({ limit }) => limit !== null) ? 'select-text.ruleLimit' : 'select-text.ruleOpen'),
  describe: ({ passages }, response) => ({
    form: 'list',
    text: passages
      .map((passage) => ({ passage, chosen: chosenOf(passage, response) }))
      .filter(({ chosen }) => chosen.length > 0)
      .map(({ passage, chosen }) => `${passage.title}: ${chosen.map(({ text }) => `“${text}”`).join('; ')}`)
      .join('\n'),
  }),
};
