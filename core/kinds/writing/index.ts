import { plainKind, type Kind, type Progress } from '../contract';
import { countWords, emptyRich, richAsText } from '../shared/richText';
import { plural, unanswered } from '../shared/scores';
import {
  contentSchema,
  responseSchema,
  type WritingContent,
  type WritingResponse,
  type WritingShown,
} from './content';

function progress(shown: WritingShown, { text }: WritingResponse): Progress {
  const words = countWords(richAsText(text));
  if (words === 0) return { state: 'empty', missing: 'Nothing is written yet' };
  const [from, to] = [shown.wordsFrom ?? 0, shown.wordsTo ?? Infinity];
  if (words < from)
    return { state: 'part', missing: `${plural(from - words, 'word', 'words')} short of ${from}` };
  if (words > to) return { state: 'part', missing: `${plural(words - to, 'word', 'words')} over ${to}` };
  return { state: 'done', missing: null };
}

const top = (levels: readonly { hundredths: number }[]) =>
  Math.max(...levels.map((level) => level.hundredths));

export const writing: Kind<WritingContent, WritingShown, WritingResponse> = {
  ...plainKind,
  name: 'writing',
  judge: 'people',
  content: contentSchema,
  response: responseSchema,
  show: (c) => ({
    format: c.format,
    wordsFrom: c.wordsFrom,
    wordsTo: c.wordsTo,
    criteria: c.rubric.criteria.map(({ title, levels }) => ({ title, hundredths: top(levels) })),
  }),
  empty: () => ({ text: emptyRich }),
  misfit: () => null,
  progress,
  // People give the marks; the machine only knows that nothing was written.
  score: () => unanswered,
  asText: (_, { text }) => richAsText(text),
  rightAnswer: () => null,
  statistics: (_, { text }) => [`words:${countWords(richAsText(text))}`],
  rubric: (c) => c.rubric,
};
