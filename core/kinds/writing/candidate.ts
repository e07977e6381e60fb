import { numberedText } from '../../marking/notesInText';
import { message } from '../../messages/message';
import { plainCandidate, type CandidateKind, type Progress } from '../contract';
import { emptyRich, richAsText, textAlone, wordsOf } from '../shared/richText';
import type { WritingResponse, WritingShown } from './response';

function progress(shown: WritingShown, { text }: WritingResponse): Progress {
  const words = wordsOf(text);
  if (words === 0) return { state: 'empty', missing: message('writing.empty') };
  const [from, to] = [shown.wordsFrom ?? 0, shown.wordsTo ?? Infinity];
  if (words < from)
    return { state: 'part', missing: message('writing.short', { count: from - words, from }) };
  if (words > to) return { state: 'part', missing: message('writing.over', { count: words - to, to }) };
  return { state: 'done', missing: null };
}

export const writing: CandidateKind<WritingShown, WritingResponse> = {
  ...plainCandidate,
  name: 'writing',
  empty: () => ({ text: emptyRich }),
  progress,
  describe: (_, { text }) => ({ form: 'words', text: richAsText(text) }),
  withNotes: (response, notes, mark) => ({
    ...response,
    text: numberedText(response.text, notes, mark),
  }),
  compared: (_, { text }) => ({ form: 'words', text: textAlone(text), given: [] }),
};
