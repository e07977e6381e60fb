import { Coffee } from 'lucide-react';
import { showLength } from '../../core/timing/pace';
import { RaiseHand } from '../live/RaiseHand';
import { useAction } from '../ui/useAsync';
import { useDesk } from './DeskContext';
import { t } from './words';

/** A rest break, where one is arranged. */
export function BreakTool() {
  const help = useDesk((s) => s.help);
  const breakLeftMs = useDesk((s) => s.time.breakLeftMs);
  const { busy, run } = useAction();
  if (!help || breakLeftMs <= 0) return null;
  return (
    <button
      type="button"
      disabled={busy}
      title={t('breakLeft', { length: showLength(breakLeftMs) })}
      onClick={() => void run(() => help.takeBreak())}
      className="inline-flex min-h-10 items-center gap-2 rounded-control px-2.5 py-1 hover:bg-shade"
    >
      <Coffee aria-hidden className="size-5" /> {t('takeBreak')}
    </button>
  );
}

/** The invigilator can be asked from everywhere at the desk, in one press. */
export function HandTool({ brief }: { readonly brief?: 'long' }) {
  const help = useDesk((s) => s.help);
  const live = useDesk((s) => s.live);
  const takeLive = useDesk((s) => s.takeLive);
  if (!help) return null;
  return (
    <RaiseHand live={live} brief={brief} onSay={async (text, hand) => takeLive(await help.say(text, hand))} />
  );
}
