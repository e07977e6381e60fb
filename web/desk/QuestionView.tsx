import { Flag } from 'lucide-react';
import { memo, startTransition, Suspense, useEffect, useMemo, useRef, useState } from 'react';
import { later } from '../ui/later';
import { isForward } from '../../core/papers/paper';
import { showClock } from '../../core/timing/pace';
import type { Question } from '../../core/papers/candidatePaper';
import { layoutOf } from '../kinds/answers';
import { InView } from '../media/inView';
import { useNarrow } from '../ui/useNarrow';
import { Notice } from '../ui/Notice';
import { Scroller } from '../ui/Scroller';
import { useDesk } from './DeskContext';
import { endedSections } from './deskStore';
import { marksWords } from './Rail';
import { lookOf, PageOf, samePage, type Laid, type LayoutProps, type Sheet } from './Pages';
import { t } from './words';
import { usePageTitle } from '../ui/PageHeading';

const SectionDoor = later(async () => (await import('./behind')).SectionDoor);
const BesideSource = later(async () => (await import('./BesideSource')).BesideSource);

/** One column: nothing stands beside it. */
const isColumn = ({ source, parts, sealed }: Question) =>
  !sealed && source === null && !parts.some((part) => layoutOf(part.kind) === 'whole');

/** At reading width, unless a part is drawn the better the wider it is. */
const columnOf = ({ parts }: Question): string =>
  parts.some((part) => layoutOf(part.kind) === 'wide') ? 'max-w-[62rem]' : 'max-w-[70ch]';

function Head({ question }: { question: Question }) {
  const flagged = useDesk((s) => s.desk.flags[question.item] === true);
  const toggleFlag = useDesk((s) => s.toggleFlag);
  const section = useDesk((s) => s.paper.sections.find((x) => x.key === question.section)!);
  /** What is left of a limit of its own, by the second. */
  const sectionLeft = useDesk((s) => {
    const end = s.time.sectionEnds[question.section];
    return end === undefined || s.clockHidden ? null : showClock(end - s.now);
  });
  const narrow = useNarrow();
  const paperTitle = useDesk((s) => s.paper.title);
  usePageTitle(t('question', { number: question.number }), paperTitle);
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    // On a page with several questions, whoever works in one stays where they are.
    if (document.activeElement?.closest(`[data-question='${question.item}']`)) return;
    heading.current?.focus({ preventScroll: true });
    // In a low window the page itself scrolls.
    window.scrollTo(0, 0);
  }, [question.item]);
  return (
    <div className="px-4 pt-3 pb-2 desk:px-7 desk:pt-3.5">
      <div className={`flex items-center gap-3 ${isColumn(question) ? `mx-auto ${columnOf(question)}` : ''}`}>
        <div className="flex min-w-0 flex-1 flex-wrap items-baseline gap-x-3">
          <h1
            ref={heading}
            tabIndex={-1}
            className="font-serif text-[1.35rem] font-semibold outline-none desk:text-[1.5rem]"
          >
            {t('question', { number: question.number })}
          </h1>
          <span className="text-[0.95rem] text-soft">
            {sectionLeft !== null && (
              <b className="text-ink">{t('sectionLeft', { clock: sectionLeft })} · </b>
            )}
            {marksWords(question.marks)}
            <span className="hidden desk:inline">
              {' '}
              · {section.key} {section.title} · {question.sealed ? t('sealedTitle') : question.title}
            </span>
          </span>
        </div>
        {!narrow && (
          <button
            type="button"
            aria-pressed={flagged}
            onClick={toggleFlag}
            className={`inline-flex min-h-10 items-center gap-2 rounded-control border px-3.5 ${flagged ? 'border-marigold-line bg-marigold-wash text-marigold' : 'border-line bg-card'}`}
          >
            <Flag aria-hidden className="size-5" fill={flagged ? 'currentColor' : 'none'} />
            {t(flagged ? 'flagged' : 'flag')}
          </button>
        )}
      </div>
    </div>
  );
}

/** Whether one can come back to this section, and what the one before it has left open. */
function SectionLine({ question }: { readonly question: Question }) {
  const forward = useDesk((s) =>
    isForward(s.paper.sections.find((one) => one.key === question.section)!.navigation),
  );
  const left = useDesk((s) => s.left);
  const values = left && { key: left.section, count: left.open };
  const behind = values && t(!left.back ? 'leftClosed' : left.open > 0 ? 'leftBehind' : 'leftDone', values);
  const text = [behind, forward && t('forwardOnly')].filter(Boolean).join(' ');
  return (
    <p role="status" className="beside-sheet px-4 pb-1 text-[0.9rem] text-soft empty:hidden desk:px-7">
      {text}
    </p>
  );
}

