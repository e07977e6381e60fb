import { guessingOf } from '../../core/papers/guessing';
import { ChevronLeft, ChevronRight, Flag } from 'lucide-react';
import { useState } from 'react';
import { showMarks, sumMarks } from '../../core/marks';
import type { QuestionProgress } from '../../core/sittings/progress';
import { showClock } from '../../core/timing/pace';
import { Button } from '../ui/Button';
import { Pill } from '../ui/Pill';
import { useDesk } from './DeskContext';
import { HandIn } from './HandIn';
import { HandTool } from './HelpTools';
import { SavedLine } from './SavedLine';
import { LEAST_BAR } from './railHeights';
import { StateBar } from './StateBar';
import { say } from '../words';
import { guessingWords, t } from './words';
import { PageHeading } from '../ui/PageHeading';

type Filter = 'all' | 'not done' | 'flagged';

const FITS: Record<Filter, (p: QuestionProgress) => boolean> = {
  all: () => true,
  'not done': (p) => p.state !== 'done',
  flagged: (p) => p.flagged,
};

/** “Part A: Choose 1 more”; the part only where there are several. */
const missingWords = ({ part, what }: QuestionProgress['missing'][number]) =>
  part === null ? say(what) : t('missingIn', { part, what: say(what) });

function Row({ progress }: { progress: QuestionProgress }) {
  const go = useDesk((s) => s.go);
  const { question, state, flagged, missing } = progress;
  const closed = useDesk((s) => s.closed.includes(question.item));
  const height = Math.min(46, Math.max(LEAST_BAR - 4, (question.marks / 100) * 4));
  return (
    <li>
      <button
        type="button"
        onClick={() => go(question.number - 1)}
        className="grid min-h-9 w-full grid-cols-[4.2rem_minmax(0,1fr)_auto] items-center gap-x-3 rounded-control px-2 py-0.5 text-left hover:bg-shade desk:grid-cols-[4.2rem_15rem_7rem_minmax(0,1fr)_auto_1.2rem]"
      >
        <StateBar
          number={question.number}
          marks={showMarks(question.marks)}
          state={state}
          flagged={flagged}
          height={height}
          closed={closed}
        />
        <span className="truncate">{question.title}</span>
        <span className={`text-[0.92rem] ${state === 'done' ? 'text-soft' : 'font-semibold'}`}>
          {t(state)}
          {closed && <span className="font-normal text-soft"> · {t('isClosed')}</span>}
        </span>
        <span className="col-span-3 text-[0.88rem] text-soft desk:col-span-1">
          {missing.map(missingWords).join(' · ')}
        </span>
        <span>
          {flagged && (
            <Pill tone="care">
              <Flag aria-hidden className="size-3.5" /> {t('isFlagged')}
            </Pill>
          )}
        </span>
        <ChevronRight aria-hidden className="hidden size-4 text-soft desk:block" />
      </button>
    </li>
  );
}

/** The rail opened out to a page: what is unopened, part done and flagged, and whether a guess can cost marks. */
export function LastLook() {
  const [filter, setFilter] = useState<Filter>('all');
  const progress = useDesk((s) => s.progress);
  const paper = useDesk((s) => s.paper);
  const clock = useDesk((s) => (s.clockHidden || !s.timed ? null : showClock(s.leftMs)));
  const index = useDesk((s) => s.index);
  const go = useDesk((s) => s.go);
  const open = progress.filter((p) => p.state !== 'done');
  const summary =
    open.length === 0
      ? t('allAreDone')
      : t('notDone', {
          count: open.length,
          marks: showMarks(sumMarks(open.map((p) => p.open))),
          all: showMarks(paper.marks),
        });
  const filters: [Filter, string][] = [
    ['all', t('all', { count: progress.length })],
    ['not done', t('filterNotDone', { count: open.length })],
    ['flagged', t('filterFlagged', { count: progress.filter((p) => p.flagged).length })],
  ];
  return (
    <main className="h-dvh overflow-y-auto px-4 py-6">
      <div className="mx-auto max-w-[980px]">
        <div className="flex items-baseline gap-3">
          <PageHeading context={paper.title} className="flex-1 font-serif text-[1.75rem] font-semibold">
            {t('lastLook')}
          </PageHeading>
          {clock && (
            <p role="timer" className="text-[1.5rem] font-semibold">
              {clock} <span className="text-[0.95rem] font-normal text-soft">{t('leftShort')}</span>
            </p>
          )}
        </div>
        <p className="text-soft">
          {summary} {guessingWords(guessingOf(paper.questions))}
        </p>
        <p className="mt-1 text-soft">
          <SavedLine />
        </p>
        <div role="group" aria-label={t('filter')} className="my-3 flex flex-wrap gap-2">
          {filters.map(([name, label]) => (
            <button
              key={name}
              type="button"
              aria-pressed={filter === name}
              onClick={() => setFilter(name)}
              className={`min-h-8 rounded-full px-3 text-[0.88rem] ${filter === name ? 'bg-wash text-kelp' : 'bg-shade text-ink'}`}
            >
              {label}
            </button>
          ))}
        </div>
        <div className="rounded-card border border-line bg-card px-2 py-2.5">
          {paper.sections.map((section) => {
            const rows = progress.filter((p) => p.question.section === section.key && FITS[filter](p));
            if (rows.length === 0) return null;
            return (
              <section key={section.key}>
                <h2 className="px-2 pt-1.5 pb-0.5 text-[0.92rem] text-soft">
                  <b className="text-ink">{section.key}</b> {section.title}
                </h2>
                <ul>
                  {rows.map((p) => (
                    <Row key={p.question.item} progress={p} />
                  ))}
                </ul>
              </section>
            );
          })}
        </div>
        <div className="flex flex-wrap justify-between gap-3 pt-4 pb-24">
          <Button onClick={() => go(index)} className="min-h-11">
            <ChevronLeft aria-hidden className="size-5" /> {t('backTo', { number: index + 1 })}
          </Button>
          <HandTool />
          <HandIn />
        </div>
      </div>
    </main>
  );
}
