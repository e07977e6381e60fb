import { Suspense, useState } from 'react';
import type { Page } from '../../../core/files/pages';
import { wordsOf } from '../../../core/kinds/shared/richText';
import type { UploadResponse, UploadShown } from '../../../core/kinds/upload/response';
import { LargePage, PdfPage } from '../../pages/LargePage';
import { PagePicture } from '../../pages/PagePicture';
import { useLoadedPage, usePageSource } from '../../pages/pageSource';
import { AnnotatedPage, useHasNotes } from '../../annotations/AnnotatedPage';
import { AnnotatedText } from '../../annotations/AnnotatedText';
import { words } from '../../words';
import type { ReadingProps } from '../answerProps';

const t = words('uploadReading', {
  nothing: 'Nothing was added.',
  count_one: '{{count}} page',
  count_other: '{{count}} pages',
  page: 'Page {{number}}',
  enlarge: 'Enlarge page {{number}}',
  missing: 'This page did not arrive.',
  loading: 'Opening the page …',
  trouble: 'The page could not be opened. Check your connection and reload this page.',
  typed: 'Typed',
});

function PageRead({ page, number }: { readonly page: Page; readonly number: number }) {
  const [large, setLarge] = useState(false);
  const annotated = useHasNotes(page.hash);
  const loaded = useLoadedPage(usePageSource(), page, null);
  const title = t('page', { number });
  if (loaded.is !== 'here')
    return (
      <p role="status" className={loaded.is === 'loading' ? 'text-soft' : 'text-marigold'}>
        {title}: {t(loaded.is)}
      </p>
    );
  if (annotated) return <AnnotatedPage page={page} loaded={loaded} title={title} />;
  if (page.type === 'application/pdf')
    return (
      <Suspense>
        <PdfPage page={page} loaded={loaded} title={title} />
      </Suspense>
    );
  return (
    <>
      <button
        type="button"
        aria-label={t('enlarge', { number })}
        onClick={() => setLarge(true)}
        className="block w-full overflow-hidden rounded-lg border border-line bg-card"
      >
        <PagePicture page={page} loaded={loaded} description={title} natural />
      </button>
      {large && <LargePage page={page} loaded={loaded} title={title} onClose={() => setLarge(false)} />}
    </>
  );
}

/** The pages as they were handed in, in their order and turned as the candidate turned them, and what was typed. */
export function Reading({ response }: ReadingProps<UploadShown, UploadResponse>) {
  const typed = wordsOf(response.text) > 0;
  if (response.pages.length === 0 && !typed) return <p className="text-soft">{t('nothing')}</p>;
  return (
    <div className="space-y-4">
      {response.pages.length > 0 && (
        <p className="text-[0.9rem] text-soft">{t('count', { count: response.pages.length })}</p>
      )}
      {response.pages.length > 0 && (
        <ol className="space-y-4">
          {response.pages.map((page, i) => (
            <li key={page.hash}>
              <p aria-hidden className="mb-1 text-[0.85rem] text-soft">
                {t('page', { number: i + 1 })}
              </p>
              <PageRead page={page} number={i + 1} />
            </li>
          ))}
        </ol>
      )}
      {typed && (
        <div className="font-serif text-[1.08em] leading-relaxed">
          <AnnotatedText node={response.text} />
        </div>
      )}
    </div>
  );
}
