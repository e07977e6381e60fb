import { useId, useState } from 'react';
import type { Page } from '../../../core/files/pages';
import { MOST_DESK_PAGES, type UploadShown } from '../../../core/kinds/upload/response';
import { showMarks } from '../../../core/marks';
import { useBox } from '../../pages/useBox';
import { Button } from '../../ui/Button';
import { Notice } from '../../ui/Notice';
import { announce } from '../../ui/announce';
import { RichEditor } from '../shared/RichEditor';
import { AddPages } from './AddPages';
import { JoinPhone } from './JoinPhone';
import { PageCard } from './PageCard';
import { usePages, type UploadProps } from './usePages';
import { t } from './words';

/** Moves a page to another place among the others. */
function moved(pages: readonly Page[], from: number, to: number): Page[] {
  const rest = pages.filter((_, i) => i !== from);
  return [...rest.slice(0, to), pages[from]!, ...rest.slice(to)];
}

const QUARTER = { 0: 90, 90: 180, 180: 270, 270: 0 } as const;

function asked({ pagesFrom: from, pagesTo: to }: UploadShown): string {
  return from === to ? t('asked', { count: from }) : t('askedRange', { from, to });
}

/** Photographs or documents of work on paper, in their order; where the question allows it a text instead. */
export function Answer(props: UploadProps) {
  const { shown, response, onChange, files, phone, promptId, needId, target } = props;
  const { troubles, busy, put, read } = usePages(props, announce);
  const [removed, setRemoved] = useState<{ readonly page: Page; readonly at: number } | null>(null);
  const textId = useId();
  useBox(files);
  const { pages } = response;
  const full = pages.length >= MOST_DESK_PAGES;
  const actsOf = (page: Page, i: number) => ({
    earlier: i > 0 ? () => put(moved(pages, i, i - 1), t('moved', { number: i + 1, to: i })) : null,
    later:
      i < pages.length - 1
        ? () => put(moved(pages, i, i + 1), t('moved', { number: i + 1, to: i + 2 }))
        : null,
    turn:
      page.type === 'application/pdf'
        ? null
        : () =>
            put(
              pages.map((one) => (one === page ? { ...one, turn: QUARTER[one.turn] } : one)),
              t('turned', { number: i + 1 }),
            ),
    replace: (file: File) => void read([{ blob: file, name: file.name }], i),
    remove: () => {
      put(
        pages.filter((one) => one !== page),
        t('removed', { number: i + 1 }),
      );
      setRemoved({ page, at: i });
    },
  });
  const criteria = shown.criteria.map((c) => `${c.title} ${showMarks(c.hundredths)}`).join(', ');
  return (
    <div role="group" aria-labelledby={promptId} aria-describedby={needId}>
      <p className="mb-2 text-[0.92rem] text-soft">{asked(shown)}</p>
      <div className="flex flex-wrap items-center gap-2.5">
        <AddPages read={read} full={full} />
        {phone && <JoinPhone phone={phone} disabled={full} />}
        {removed && !pages.some((page) => page.hash === removed.page.hash) && (
          <Button
            look="quiet"
            className="min-h-11"
            onClick={() => {
              put(
                [...pages.slice(0, removed.at), removed.page, ...pages.slice(removed.at)],
                t('added', { number: removed.at + 1 }),
              );
              setRemoved(null);
            }}
          >
            {t('undo')}
          </Button>
        )}
        {busy && (
          <span role="status" className="text-soft">
            {t('adding')}
          </span>
        )}
      </div>
      {troubles.length > 0 && (
        <div className="mt-3 space-y-2">
          {troubles.map((trouble) => (
            <Notice key={trouble} tone="trouble">
              {trouble}
            </Notice>
          ))}
        </div>
      )}
      {pages.length > 0 && (
        <ol
          aria-label={t('pages')}
          className="mt-3 grid grid-cols-[repeat(auto-fill,minmax(min(9rem,100%),1fr))] gap-3"
        >
          {pages.map((page, i) => (
            <PageCard key={page.hash} box={files} page={page} number={i + 1} acts={actsOf(page, i)} />
          ))}
        </ol>
      )}
      {shown.text && (
        <div className="mt-4">
          <p id={textId} className="mb-1.5 font-semibold">
            {t('orType')}
          </p>
          <RichEditor
            text={response.text}
            onChange={(text) => onChange({ ...response, text })}
            rich
            height="min-h-36"
            labelledBy={textId}
            describedBy={needId}
            target={target}
          />
        </div>
      )}
      <p className="mt-1.5 text-[0.85rem] text-soft">{t('judged', { criteria })}</p>
    </div>
  );
}
