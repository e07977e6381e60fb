import { Check, CloudOff, LoaderCircle } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { announce } from '../ui/announce';
import { showSecond } from '../ui/showSecond';
import { useNarrow } from '../ui/useNarrow';
import { useDesk } from './DeskContext';
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
export function SavedLine() {
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
