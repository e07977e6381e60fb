import { useState } from 'react';
import type { LateArrivals, RoundDetail } from '../../core/rounds/api';
import { post } from '../api/client';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { showSecond } from '../ui/showSecond';
import { useAction } from '../ui/useAsync';
import { t } from './words';

interface Props {
  readonly round: RoundDetail;
  readonly late: LateArrivals;
  readonly onDecided: (round: RoundDetail) => void;
}

/** Late arrivals of one candidate, what they would change, and the coordinator's decision with its reason. */
export function Late({ round, late, onDecided }: Props) {
  const [reason, setReason] = useState('');
  const { busy, trouble, run } = useAction();
  const decide = (count: boolean) =>
    run(async () => {
      const body = { sitting: late.sitting, count, reason };
      onDecided(await post<RoundDetail>(`/rounds/${round.id}/late`, body));
    });
  const times = {
    madeFrom: showSecond(late.madeFrom),
    madeTo: showSecond(late.madeTo),
    arrivedFrom: showSecond(late.arrivedFrom),
    arrivedTo: showSecond(late.arrivedTo),
    deadline: showSecond(late.deadlineAt),
  };
  const disabled = busy || reason.trim().length < 2;
  return (
    <section className="mb-4 rounded-card border border-marigold-line bg-card p-5">
      <h2 className="font-semibold">
        {t('lateTitle')} · {late.name}, {late.reference}
      </h2>
      <p className="text-[0.92rem] text-soft">{t('lateText')}</p>
      <p className="mt-2">
        <b>{t('lateCount', { count: late.count })}</b>, {t('lateWhen', times)}
      </p>
      {late.changes.length === 0 && <p className="mt-2">{t('lateNone')}</p>}
      <ul className="mt-2 space-y-2">
        {late.changes.map((change) => (
          <li
            key={change.question}
            className="grid gap-x-4 border-t border-line/70 pt-2 desk:grid-cols-[11rem_1fr_1fr]"
          >
            <b>{change.question}</b>
            <p>
              <span className="block text-[0.85rem] text-soft">{t('lateNow')}</span>
              {change.counted || t('lateNothing')}
            </p>
            <p>
              <span className="block text-[0.85rem] text-soft">{t('lateThen')}</span>
              {change.late || t('lateNothing')}
            </p>
          </li>
        ))}
      </ul>
      <div className="mt-3 flex flex-wrap items-end gap-3">
        <label className="min-w-64 flex-1 text-[0.92rem]">
          {t('lateReason')}
          <input
            value={reason}
            maxLength={500}
            onChange={(event) => setReason(event.target.value)}
            className="mt-1 block min-h-10 w-full rounded-control border border-edge bg-card px-3"
          />
        </label>
        <Button look="first" disabled={disabled} onClick={() => void decide(true)}>
          {t('lateTake')}
        </Button>
        <Button disabled={disabled} onClick={() => void decide(false)}>
          {t('lateLeave')}
        </Button>
      </div>
      {trouble && (
        <div className="mt-3">
          <Notice tone="trouble">{trouble}</Notice>
        </div>
      )}
    </section>
  );
}
