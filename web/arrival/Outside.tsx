import { CalendarPlus, PencilLine } from 'lucide-react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { allowedMs, MINUTE_MS } from '../../core/timing/deadline';
import { showLength } from '../../core/timing/pace';
import { ownZone, showDuration, showMoment } from '../ui/times';
import { useArrival } from './ArrivalContext';
import { useUntil } from './steps/Waiting';
import { say } from '../words';
import { t } from './words';
import { PageHeading } from '../ui/PageHeading';

function Line({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className="grid gap-x-4 border-b border-line py-3.5 last:border-0 desk:grid-cols-[11rem_1fr]">
      <dt className="text-soft">{label}</dt>
      <dd>{children}</dd>
    </div>
  );
}

function HowLong() {
  const { limitMs, extraPercent, breakMinutes } = useArrival().view.time;
  const own = allowedMs(limitMs, extraPercent);
  const extra = { own: showLength(own), extra: showLength(own - limitMs), percent: extraPercent };
  return (
    <>
      {extraPercent > 0 ? t('whyExtra', extra) : showLength(own)}
      {breakMinutes > 0 && <> {t('breaks', { minutes: breakMinutes })}</>}
    </>
  );
}

/** Counts down to the opening, and offers what can be done until then. */
function BeforeOpening() {
  const { view, live, link } = useArrival();
  const { round } = view;
  const minutes = Math.max(1, Math.ceil(useUntil(round.opensAt, live?.now ?? view.now) / MINUTE_MS));
  const act =
    'inline-flex min-h-11 items-center gap-2 rounded-control border border-line bg-card px-3.5 hover:border-edge';
  return (
    <section className="mb-5 rounded-card border border-line bg-card px-6 py-5">
      <p role="timer" className="text-[1.5rem] font-semibold">
        {t('countdown', { length: showDuration(minutes) })}
      </p>
      <p className="mt-1 text-soft">{t('doorsFrom', { when: showMoment(round.doorsAt) })}</p>
      <div className="mt-4 flex flex-wrap items-center gap-3">
        <Link to={`/i/${link}/rehearsal`} className={act}>
          <PencilLine aria-hidden className="size-5" /> {t('rehearse')}
        </Link>
        <a href="/api/arrival/test-window.ics" className={act}>
          <CalendarPlus aria-hidden className="size-5" /> {t('calendar')}
        </a>
      </div>
      <p className="mt-2 text-[0.9rem] text-soft">{t('rehearseHelp')}</p>
    </section>
  );
}

/** Before the window opens, and after it has closed: what happened, what to do, whom to ask. */
export function Outside({ over }: { over: boolean }) {
  const { organisation, round } = useArrival().view;
  const own = { from: showMoment(round.opensAt), to: showMoment(round.closesAt) };
  const zone = ownZone();
  const theirs = {
    zone: round.timeZone,
    from: showMoment(round.opensAt, round.timeZone),
    to: showMoment(round.closesAt, round.timeZone),
  };
  return (
    <div className="mx-auto max-w-[720px]">
      <p className="text-soft">{round.paperTitle}</p>
      <PageHeading
        context={round.paperTitle}
        className="font-serif text-[1.75rem] leading-tight font-semibold"
      >
        {over ? t('overTitle') : t('earlyTitle', { when: own.from })}
      </PageHeading>
      <p className="mt-2 mb-5">{over ? t('overText', { when: own.to, organisation }) : t('earlyText')}</p>
      {!over && <BeforeOpening />}
      <dl className="rounded-card border border-line bg-card px-5">
        <Line label={t('when')}>
          {t('window', own)} <span className="text-soft">({t('yourZone', { zone })})</span>
          {zone !== round.timeZone && <p className="text-[0.9rem] text-soft">{t('theirZone', theirs)}</p>}
        </Line>
        {!over && (
          <>
            <Line label={t('howLong')}>
              <HowLong />
            </Line>
            <Line label={t('attempts')}>{round.attempts.map(say).join(' ')}</Line>
            <Line label={t('prepare')}>{t('prepareText')}</Line>
            <Line label={t('recorded')}>{round.recorded.map(say).join(' ')}</Line>
          </>
        )}
        <Line label={t('help')}>{round.help}</Line>
      </dl>
    </div>
  );
}
