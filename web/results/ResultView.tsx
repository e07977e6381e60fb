import { useEffect, useRef, type ReactNode } from 'react';
import { Link } from 'react-router';
import type { ResultSheet } from '../../core/results/resultSheet';
import { get } from '../api/client';
import { Files, resultFiles } from '../media/fileSource';
import { ownPages, PageSourceContext } from '../pages/pageSource';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { showDay, showMoment } from '../ui/times';
import { useLoaded } from '../ui/useAsync';
import { FileDown, MessageCircleQuestion, Printer } from './resultIcons';
import { ResultChecks, useChecks } from './ResultChecks';
import { ReviewQuestions } from './ReviewQuestions';
import { loadReadings, SheetBody } from './SheetBody';
import { t } from './sheetWords';
import { PageHeading } from '../ui/PageHeading';

async function load(attempt: number | null): Promise<ResultSheet> {
  const sheet = await get<ResultSheet>(attempt === null ? '/result' : `/result/attempts/${attempt}`);
  await loadReadings(sheet);
  return sheet;
}

interface Props {
  readonly practice: string | null;
  /** The one attempt whose sheet is shown; null for the result. */
  readonly attempt: number | null;
  /** The address of the candidate's page. */
  readonly home: string;
  /** What stands below: the receipt, and what can be answered. */
  readonly children?: ReactNode;
  /** Another text whenever the result has changed; null before the first is known. */
  readonly marked: string | null;
}

/**
 * The result sheet: everything a candidate is told, on one page, and the same as a PDF. `practice` is where its questions
 * can be practised; null where they cannot.
 */
export function ResultView({ practice, attempt, home, marked, children }: Props) {
  const [loaded, , replace] = useLoaded(`result ${attempt}`, () => load(attempt));
  // A result that changes while it is read is shown as it is then; one that cannot be had stays.
  const first = useRef(marked);
  useEffect(() => {
    first.current ??= marked;
    if (marked === null || marked === first.current) return;
    first.current = marked;
    void load(attempt).then(replace, () => undefined);
  }, [attempt, marked, replace]);
  const [checks, setChecks] = useChecks();
  if (loaded.state === 'loading') return <p className="text-soft">{t('loading')}</p>;
  if (loaded.state === 'trouble') return <Notice tone="trouble">{loaded.message}</Notice>;
  const sheet = loaded.value;
  return (
    <div className="mx-auto max-w-[1010px]">
      {attempt !== null && (
        <p className="no-print mb-3">
          <Link to={`${home}?go`} className="text-slate underline">
            {t('toAll')}
          </Link>
        </p>
      )}
      <div className="mb-4 flex flex-wrap items-start gap-3">
        <div className="min-w-0 flex-1">
          <PageHeading context={sheet.title} className="font-serif text-[1.9rem] leading-tight font-semibold">
            {attempt === null
              ? sheet.candidate.name
              : t('attemptOf', { name: sheet.candidate.name, attempt })}
          </PageHeading>
          <p className="text-soft">
            {t('facts', { title: sheet.title, when: showMoment(sheet.handedInAt, sheet.timeZone) })} ·{' '}
            <b className={sheet.state === 'confirmed' ? 'text-kelp' : 'text-marigold'}>{t(sheet.state)}</b>{' '}
            {showDay(sheet.releasedAt, sheet.timeZone)}
          </p>
        </div>
        <div className="no-print flex flex-wrap gap-2.5">
          {practice !== null && attempt === null && (
            <Link
              to={practice}
              className="inline-flex min-h-11 items-center rounded-control border border-line bg-card px-3.5 hover:border-edge"
            >
              {t('practise')}
            </Link>
          )}
          {checks && attempt === null && (
            <a
              href="#check"
              className="inline-flex min-h-11 items-center gap-2 rounded-control border border-line bg-card px-3.5 hover:border-edge"
            >
              <MessageCircleQuestion aria-hidden className="size-5" /> {t('check')}
            </a>
          )}
          <Button onClick={() => window.print()} className="min-h-11">
            <Printer aria-hidden className="size-5" /> {t('print')}
          </Button>
          {attempt === null && (
            <a
              href="/api/result.pdf"
              className="inline-flex min-h-11 items-center gap-2 rounded-control border border-line bg-card px-3.5 hover:border-edge"
            >
              <FileDown aria-hidden className="size-5" /> {t('pdf')}
            </a>
          )}
        </div>
      </div>
      <Files value={resultFiles}>
        <PageSourceContext value={ownPages}>
          <SheetBody
            sheet={sheet}
            provisional={sheet.state === 'provisional'}
            sheetOf={(one) => `${home}?sheet=${one}`}
            remarkFiles="/api/result/remark"
          />
        </PageSourceContext>
      </Files>
      {checks && attempt === null && <ResultChecks zone={sheet.timeZone} view={checks} onView={setChecks} />}
      {attempt === null && <ReviewQuestions />}
      <p className="mt-4 text-[0.9rem] text-soft">{t('receipt', { code: sheet.receipt })}</p>
      {attempt === null && children}
    </div>
  );
}
