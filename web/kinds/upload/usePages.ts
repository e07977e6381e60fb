import { useEffect, useRef, useState } from 'react';
import type { Page } from '../../../core/files/pages';
import { MOST_DESK_PAGES, type UploadResponse, type UploadShown } from '../../../core/kinds/upload/response';
import type { PageBox } from '../../pages/pageBox';
import { PageProblem, pageOfFile, type PageFile } from '../../pages/pageFile';
import type { AnswerProps } from '../answerProps';
import { t } from './words';

/** Where a part takes pages there is a place to keep them. */
export type UploadProps = AnswerProps<UploadShown, UploadResponse> & { readonly files: PageBox };

const REFUSALS = {
  empty: 'empty',
  noPage: 'noPage',
  unreadable: 'unreadableFile',
  heic: 'heic',
  pdfTooLarge: 'pdfTooLarge',
  tooLarge: 'tooLarge',
} as const;

const wordsFor = (error: unknown, name: string): string =>
  t(REFUSALS[error instanceof PageProblem ? error.refusal : 'unreadable'], { name });

/** What is done with pages; `response` is asked for again, because files take their time to be read. */
export function usePages({ files, onChange, response }: UploadProps, announce: (text: string) => void) {
  const [troubles, setTroubles] = useState<readonly string[]>([]);
  const [busy, setBusy] = useState(false);
  const latestRef = useRef(response);
  useEffect(() => {
    latestRef.current = response;
  });
  const put = (pages: readonly Page[], words: string) => {
    latestRef.current = { ...latestRef.current, pages: [...pages] };
    onChange(latestRef.current);
    announce(words);
  };
  const keep = async (made: PageFile): Promise<string | null> => {
    if (latestRef.current.pages.some((page) => page.hash === made.page.hash)) return t('same');
    return (await files.keep(made)) ? null : t('notKept');
  };
  const read = async (all: readonly { readonly blob: Blob; readonly name: string }[], at: number | null) => {
    setBusy(true);
    const found: string[] = [];
    for (const { blob, name } of all) {
      if (at === null && latestRef.current.pages.length >= MOST_DESK_PAGES) {
        found.push(t('full', { count: MOST_DESK_PAGES }));
        break;
      }
      try {
        const made = await pageOfFile(blob);
        const trouble = await keep(made);
        if (trouble) found.push(trouble);
        if (trouble === t('same')) continue;
        const { pages } = latestRef.current;
        const number = at === null ? pages.length + 1 : at + 1;
        const next =
          at === null ? [...pages, made.page] : pages.map((page, i) => (i === at ? made.page : page));
        put(next, t('added', { number }));
      } catch (error) {
        found.push(wordsFor(error, name));
      }
    }
    setTroubles(found);
    setBusy(false);
  };
  return { troubles, busy, put, read };
}
