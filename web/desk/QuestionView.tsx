import { Flag } from 'lucide-react';
import { memo, startTransition, useEffect, useRef, useState } from 'react';
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

function Tabs({ question }: { question: Question }) {
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
        <SourcePane source={question.source!} />
      </div>
      <div className={`min-h-0 flex-1 overflow-y-auto px-4 pt-3 ${side === 'answer' ? '' : 'hidden'}`}>
        <Parts question={question} />
      </div>
    </div>
  );
}

function SideBySide({ question }: { question: Question }) {
  return (
    <Group orientation="horizontal" className="min-h-0 flex-1 px-5">
      <Panel defaultSize="50%" minSize="22%" className="min-h-0 pl-2">
        <SourcePane key={question.source!.key} source={question.source!} />
      </Panel>
      <Separator
        aria-label={t('divider')}
        className="group relative mx-1 w-3 cursor-col-resize before:absolute before:inset-y-2 before:left-1/2 before:w-px before:bg-line"
      >
        <span className="absolute top-1/2 left-1/2 h-11 w-[7px] -translate-1/2 rounded bg-[#c9c3b4] group-hover:bg-edge" />
      </Separator>
      <Panel minSize="30%" className="min-h-0">
        <div className="h-full overflow-y-auto px-3 pt-1 pb-6">
          <Parts question={question} />
        </div>
      </Panel>
    </Group>
  );
}

const Layout = memo(function Layout({ question, narrow }: { question: Question; narrow: boolean }) {
  if (question.sealed) return <SectionDoor section={question.section} />;
  const whole = question.parts.some((p) => layoutOf(p.kind) === 'whole');
  // What takes the whole desk leaves no room beside it: its source is one press away.
  if (whole && question.source) return <Tabs question={question} />;
  if (whole)
    return (
      <div className="min-h-0 flex-1 overflow-y-auto px-4 pb-3 desk:px-7">
        <Parts question={question} />
      </div>
    );
  if (question.source) return narrow ? <Tabs question={question} /> : <SideBySide question={question} />;
  return (
    <div className="min-h-0 flex-1 overflow-y-auto px-4 pt-2 desk:px-7">
      <div className="mx-auto max-w-[70ch] desk:pt-4">
        <Parts question={question} />
      </div>
    </div>
  );
});

/** Questions that share a source share a sheet, so that the source keeps its place while one moves between them. */
const sheetOf = (question: Question) => question.source?.key ?? question.item;

interface Sheet {
  readonly question: Question;
  /** Has been in view; until then it only waits, laid out ahead of time. */
  readonly seen: boolean;
}

/** The sheets that have been laid out: those seen, and ahead of time those before and after. */
function useSheets(): ReadonlyMap<string, Sheet> {
  const questions = useDesk((s) => s.paper.questions);
  const index = useDesk((s) => s.index);
  const [laid, setLaid] = useState<ReadonlyMap<string, Sheet>>(new Map());
  const current = questions[index]!;
  useEffect(() => {
    const near = [questions[index + 1], questions[index - 1]].filter((q) => q !== undefined);
    const ahead = near.map((question) => [sheetOf(question), { question, seen: false }] as const);
    // At leisure: the question in view must not wait for its neighbours.
    const timer = setTimeout(() =>
      startTransition(() =>
        setLaid(
          (before) => new Map([...ahead, ...before, [sheetOf(current), { question: current, seen: true }]]),
        ),
      ),
    );
    return () => clearTimeout(timer);
  }, [questions, index, current]);
  return new Map([...laid, [sheetOf(current), { question: current, seen: true }]]);
}

/**
 * Sheets out of view stay laid out, so that showing one costs hardly more than a painting: one that waits is measured
 * but invisible, one that was seen keeps its rendering.
 */
const lookOf = (inView: boolean, seen: boolean) =>
  inView ? '' : seen ? 'pointer-events-none [content-visibility:hidden]' : 'invisible';

/** One question as one calm column of parts, or beside its source. Turning to another only shows its sheet. */
export function QuestionView() {
  const current = useDesk((s) => s.paper.questions[s.index]!);
  const narrow = useNarrow();
  const ended = useDesk((s) => endedSections(s).includes(current.section));
  const sheets = [...useSheets()].sort(([, a], [, b]) => a.question.number - b.question.number);
  return (
    <>
      <Head question={current} />
      {ended && (
        <div className="px-4 pb-2 desk:px-7">
          <Notice tone="care">{t('sectionOver')}</Notice>
        </div>
      )}
      <div className="relative min-h-0 flex-1">
        {sheets.map(([key, { question, seen }]) => (
          <div
            key={key}
            // Sealed: what is there can be read, and is not changed any more.
            inert={ended && question.item === current.item}
            className={`absolute inset-0 flex flex-col [contain:strict] ${lookOf(question.item === current.item, seen)}`}
          >
            <Layout question={question} narrow={narrow} />
          </div>
        ))}
      </div>
    </>
  );
}
