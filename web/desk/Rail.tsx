import { ListChecks, Shapes } from 'lucide-react';
import { memo, useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { showMarks, sumMarks } from '../../core/marks';
import type { QuestionProgress } from '../../core/sittings/progress';
import { pacePerMark, pacePoint } from '../../core/timing/pace';
import { Button } from '../ui/Button';
import { ToolPanel } from '../ui/ToolPanel';
import { Clock, wholeMs } from './Clock';
import { useDesk } from './DeskContext';
import { railHeights } from './railHeights';
import { StateBar } from './StateBar';
import { states, t } from './words';

const GAP = 3;
const SECTION_HEAD = 28;

export const marksWords = (hundredths: number): string =>
  hundredths % 100 === 0
    ? t('marks', { count: hundredths / 100 })
    : t('marksShown', { marks: showMarks(hundredths) });

function useRoom(ref: React.RefObject<HTMLElement | null>): number {
  const [room, setRoom] = useState(480);
  useLayoutEffect(() => {
    const observer = new ResizeObserver(([entry]) => entry && setRoom(entry.contentRect.height));
    if (ref.current) observer.observe(ref.current);
    return () => observer.disconnect();
  }, [ref]);
  return room;
}

/** Where the candidate ought to be by now, as a place on the rail: the question, and how far down its bar. */
function usePace() {
  const questions = useDesk((s) => s.paper.questions);
  // By whole half-minutes: the line creeps, it does not tremble.
  const share = useDesk((s) => {
    const all = wholeMs(s);
    return Math.round(((all - s.leftMs) / all) * 120) / 120;
  });
  const timed = useDesk((s) => s.timed);
  // At the very start everybody is on pace; the line would only cover the first bar.
  return timed && share > 0 ? pacePoint(questions, share) : null;
}

interface BarProps {
  readonly progress: QuestionProgress;
  readonly index: number;
  readonly height: number;
  readonly pace: number | null;
  /** Whether the rail is longer than its room; asking the page for places costs a whole lay-out. */
  readonly scrolls: boolean;
  readonly onGo: (index: number) => void;
}

const RailBar = memo(function RailBar({ progress, index, height, pace, scrolls, onGo }: BarProps) {
  const current = useDesk((s) => s.view === 'question' && s.index === index);
  const { question, state, flagged } = progress;
  const closed = useDesk((s) => s.closed.includes(question.item));
  const ref = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (current && scrolls) ref.current?.scrollIntoView({ block: 'nearest' });
  }, [current, scrolls]);
  const marks = marksWords(question.marks);
  const label = t('bar', {
    number: question.number,
    title: question.sealed ? t('sealedTitle') : question.title,
    marks,
    state: t(state),
    flagged: `${flagged ? t('barFlagged') : ''}${closed ? t('barClosed') : ''}`,
  });
  return (
    <li className="relative">
      <button
        ref={ref}
        type="button"
        aria-label={label}
        aria-current={current ? 'step' : undefined}
        aria-disabled={closed || undefined}
        onClick={() => onGo(index)}
        className="block w-full rounded"
      >
        <StateBar
          number={question.number}
          marks={showMarks(question.marks)}
          state={state}
          flagged={flagged}
          current={current}
          height={height}
          closed={closed}
        />
      </button>
      {pace !== null && (
        <span
          aria-hidden
          style={{ top: pace * height }}
          className="pointer-events-none absolute -right-1 -left-3.5 z-10 flex justify-center"
        >
          {/* Beside the number and the marks, never through them. */}
          <span className="absolute left-0 w-3.5 border-t-2 border-dashed border-marigold" />
          <span className="absolute right-9 left-11 border-t-2 border-dashed border-marigold" />
          <span className="absolute -top-[10px] rounded-full border border-marigold-line bg-marigold-wash px-1.5 text-[11px] leading-[17px] text-marigold">
            {t('onPace')}
          </span>
        </span>
      )}
    </li>
  );
});

