import { ChevronDown, Flag } from 'lucide-react';
import { Suspense, useState } from 'react';
import { later } from '../ui/later';
import { showMarks, sumMarks } from '../../core/marks';
import type { QuestionState } from '../../core/sittings/progress';
import { showClock } from '../../core/timing/pace';
import { useDesk } from './DeskContext';
import { t } from './words';

const RailSheet = later(async () => (await import('./behind')).RailSheet);

const FILLS: Record<QuestionState, string> = {
  unopened: 'h-0',
  'looked at': 'h-[3px]',
  'part done': 'h-1/2',
  done: 'h-full',
};

/** The rail laid flat: widths grow with the marks, fills tell the state. Too thin to hit; the whole rail opens below. */
function FlatRail() {
  const progress = useDesk((s) => s.progress);
  const index = useDesk((s) => s.index);
  return (
    <div aria-hidden className="flex h-3.5 gap-[3px]">
      {progress.map(({ question, state }, i) => (
        <span
          key={question.item}
          data-bar={state}
          style={{ flexGrow: Math.max(question.marks, 150) }}
          className={`relative rounded-[2px] border ${i === index ? 'border-2 border-kelp bg-card' : state === 'done' ? 'border-filled' : 'border-edge'}`}
        >
          <span data-bar-fill className={`absolute inset-x-0 bottom-0 bg-filled ${FILLS[state]}`} />
        </span>
      ))}
    </div>
  );
}

/** On a narrow screen: clock, position and flag at the top; pulled down it is the whole rail. */
export function Strip() {
  const [open, setOpen] = useState(false);
  const clock = useDesk((s) => showClock(s.leftMs));
  const timed = useDesk((s) => s.timed);
  const hidden = useDesk((s) => s.clockHidden);
  const index = useDesk((s) => s.index);
  const flagged = useDesk((s) => s.progress[s.index]!.flagged);
  const number = index + 1;
  const all = useDesk((s) => s.paper.questions.length);
  const marksOpen = useDesk((s) => sumMarks(s.progress.map((p) => p.open)));
  const toggleFlag = useDesk((s) => s.toggleFlag);
  return (
    <>
      <header className="border-b border-line bg-shade px-3 pt-1 pb-2">
        <div className="flex items-center gap-2">
          {timed && (
            <span role="timer" className="text-[18px] font-semibold">
              {hidden ? t('clockHidden') : clock}
            </span>
          )}
          <span className="min-w-0 flex-1 truncate text-[13.5px] text-soft">
            {t('position', { number, all, open: showMarks(marksOpen) })}
          </span>
          <button
            type="button"
            aria-pressed={flagged}
            aria-label={t('flag')}
            onClick={toggleFlag}
            className={`grid size-11 place-items-center rounded-control ${flagged ? 'bg-marigold-wash text-marigold' : ''}`}
          >
            <Flag aria-hidden className="size-5" fill={flagged ? 'currentColor' : 'none'} />
          </button>
          <button
            type="button"
            aria-haspopup="dialog"
            aria-expanded={open}
            aria-label={t('unfoldRail')}
            onClick={() => setOpen(true)}
            className="grid size-11 place-items-center rounded-control"
          >
            <ChevronDown aria-hidden className="size-6" />
          </button>
        </div>
        <FlatRail />
      </header>
      {open && (
        <Suspense>
          <RailSheet onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}
