import { Check, ChevronLeft, ChevronRight, CloudOff, LoaderCircle } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { announce } from '../ui/announce';
import { Kit, KitTray } from './Kit';
import { Button } from '../ui/Button';
import { showSecond } from '../ui/showSecond';
import { useNarrow } from '../ui/useNarrow';
import { useDesk } from './DeskContext';
import { BreakTool, HandTool } from './HelpTools';
import { t } from './words';

/** Said once when the connection is lost, and once when it is back; the line itself changes with every second. */
function useSaidOfConnection(): void {
  const lost = useDesk((s) => s.saved.state === 'kept');
  const wasLost = useRef(false);
  useEffect(() => {
    if (lost !== wasLost.current) announce(t(lost ? 'lost' : 'backAgain'));
    wasLost.current = lost;
  }, [lost]);
}

/** Where an answer is, always in the same place and always true. */
function SavedLine() {
  useSaidOfConnection();
  const narrow = useNarrow();
  const saved = useDesk((s) => s.saved);
  // Whole seconds, so that the line is drawn once a second while the connection is gone.
  const lostFor = useDesk((s) =>
    s.saved.state === 'kept' ? Math.max(0, Math.round((s.now - s.saved.since) / 1000)) : 0,
  );
  const trouble = useDesk((s) => s.deviceTrouble);
  if (trouble)
    return (
      <p role="alert" className="text-[0.82rem] text-brick">
        {t(trouble === 'too-long' ? 'tooLong' : 'deviceTrouble')}
      </p>
    );
  if (saved.state === 'not saved') return <span className="text-[0.84rem] text-soft">{t('notSaved')}</span>;
  const [Icon, text, look] =
    saved.state === 'saved'
      ? [
          Check,
          saved.at === null
            ? t('nothingYet')
            : t('saved', { time: narrow ? showSecond(saved.at).slice(0, 5) : showSecond(saved.at) }),
          'text-soft',
        ]
      : saved.state === 'noted'
        ? [Check, t('noted'), 'text-soft']
        : saved.state === 'saving'
          ? [LoaderCircle, t(saved.slow ? 'slow' : 'saving'), 'text-soft']
          : [CloudOff, t('kept', { seconds: lostFor }), 'text-marigold'];
  return (
    <span data-saved={saved.state} className={`inline-flex items-center gap-1.5 text-[0.84rem] ${look}`}>
      <Icon aria-hidden className={`size-4 flex-none ${saved.state === 'saved' ? 'text-kelp' : ''}`} />
      {text}
    </span>
  );
}

/** Where large text leaves little room in the row. */
const TIGHT = 'px-1.5! @[13rem]:px-2! @[16rem]:px-3.5!';

/** The kit in one row, and under it the ways on and the saved line. */
export function Foot() {
  const index = useDesk((s) => s.index);
  const last = useDesk((s) => s.paper.questions.length - 1);
  const go = useDesk((s) => s.go);
  const lookBack = useDesk((s) => s.lookBack);
  const narrow = useNarrow();
  const onward = index < last;
  return (
    <footer data-foot className="border-t border-line">
      {!narrow && (
        <div className="px-4">
          <Kit />
        </div>
      )}
      {narrow && (
        // A line of its own, always: where it is squeezed between buttons it breaks into a word a row.
        <div className="flex justify-center bg-card px-3 pt-1.5 text-center leading-5">
          <SavedLine />
        </div>
      )}
      <div className={`@container bg-card ${narrow ? 'beside-sheet' : 'border-t border-line'}`}>
        <div className="flex items-center gap-0.5 px-1 py-2.5 @[11rem]:gap-1 @[11rem]:px-2 @[16rem]:gap-2 @[16rem]:px-3 desk:gap-3 desk:px-7">
          <Button
            onClick={() => go(index - 1)}
            disabled={index === 0}
            aria-label={t('previous', { number: index })}
            className={`min-h-11 ${narrow ? TIGHT : ''}`}
          >
            <ChevronLeft aria-hidden className="size-5" />{' '}
            {narrow ? '' : t(index === 0 ? 'back' : 'previous', { number: index })}
          </Button>
          {narrow && <KitTray />}
          {!narrow && <BreakTool />}
          <HandTool {...(narrow ? { brief: 'long' as const } : {})} />
          <div className="flex min-w-0 flex-1 justify-center text-center">{!narrow && <SavedLine />}</div>
          <Button
            look="first"
            onClick={() => (onward ? go(index + 1) : lookBack())}
            className={`min-h-11 ${narrow ? `${TIGHT} leading-tight` : ''}`}
          >
            {narrow ? (
              <span className="sr-only @[11rem]:not-sr-only @[11rem]:whitespace-normal">
                {t(onward ? 'next' : 'lastLook')}
              </span>
            ) : onward ? (
              t('previous', { number: index + 2 })
            ) : (
              t('lastLook')
            )}
            <ChevronRight aria-hidden className="size-5 flex-none" />
          </Button>
        </div>
      </div>
    </footer>
  );
}