function Bars({ onGo }: { onGo: (index: number) => void }) {
  const place = useRef<HTMLElement>(null);
  const room = useRoom(place);
  const paper = useDesk((s) => s.paper);
  const progress = useDesk((s) => s.progress);
  const pace = usePace();
  const taken = paper.sections.length * SECTION_HEAD + paper.questions.length * GAP + 8;
  const heights = railHeights(
    paper.questions.map((q) => q.marks),
    room - taken,
  );
  const scrolls = heights.reduce((sum, height) => sum + height, taken) > room;
  return (
    <nav
      ref={place}
      aria-label={t('rail')}
      className="-mx-3.5 min-h-0 flex-1 overflow-x-hidden overflow-y-auto px-3.5"
    >
      {paper.sections.map((section) => {
        const own = progress
          .map((p, index) => ({ p, index }))
          .filter(({ p }) => p.question.section === section.key);
        const all = sumMarks(own.map(({ p }) => p.question.marks));
        const open = sumMarks(own.map(({ p }) => p.open));
        return (
          <section key={section.key}>
            <h2 className="flex h-7 items-end justify-between gap-1 pb-1 text-[12.5px] leading-4 text-soft">
              <span className="truncate">
                <b className="text-ink">{section.key}</b> {section.title}
              </span>
              <span className="flex-none">
                {t('marksOf', { done: showMarks(all - open), all: showMarks(all) })}
              </span>
            </h2>
            <ul className="flex flex-col" style={{ gap: GAP }}>
              {own.map(({ p, index }) => (
                <RailBar
                  key={p.question.item}
                  progress={p}
                  index={index}
                  height={heights[index]!}
                  scrolls={scrolls}
                  pace={pace !== null && pace.index === index ? pace.within : null}
                  onGo={onGo}
                />
              ))}
            </ul>
          </section>
        );
      })}
    </nav>
  );
}

type Look = Pick<React.ComponentProps<typeof StateBar>, 'state' | 'flagged' | 'closed'>;

/** What each shape means, and how many questions have it now. */
function Key() {
  const progress = useDesk((s) => s.progress);
  const closed = useDesk((s) => s.closed.length);
  const flagged = progress.filter((one) => one.flagged).length;
  const plain = { flagged: false, closed: false };
  const row = (name: string, count: number, look: Look) => ({ name, count, look });
  const rows = [
    ...states.map((state) =>
      row(t(state), progress.filter((one) => one.state === state).length, { ...plain, state }),
    ),
    row(t('keyFlagged'), flagged, { ...plain, state: 'looked at', flagged: true }),
    ...(closed > 0 ? [row(t('keyClosed'), closed, { ...plain, state: 'looked at', closed: true })] : []),
  ];
  return (
    <ToolPanel icon={Shapes} name={t('key')} title={t('key')} side="right" className="p-3">
      <ul className="grid gap-y-1.5 text-[0.9rem]">
        {rows.map(({ name, count, look }) => (
          <li key={name} className="flex items-center gap-2.5">
            <span className="w-10 flex-none">
              <StateBar number={1} marks="" {...look} height={24} />
            </span>
            {t('keyCount', { state: name, count })}
          </li>
        ))}
      </ul>
    </ToolPanel>
  );
}

/** The rail: clock, every question as a bar sized by its marks, the pace line, and the way to the end. */
export function Rail({ onGone }: { onGone?: () => void }) {
  const progress = useDesk((s) => s.progress);
  const go = useDesk((s) => s.go);
  const lookBack = useDesk((s) => s.lookBack);
  const goTo = useCallback(
    (index: number) => {
      go(index);
      onGone?.();
    },
    [go, onGone],
  );
  const reference = useDesk((s) => s.directions?.candidate.reference);
  const open = sumMarks(progress.map((p) => p.open));
  const pace = useDesk((s) => (s.timed ? pacePerMark(s.leftMs, open) : null));
  const words =
    open === 0
      ? t('allDone')
      : pace
        ? t('openPace', { marks: showMarks(open), pace })
        : t(pace === '' ? 'openHurry' : 'open', { marks: showMarks(open) });
  return (
    <div className="flex h-full min-h-0 flex-col px-3.5 pt-4 pb-3.5">
      <Clock />
      <Bars onGo={goTo} />
      <p className="pt-2 pb-1 text-[13px] leading-5 text-soft">
        {words}
        {reference && <span className="block">{t('reference', { reference })}</span>}
      </p>
      <Key />
      <Button
        onClick={() => {
          lookBack();
          onGone?.();
        }}
      >
        <ListChecks aria-hidden className="size-5" /> {t('lastLook')}
      </Button>
    </div>
  );
}
