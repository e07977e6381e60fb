import { MOST_PAGE_BYTES, pageTypes } from '../../files/pages';
import { numberedText } from '../../marking/notesInText';
import { message } from '../../messages/message';
import { plainCandidate, type CandidateKind, type Progress } from '../contract';
import { emptyRich, richAsText, textAlone, wordsOf } from '../shared/richText';
import type { UploadResponse, UploadShown } from './response';

const wordsIn = ({ text }: UploadResponse) => wordsOf(text);

function progress(shown: UploadShown, response: UploadResponse): Progress {
  const { pagesFrom: from, pagesTo: to } = shown;
  const count = response.pages.length;
  if (count > to) return { state: 'part', missing: message('upload.over', { count: count - to, to }) };
  if (count >= from || wordsIn(response) > 0) return { state: 'done', missing: null };
  if (count > 0) return { state: 'part', missing: message('upload.short', { count: from - count, from }) };
  return { state: 'empty', missing: message(shown.text ? 'upload.emptyOrType' : 'upload.empty') };
}

export const upload: CandidateKind<UploadShown, UploadResponse> = {
  ...plainCandidate,
  name: 'upload',
  empty: () => ({ pages: [], joined: 0, text: emptyRich }),
  misfit: ({ text }, response) => {
    const { pages } = response;
    const twice = new Set(pages.map((page) => page.hash)).size < pages.length;
    const large = pages.some((page) => page.bytes > MOST_PAGE_BYTES);
    const typed = !text && wordsIn(response) > 0;
    return twice || large || typed ? message('upload.misfit') : null;
  },
  fitting: ({ text: mayType }, { pages, joined, text }) => ({
    pages: pages.filter(
      ({ hash, bytes }, i) => bytes <= MOST_PAGE_BYTES && pages.findIndex((one) => one.hash === hash) === i,
    ),
    joined,
    text: mayType ? text : emptyRich,
  }),
  progress,
  describe: (_, { pages, text }, say) => {
    const told = pages.length > 0 ? say(message('upload.pages', { count: pages.length })) : '';
    return {
      form: pages.length > 0 ? 'pages' : 'words',
      text: [told, richAsText(text)].filter((one) => one !== '').join('\n\n'),
    };
  },
  withNotes: (response, notes, mark) => ({
    ...response,
    text: numberedText(response.text, notes, mark),
  }),
  compared: (_, { text }) => ({ form: 'words', text: textAlone(text), given: [] }),
  takePages: (response, joined) => {
    if (joined.length <= response.joined) return response;
    const known = new Set(response.pages.map((page) => page.hash));
    const news = joined.slice(response.joined).filter((page) => !known.has(page.hash));
    return {
      ...response,
      pages: [...response.pages, ...news],
      joined: joined.length,
    };
  },
  files: ({ pages }) => pages.map(({ hash, bytes }) => ({ hash, bytes })),
  turnOf: ({ pages }, file) => pages.find(({ hash }) => hash === file)?.turn ?? 0,
  fileRules: ({ pagesTo }) => ({ types: pageTypes, most: pagesTo, bytes: MOST_PAGE_BYTES }),
};
