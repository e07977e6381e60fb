import { Check, TriangleAlert } from 'lucide-react';
import { useCallback, useEffect, useState } from 'react';
import type { ArrivalView } from '../../../core/arrival/api';
import { showClock } from '../../../core/timing/pace';
import { post } from '../../api/client';
import { Talk } from '../../live/Talk';
import { Button } from '../../ui/Button';
import { Notice } from '../../ui/Notice';
import { showMoment } from '../../ui/times';
import { useAction } from '../../ui/useAsync';
import { useArrival } from '../ArrivalContext';
import { CameraCheck } from '../checks/CameraCheck';
import type { Finding } from '../checks/runChecks';
import { StepTitle } from '../Steps';
import { t } from '../words';

/** Counts down to a moment of the server's time, from what the server said when. */
export function useUntil(at: number, serverNow: number): number {
  const [left, setLeft] = useState(at - serverNow);
  useEffect(() => {
    const from = performance.now();
    const timer = setInterval(() => setLeft(at - serverNow - (performance.now() - from)), 500);
    return () => clearInterval(timer);
  }, [at, serverNow]);
  return left;
}

function DoorCode() {
  const { update, live } = useArrival();
  const [code, setCode] = useState('');
  const { busy, trouble, run } = useAction();
  const open = () => run(async () => update(await post<ArrivalView>('/arrival/door', { code })));
  if (live?.triesLeft === 0) return <Notice tone="care">{t('codeShut')}</Notice>;
  return (
    <form
      className="space-y-2"
      onSubmit={(event) => {
        event.preventDefault();
        void open();
      }}
    >
      <label className="block font-semibold" htmlFor="door-code">
        {t('code')}
      </label>
      <p id="door-code-help" className="text-[0.9rem] text-soft">
        {t('codeHelp')}
      </p>
      <div className="flex flex-wrap gap-3">
        <input
          id="door-code"
          aria-describedby="door-code-help"
          autoComplete="off"
          inputMode="numeric"
          maxLength={40}
          value={code}
          onChange={(event) => setCode(event.target.value)}
          className="min-h-11 w-48 rounded-control border border-edge bg-card px-3 font-mono text-[1.15rem]"
        />
        <Button type="submit" look="first" className="min-h-11" disabled={busy || code.trim() === ''}>
          {t('codeGo')}
        </Button>
      </div>
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
    </form>
  );
}

/** The camera goes on being looked at, so that nobody starts with a lens that was covered meanwhile. */
function Equipment() {
  const { live } = useArrival();
  const [finding, setFinding] = useState<Finding | null>(null);
  const onFinding = useCallback((next: Finding | null) => setFinding(next), []);
  const good = finding?.outcome === 'good';
  const Icon = good ? Check : TriangleAlert;
  return (
    <section className="rounded-card border border-line bg-card px-5 pt-4">
      <p className="mb-3 text-[0.92rem] text-soft">{t('watching')}</p>
      <CameraCheck onFinding={onFinding} />
      <div className="space-y-1 pb-4 text-[0.92rem]">
        <p role="status" className="flex items-center gap-2 empty:hidden">
          {finding && (
            <>
              <Icon aria-hidden className={`size-4 flex-none ${good ? 'text-kelp' : 'text-marigold'}`} />
              {finding.words}
              {finding.remedy ? `. ${finding.remedy}` : ''}
            </>
          )}
        </p>
        {live && (
          <p className="flex items-center gap-2">
            <Check aria-hidden className="size-4 flex-none text-kelp" /> {t('lineHolds')}
          </p>
        )}
      </div>
    </section>
  );
}

/** What one waits for, one's place in line, the door code, and words with the invigilator. */
export function Waiting() {
  const { view, live } = useArrival();
  const { startRule, opensAt } = view.round;
  const left = useUntil(opensAt, live?.now ?? view.now);
  const when = showMoment(opensAt);
  const words = {
    'opening time': 'waitingOpening',
    'door code': 'waitingCode',
    'by hand': 'waitingHand',
  } as const;
  return (
    <>
      <StepTitle title={t('waitingTitle')} text={t(words[startRule], { when })} />
      <div className="space-y-5">
        <section className="rounded-card border border-line bg-card px-6 py-5">
          {left > 0 ? (
            <p role="timer" className="text-[1.5rem] font-semibold">
              {t('until', { clock: showClock(left) })}
            </p>
          ) : (
            startRule === 'door code' && <DoorCode />
          )}
          {startRule === 'by hand' && live?.place != null && (
            <p className="mt-1">{t('place', { place: live.place })}</p>
          )}
        </section>
        <section className="rounded-card border border-line bg-card px-6 py-5">
          <h2 className="mb-2 font-semibold">{t('talkTitle')}</h2>
          {live && live.messages.length > 0 ? (
            <Talk messages={live.messages} />
          ) : (
            <p className="text-[0.92rem] text-soft">{t('talkNone')}</p>
          )}
        </section>
        {view.checks.demanded.includes('camera') && <Equipment />}
      </div>
    </>
  );
}
