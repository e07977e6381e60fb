import { DocumentView } from '../documents/DocumentView';
import { DoorOpen } from 'lucide-react';
import { showMarks, sumMarks } from '../../core/marks';
import { allowedMs, MINUTE_MS } from '../../core/timing/deadline';
import { showClock, showLength } from '../../core/timing/pace';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { useAction } from '../ui/useAsync';
import { useDesk } from './DeskContext';
import { t } from './words';

/**
 * Before a section with a limit of its own: what it costs to enter. Its questions are sealed until then, and entering
 * needs a connection.
 */
export function SectionDoor({ section: key }: { readonly section: string }) {
  const section = useDesk((s) => s.paper.sections.find((one) => one.key === key)!);
  const questions = useDesk((s) => s.paper.questions);
  const extraPercent = useDesk((s) => s.time.extraPercent);
  const enter = useDesk((s) => s.enterSection);
  const isSitting = useDesk((s) => s.help !== null);
  const { busy, trouble, run } = useAction();
  const own = questions.filter((question) => question.section === key);
  const limitMs = allowedMs(section.minutes! * MINUTE_MS, extraPercent);
  // A limit is told exactly, never rounded up.
  const length = limitMs % MINUTE_MS === 0 ? showLength(limitMs) : `${showClock(limitMs)} min`;
  const marks = showMarks(sumMarks(own.map((question) => question.marks)));
  return (
    <div className="min-h-0 flex-1 overflow-y-auto px-4 pt-4 desk:px-7">
      <div className="mx-auto max-w-[36rem] rounded-card border border-line bg-card p-6 desk:mt-6">
        <h2 className="font-serif text-[1.3rem] leading-tight font-semibold">
          {t('sectionDoorTitle', { key })}
        </h2>
        <p className="mt-1 text-soft">{section.title}</p>
        <DocumentView document={section.introduction} className="mt-3 empty:hidden" />
        <p className="mt-3">
          {t('sectionDoorText', {
            length,
            questions: t('questions', { count: own.length }),
            marks: t('marksShown', { marks }),
          })}
        </p>
        {isSitting && <p className="mt-2 text-[0.9rem] text-soft">{t('sectionDoorOnline')}</p>}
        {trouble && (
          <div className="mt-3">
            <Notice tone="trouble">{trouble}</Notice>
          </div>
        )}
        <div className="mt-5">
          <Button
            look="first"
            large
            className="max-w-full whitespace-normal!"
            disabled={busy}
            onClick={() => void run(() => enter(key))}
          >
            <DoorOpen aria-hidden className="size-5" /> {t('sectionEnter', { key })}
          </Button>
        </div>
      </div>
    </div>
  );
}
