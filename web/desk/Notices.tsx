import { useEffect, useEffectEvent, useState } from 'react';
import { showClock } from '../../core/timing/pace';
import { MINUTE_MS } from '../../core/timing/deadline';
import { announce } from '../ui/announce';
import { Button } from '../ui/Button';
import { useDesk } from './DeskContext';
import { t } from './words';

/** The time left as it is heard: whole minutes, and seconds in the last one. */
const heardLeft = (leftMs: number): string => {
  const seconds = Math.max(1, Math.round(leftMs / 1000));
  return seconds >= 60
    ? t('warningHeard', { count: Math.round(leftMs / MINUTE_MS) })
    : t('warningSeconds', { count: seconds });
};

/** Speaks what comes into view over every page of the desk, each once, whatever page is turned to. */
export function SaidNotices() {
  const warnedAt = useDesk((s) => s.warnedAt);
  const told = useDesk((s) => s.told);
  const leftMs = useDesk((s) => s.leftMs);
  const end = useDesk((s) => t(s.help ? 'warningEnd' : 'warningRehearsal'));
  const sayWarning = useEffectEvent(() => announce(`${heardLeft(leftMs)} ${end}`));
  useEffect(() => {
    if (warnedAt !== null) sayWarning();
  }, [warnedAt]);
  useEffect(() => {
    if (told !== null) announce(`${t('told')}: ${told}`);
  }, [told]);
  return null;
}

/** How much time is left, counting down; what happens at its end. It goes by itself after a while. */
function Warning() {
  const warned = useDesk((s) => s.warnedAt !== null && s.leftMs > 0);
  const clock = useDesk((s) => showClock(s.leftMs));
  const isSitting = useDesk((s) => s.help !== null);
  const dismiss = useDesk((s) => s.dismissWarning);
  if (!warned) return null;
  return (
    <div
      data-warning
      className="flex items-center gap-4 rounded-card border border-marigold-line bg-marigold-wash px-4 py-2 text-marigold shadow-float"
    >
      <p className="min-w-0 flex-1">
        <b className="tabular-nums">{t('warning', { clock })}</b>{' '}
        {t(isSitting ? 'warningEnd' : 'warningRehearsal')}
      </p>
      <Button onClick={dismiss}>{t('warningClose')}</Button>
    </div>
  );
}

/** What the invigilator said last, until it is read. */
function Told() {
  const told = useDesk((s) => s.told);
  const dismiss = useDesk((s) => s.dismissTold);
  if (told === null) return null;
  return (
    <div
      data-told
      className="flex items-center gap-4 rounded-card border border-line bg-card px-4 py-2.5 shadow-float"
    >
      <p className="max-h-[40dvh] min-w-0 flex-1 overflow-y-auto">
        <b className="text-slate">{t('told')}:</b> {told}
      </p>
      <Button onClick={dismiss}>{t('toldClose')}</Button>
    </div>
  );
}

/** Whether the round asks for full screen and the page has left it, until the candidate puts the notice away. */
function useLeftFullScreen(): readonly [left: boolean, dismiss: () => void] {
  const asked = useDesk((s) => s.directions?.checks.demanded.includes('full screen') === true);
  const [full, setFull] = useState(() => document.fullscreenElement !== null);
  const [dismissed, setDismissed] = useState(false);
  useEffect(() => {
    const look = () => {
      setFull(document.fullscreenElement !== null);
      setDismissed(false);
    };
    document.addEventListener('fullscreenchange', look);
    return () => document.removeEventListener('fullscreenchange', look);
  }, []);
  return [asked && document.fullscreenEnabled && !full && !dismissed, () => setDismissed(true)];
}

/** Nobody is stopped by it: it says what was left, and is the way back. */
function FullScreen() {
  const [left, dismiss] = useLeftFullScreen();
  useEffect(() => {
    if (left) announce(t('fullScreenLeft'));
  }, [left]);
  if (!left) return null;
  const back = () => void document.documentElement.requestFullscreen().catch(() => undefined);
  return (
    <div
      data-full-screen
      className="flex flex-wrap items-center gap-3 rounded-card border border-line bg-card px-4 py-2.5 shadow-float"
    >
      <p className="min-w-0 flex-1">{t('fullScreenLeft')}</p>
      <Button look="first" onClick={back}>
        {t('fullScreenBack')}
      </Button>
      <Button onClick={dismiss}>{t('fullScreenStay')}</Button>
    </div>
  );
}

/** Above the foot: they cover neither the clock nor the flag, nor the ways on; they take nothing away from the question. */
export const Notices = () => (
  <div className="pointer-events-auto mx-auto flex max-w-[40rem] flex-col gap-2">
    <Warning />
    <Told />
    <FullScreen />
  </div>
);
