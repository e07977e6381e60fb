import { Flag } from 'lucide-react';
import { memo, startTransition, useEffect, useMemo, useRef, useState } from 'react';
import { Group, Panel, Separator } from 'react-resizable-panels';
import { showClock } from '../../core/timing/pace';
import type { Question } from '../../core/papers/candidatePaper';
import { layoutOf } from '../kinds/answers';
import { useNarrow } from '../ui/useNarrow';
import { Notice } from '../ui/Notice';
import { useDesk } from './DeskContext';
import { endedSections } from './deskStore';
import { PartView } from './PartView';
import { SectionDoor } from './SectionDoor';
import { marksWords } from './Rail';
import { SourcePane } from './SourcePane';
import { t } from './words';

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
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    heading.current?.focus({ preventScroll: true });
  }, [question.item]);
  return (
    <div className="flex items-center gap-3 px-4 pt-3 pb-2 desk:px-7 desk:pt-3.5">
      <div className="flex min-w-0 flex-1 flex-wrap items-baseline gap-x-3">
        <h1
          ref={heading}
          tabIndex={-1}
          className="font-serif text-[1.35rem] font-semibold outline-none desk:text-[1.5rem]"
        >
          {t('question', { number: question.number })}
        </h1>
        <p className="text-[0.95rem] text-soft">
          {sectionLeft !== null && <b className="text-ink">{t('sectionLeft', { clock: sectionLeft })} · </b>}
          {marksWords(question.marks)}
          <span className="hidden desk:inline">
            {' '}
            · {section.key} {section.title} · {question.sealed ? t('sealedTitle') : question.title}
          </span>
        </p>
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
  );
}

const Parts = memo(function Parts({ question }: { question: Question }) {
  return question.parts.map((part) => (
    <PartView key={part.target} part={part} several={question.parts.length > 1} />
  ));
});

/** A question that has been laid out; `seen` once it was in view: until then it only waits, laid out ahead of time. */
interface Laid {
  readonly question: Question;
  readonly seen: boolean;
}

/** Questions that share a source share a sheet, so that the source keeps its place while one moves between them. */
interface Sheet {
  readonly key: string;
  readonly pages: readonly Laid[];
}

/**
 * What is out of view stays laid out, so that showing it costs hardly more than a painting: what waits is measured but
 * invisible, what was seen keeps its rendering.
 */
const lookOf = (inView: boolean, seen: boolean) =>
  inView ? '' : seen ? 'pointer-events-none [content-visibility:hidden]' : 'invisible';

interface LayoutProps {
  readonly sheet: Sheet;
  /** The question of the sheet that is in view, or would be. */
  readonly inView: Question;
  readonly narrow: boolean;
}

/** The parts of the questions of a sheet, of which one is in view. */
function Pages({ sheet, inView, className }: Omit<LayoutProps, 'narrow'> & { readonly className: string }) {
  return (
    <div className="relative h-full min-h-0 flex-1">
      {sheet.pages.map(({ question, seen }) => (
        <div
          key={question.item}
          // Only what is in view scrolls: the others cannot be reached, by keys either.
          className={`absolute inset-0 [contain:strict] ${className} ${question.item === inView.item ? 'overflow-y-auto' : 'overflow-hidden'} ${lookOf(question.item === inView.item, seen)}`}
        >
          <Parts question={question} />
        </div>
      ))}
    </div>
  );
}

function Tabs({ sheet, inView }: Omit<LayoutProps, 'narrow'>) {
  const [side, setSide] = useState<'source' | 'answer'>('answer');
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div role="tablist" className="flex border-b border-line">
        {(['source', 'answer'] as const).map((name) => (
          <button
            key={name}
            type="button"
            role="tab"
            aria-selected={side === name}
            onClick={() => setSide(name)}
            className={`min-h-11 flex-1 ${side === name ? 'border-b-3 border-kelp font-semibold' : 'text-soft'}`}
          >
            {t(name)}
          </button>
        ))}
      </div>
      <div className={`min-h-0 flex-1 px-4 pt-3 ${side === 'source' ? '' : 'hidden'}`}>
        <SourcePane source={inView.source!} />
      </div>
      <div className={`min-h-0 flex-1 ${side === 'answer' ? '' : 'hidden'}`}>
        <Pages sheet={sheet} inView={inView} className="px-4 pt-3" />
      </div>
    </div>
  );
}

function SideBySide({ sheet, inView }: Omit<LayoutProps, 'narrow'>) {
  return (
    <Group orientation="horizontal" className="min-h-0 flex-1 px-5">
      <Panel defaultSize="50%" minSize="22%" className="min-h-0 pl-2">
        <SourcePane source={inView.source!} />
      </Panel>
      <Separator
        aria-label={t('divider')}
        className="group relative mx-1 w-3 cursor-col-resize before:absolute before:inset-y-2 before:left-1/2 before:w-px before:bg-line"
      >
        <span className="absolute top-1/2 left-1/2 h-11 w-[7px] -translate-1/2 rounded bg-[#c9c3b4] group-hover:bg-edge" />
      </Separator>
      <Panel minSize="30%" className="min-h-0">
        <Pages sheet={sheet} inView={inView} className="px-3 pt-1 pb-6" />
      </Panel>
    </Group>
  );
}

const samePages = (a: Sheet, b: Sheet): boolean =>
  a.pages.length === b.pages.length &&
  a.pages.every(({ question, seen }, i) => question === b.pages[i]!.question && seen === b.pages[i]!.seen);

function LayoutView({ sheet, inView, narrow }: LayoutProps) {
  if (inView.sealed) return <SectionDoor section={inView.section} />;
  const whole = inView.parts.some((p) => layoutOf(p.kind) === 'whole');
  // What takes the whole desk leaves no room beside it: its source is one press away.
  if (inView.source && (whole || narrow)) return <Tabs sheet={sheet} inView={inView} />;
  if (whole)
    return (
      <div className="min-h-0 flex-1 overflow-y-auto px-4 pb-3 desk:px-7">
        <Parts question={inView} />
      </div>
    );
  if (inView.source) return <SideBySide sheet={sheet} inView={inView} />;
  return (
    <div className="min-h-0 flex-1 overflow-y-auto px-4 pt-2 desk:px-7">
      <div className="mx-auto max-w-[70ch] desk:pt-4">
        <Parts question={inView} />
      </div>
    </div>
  );
}

/** Drawn again only where something in its own sheet has changed. */
const Layout = memo(
  LayoutView,
  (a, b) => a.inView === b.inView && a.narrow === b.narrow && samePages(a.sheet, b.sheet),
);

const sheetOf = (question: Question) => question.source?.key ?? question.item;

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
      questions.flatMap((question, n) =>
        n === index || laid.has(n) ? [{ question, seen: n === index || laid.get(n) === true }] : [],
      ),
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
      {ended && (
        <div className="px-4 pb-2 desk:px-7">
          <Notice tone="care">{t('sectionOver')}</Notice>
        </div>
      )}
      <div className="relative min-h-0 flex-1">
        {sheets.map((sheet) => {
          const shown = sheet.pages.find(({ question }) => question.item === current.item);
          const [first] = sheet.pages;
          return (
            <div
              key={sheet.key}
              // Sealed: what is there can be read, and is not changed any more.
              inert={ended && shown !== undefined}
              className={`absolute inset-0 flex flex-col [contain:strict] ${lookOf(shown !== undefined, first!.seen)}`}
            >
              <Layout sheet={sheet} inView={(shown ?? first!).question} narrow={narrow} />
            </div>
          );
        })}
      </div>
    </>
  );
}
