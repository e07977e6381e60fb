import type { ReactNode } from 'react';
import { allowedMs } from '../../core/timing/deadline';
import { showLength } from '../../core/timing/pace';
import { ownZone, showMoment } from '../ui/times';
import { useArrival } from './ArrivalContext';
import { t } from './words';

function Line({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className="grid gap-x-4 border-b border-line py-3.5 last:border-0 desk:grid-cols-[11rem_1fr]">
      <dt className="text-soft">{label}</dt>
      <dd>{children}</dd>
    </div>
  );
}

/** Before the window opens, and after it has closed: what happened, what to do, whom to ask. */
export function Outside({ over }: { over: boolean }) {
  const { round, time, attempt } = useArrival().view;
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
      <h1 className="font-serif text-[1.75rem] leading-tight font-semibold">
        {over ? t('overTitle') : t('earlyTitle', { when: own.from })}
      </h1>
      <p className="mt-2 mb-5">{over ? t('overText', { when: own.to }) : t('earlyText')}</p>
      <dl className="rounded-card border border-line bg-card px-5">
        <Line label={t('when')}>
          {t('window', own)} <span className="text-soft">({t('yourZone', { zone })})</span>
          {zone !== round.timeZone && <p className="text-[0.9rem] text-soft">{t('theirZone', theirs)}</p>}
        </Line>
        {!over && (
          <>
            <Line label={t('howLong')}>{showLength(allowedMs(time.limitMs, time.extraPercent))}</Line>
            <Line label={t('attempts')}>
              {t('attemptOf', { number: attempt, all: round.attemptsAllowed })}
            </Line>
            <Line label={t('prepare')}>{t('prepareText')}</Line>
            <Line label={t('recorded')}>{round.recorded}</Line>
          </>
        )}
        <Line label={t('help')}>{round.help}</Line>
      </dl>
    </div>
  );
}
