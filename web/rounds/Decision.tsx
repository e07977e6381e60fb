import { useState } from 'react';
import type { RoundDetail } from '../../core/rounds/api';
import type { DecisionChoice, OpenDecision } from '../../core/rounds/decisions';
import { post } from '../api/client';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { showSecond } from '../ui/showSecond';
import { useAction } from '../ui/useAsync';
import { t } from './words';

interface Props {
  readonly round: RoundDetail;
  readonly decision: OpenDecision;
  readonly onDecided: (round: RoundDetail) => void;
}

/** What happened, in figures; the claimed hand-in only where there is one. */
function Facts({ decision: { kind, facts, closedAt, claimedHandInAt } }: { decision: OpenDecision }) {
  const at = (value: number | undefined) => showSecond(value ?? 0);
  return (
    <p className="mt-2">
      {kind === 'late-entries' && (
        <>
          <b>{t('lateCount', { count: facts.count ?? 0 })}</b>,{' '}
          {t('lateWhen', {
            madeFrom: at(facts.madeFrom),
            madeTo: at(facts.madeTo),
            arrivedFrom: at(facts.arrivedFrom),
            arrivedTo: at(facts.arrivedTo),
            deadline: at(closedAt),
          })}
        </>
      )}
      {kind === 'missing-entries' && <b>{t('missingCount', { count: facts.count ?? 0 })}</b>}
      {kind === 'late-pages' && (
        <b>
          {[
            facts.late ? t('pagesLate', { count: facts.late }) : '',
            facts.count ? t('pagesMissing', { count: facts.count }) : '',
          ]
            .filter(Boolean)
            .join(', ')}
        </b>
      )}
      {claimedHandInAt !== null && closedAt - claimedHandInAt > 10_000 && (
        <span className="block text-soft">{t('claimedAt', { time: showSecond(claimedHandInAt) })}</span>
      )}
    </p>
  );
}

function Changes({ decision: { kind, changes } }: { decision: OpenDecision }) {
  // Pages are looked at when they are marked: in words nothing differs.
  if (kind === 'missing-entries' || kind === 'late-pages') return null;
  if (changes.length === 0) return <p className="mt-2">{t('lateNone')}</p>;
  return (
    <ul className="mt-2 space-y-2">
      {changes.map((change) => (
        <li
          key={change.question}
          className="grid gap-x-4 border-t border-line/70 pt-2 desk:grid-cols-[11rem_1fr_1fr]"
        >
          <b>{change.question}</b>
          <p>
            <span className="block text-[0.85rem] text-soft">{t(`leave ${kind}`)}</span>
            {change.leave || t('lateNothing')}
          </p>
          <p>
            <span className="block text-[0.85rem] text-soft">{t(`take ${kind}`)}</span>
            {change.take || t('lateNothing')}
          </p>
        </li>
      ))}
    </ul>
  );
}

/** What only a coordinator can decide of one candidate's paper: what happened, what it would change, and the decision. */
export function Decision({ round, decision, onDecided }: Props) {
  const [reason, setReason] = useState('');
  const { busy, trouble, run } = useAction();
  const { id, kind, name, reference, facts } = decision;
  const onlyLeave = kind === 'missing-entries' || (kind === 'late-pages' && !facts.late);
  const decide = (choice: DecisionChoice) =>
    run(async () => {
      onDecided(await post<RoundDetail>(`/rounds/${round.id}/decisions`, { id, choice, reason }));
    });
  const disabled = busy || reason.trim().length < 2;
  return (
    <section className="mb-4 rounded-card border border-marigold-line bg-card p-5">
      <h2 className="font-semibold">
        {t(`decision ${kind}`)} · {name}, {reference}
      </h2>
      <p className="text-[0.92rem] text-soft">{t(`about ${kind}`)}</p>
      <Facts decision={decision} />
      <Changes decision={decision} />
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
        {onlyLeave ? (
          <Button look="first" disabled={disabled} onClick={() => void decide('leave')}>
            {t(`doLeave ${kind}`)}
          </Button>
        ) : (
          <>
            <Button look="first" disabled={disabled} onClick={() => void decide('take')}>
              {t(`doTake ${kind}`)}
            </Button>
            <Button disabled={disabled} onClick={() => void decide('leave')}>
              {t(`doLeave ${kind}`)}
            </Button>
          </>
        )}
      </div>
      {trouble && (
        <div className="mt-3">
          <Notice tone="trouble">{trouble}</Notice>
        </div>
      )}
    </section>
  );
}
