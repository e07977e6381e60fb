import { Coffee } from 'lucide-react';
import { showLength } from '../../core/timing/pace';
import { RaiseHand } from '../live/RaiseHand';
import { useAction } from '../ui/useAsync';
import { useDesk } from './DeskContext';
import { t } from './words';

/** What can be asked for at the desk: a rest break where one is arranged, and the invigilator. */
export function HelpTools() {
  const help = useDesk((s) => s.help);
  const live = useDesk((s) => s.live);
  const takeLive = useDesk((s) => s.takeLive);
  const breakLeftMs = useDesk((s) => s.time.breakLeftMs);
  const { busy, run } = useAction();
  if (!help) return null;
  return (
    <>
      {breakLeftMs > 0 && (
        <button
          type="button"
          disabled={busy}
          title={t('breakLeft', { length: showLength(breakLeftMs) })}
          onClick={() => void run(() => help.takeBreak())}
          className="inline-flex min-h-10 items-center gap-2 rounded-control px-2.5 py-1 hover:bg-shade"
        >
          <Coffee aria-hidden className="size-5" /> {t('takeBreak')}
        </button>
      )}
      <RaiseHand live={live} onSay={async (text, hand) => takeLive(await help.say(text, hand))} />
    </>
  );
}
