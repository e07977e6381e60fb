import type { ReactNode } from 'react';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { showSecond } from '../ui/showSecond';
import { useAction } from '../ui/useAsync';
import { useDesk } from './DeskContext';
import type { Cover } from './coverOf';
import { t } from './words';
import { PageHeading } from '../ui/PageHeading';

function Sheet({ title, children }: { title: string; children: ReactNode }) {
  return (
    <main className="grid min-h-dvh place-items-center px-4">
      <div className="w-full max-w-[36rem] rounded-card border border-line bg-card p-7">
        <PageHeading className="font-serif text-[1.6rem] leading-tight font-semibold">{title}</PageHeading>
        <div className="mt-3 space-y-4">{children}</div>
      </div>
    </main>
  );
}

/** The desk is open in another tab, window or device; `onTake` brings it here. */
export function ElsewhereSheet({ onTake }: { readonly onTake: () => Promise<void> }) {
  const { busy, trouble, run } = useAction();
  const take = () => run(onTake);
  return (
    <Sheet title={t('elsewhereTitle')}>
      <p>{t('elsewhereText')}</p>
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
      <Button look="first" className="min-h-11" disabled={busy} onClick={() => void take()}>
        {t('elsewhereTake')}
      </Button>
    </Sheet>
  );
}

function Elsewhere() {
  const help = useDesk((s) => s.help)!;
  const take = async () => {
    await help.takeOver();
    // The other one may have come further: everything is opened again.
    window.location.reload();
  };
  return <ElsewhereSheet onTake={take} />;
}

function GoingOn() {
  return (
    <Sheet title={t('goingOnTitle')}>
      <p role="status">{t('goingOnText')}</p>
    </Sheet>
  );
}

function Break() {
  const help = useDesk((s) => s.help)!;
  const takeLive = useDesk((s) => s.takeLive);
  const until = useDesk((s) => s.time.stopped?.until ?? 0);
  const { busy, trouble, run } = useAction();
  return (
    <Sheet title={t('breakTitle')}>
      <p>{t('breakText', { until: showSecond(until) })}</p>
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
      <Button
        look="first"
        className="min-h-11"
        disabled={busy}
        onClick={() => void run(async () => takeLive(await help.endBreak()))}
      >
        {t('breakEnd')}
      </Button>
    </Sheet>
  );
}

function Pause() {
  const since = useDesk((s) => s.time.stopped?.since ?? 0);
  return (
    <Sheet title={t('pauseTitle')}>
      <p>{t('pauseText', { since: showSecond(since) })}</p>
    </Sheet>
  );
}

function Queued() {
  const at = useDesk((s) => s.queuedAt!);
  return (
    <Sheet title={t('queuedTitle')}>
      <p>{t('queuedText', { at: showSecond(at) })}</p>
      <p className="text-soft">{t('queuedKeep')}</p>
    </Sheet>
  );
}

const COVERS: Record<Cover, () => ReactNode> = {
  elsewhere: Elsewhere,
  break: Break,
  pause: Pause,
  queued: Queued,
  'going on': GoingOn,
};

/** The desk with its questions put away: why, and what can be done. */
export function Covered({ why }: { why: Cover }) {
  const Why = COVERS[why];
  return (
    <>
      <Why />
    </>
  );
}