const samePages = (a: Sheet, b: Sheet): boolean =>
  a.pages.length === b.pages.length &&
  a.pages.every(({ question, seen }, i) => question === b.pages[i]!.question && seen === b.pages[i]!.seen);

function LayoutView({ sheet, inView, narrow }: LayoutProps) {
  if (inView.sealed)
    return (
      <Suspense>
        <SectionDoor section={inView.section} />
      </Suspense>
    );
  const whole = inView.parts.some((p) => layoutOf(p.kind) === 'whole');
  // What takes the whole desk leaves no room beside it: its source is one press away.
  if (inView.source)
    return (
      <Suspense>
        <BesideSource sheet={sheet} inView={inView} tabs={whole || narrow} />
      </Suspense>
    );
  if (whole)
    return (
      <div data-reading="question" className="relative flex min-h-0 flex-1 flex-col">
        <Scroller className="min-h-0 flex-1" inside="px-4 pb-3 desk:px-7">
          <PageOf inView={inView} pages={sheet.pages} current={inView.item} />
        </Scroller>
      </div>
    );
  return (
    <div data-reading="question" className="relative flex min-h-0 flex-1 flex-col">
      <Scroller className="min-h-0 flex-1" inside="px-4 pt-2 desk:px-7">
        <div className={`mx-auto desk:pt-4 ${columnOf(inView)}`}>
          <PageOf inView={inView} pages={sheet.pages} current={inView.item} />
        </div>
      </Scroller>
    </div>
  );
}

/** Drawn again only where something in its own sheet has changed. */
const Layout = memo(
  LayoutView,
  (a, b) => a.inView === b.inView && a.narrow === b.narrow && samePages(a.sheet, b.sheet),
);

const sheetOf = ({ page, section, source, item }: Question) =>
  page === null ? (source?.key ?? item) : `${section}/${page}`;

/** The questions that have been laid out: those seen, and ahead of time those before and after. */
function useLaid(): readonly Laid[] {
  const questions = useDesk((s) => s.paper.questions);
  const index = useDesk((s) => s.index);
  /** By number: has it been in view? */
  const [laid, setLaid] = useState<ReadonlyMap<number, boolean>>(new Map());
  useEffect(() => {
    const near = [index - 1, index + 1].filter((n) => questions[n] !== undefined);
    // At leisure: the question in view must not wait for its neighbours.
    const timer = setTimeout(() =>
      startTransition(() =>
        setLaid((before) => new Map([...near.map((n) => [n, false] as const), ...before, [index, true]])),
      ),
    );
    return () => clearTimeout(timer);
  }, [questions, index]);
  return useMemo(
    () =>
      questions.flatMap((question, n) => {
        const near = [index, ...laid.keys()].some((one) => samePage(question, questions[one]!));
        return near ? [{ question, seen: n === index || laid.get(n) === true }] : [];
      }),
    [questions, index, laid],
  );
}

/** The laid out questions by sheet. */
function sheetsOf(laid: readonly Laid[]): readonly Sheet[] {
  const sheets = new Map<string, Laid[]>();
  for (const one of laid) {
    const key = sheetOf(one.question);
    sheets.set(key, [...(sheets.get(key) ?? []), one]);
  }
  return [...sheets].map(([key, pages]) => ({ key, pages }));
}

/** One question as one calm column of parts, or beside its source. Turning to another only shows its sheet. */
export function QuestionView() {
  const current = useDesk((s) => s.paper.questions[s.index]!);
  const narrow = useNarrow();
  const ended = useDesk((s) => endedSections(s).includes(current.section));
  const laid = useLaid();
  const sheets = useMemo(() => sheetsOf(laid), [laid]);
  return (
    <>
      <Head question={current} />
      <SectionLine question={current} />
      {ended && (
        <div className="px-4 pb-2 desk:px-7">
          <Notice tone="care">{t('sectionOver')}</Notice>
        </div>
      )}
      <div data-room className="relative min-h-0 flex-1">
        {sheets.map((sheet) => {
          const shown = sheet.pages.find(({ question }) => question.item === current.item);
          const [first] = sheet.pages;
          return (
            <div
              key={sheet.key}
              data-waiting={shown === undefined ? '' : undefined}
              // Sealed: what is there can be read, and is not changed any more.
              inert={ended && shown !== undefined}
              data-layer
              className={`absolute inset-0 flex flex-col [contain:strict] ${lookOf(shown !== undefined, first!.seen)}`}
            >
              <InView value={shown !== undefined}>
                <Layout sheet={sheet} inView={(shown ?? first!).question} narrow={narrow} />
              </InView>
            </div>
          );
        })}
      </div>
    </>
  );
}
