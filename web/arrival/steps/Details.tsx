import { useState } from 'react';
import { Link } from 'react-router';
import type { ArrivalView } from '../../../core/arrival/api';
import { post } from '../../api/client';
import { Button } from '../../ui/Button';
import { Notice } from '../../ui/Notice';
import { useAction } from '../../ui/useAsync';
import { useArrival } from '../ArrivalContext';
import { StepTitle } from '../Steps';
import { say } from '../../words';
import { t } from '../words';

export function Details() {
  const { view, update, link } = useArrival();
  const [wrong, setWrong] = useState(false);
  const [correction, setCorrection] = useState('');
  const { busy, trouble, run } = useAction();
  const confirm = (text: string | null) =>
    run(async () => update(await post<ArrivalView>('/arrival/details', { correction: text })));
  const facts = [
    [t('name'), view.candidate.name],
    [t('email'), view.candidate.email],
    [t('reference'), view.candidate.reference],
  ];
  if (view.correction !== null)
    return (
      <>
        <StepTitle title={t('detailsTitle')} />
        <div className="mt-4">
          <Notice tone="care">{t('detailsAsked', { correction: view.correction })}</Notice>
        </div>
      </>
    );
  return (
    <>
      <StepTitle title={t('detailsTitle')} text={t('detailsText')} />
      {view.round.attemptsAllowed > 1 && (
        <p className="mb-4">
          {t('detailsAttempt', { number: view.attempt, all: view.round.attemptsAllowed })}{' '}
          {view.round.attempts.map(say).join(' ')}
        </p>
      )}
      <dl className="rounded-card border border-line bg-card px-5">
        {facts.map(([label, value]) => (
          <div
            key={label}
            className="grid gap-x-4 border-b border-line py-3.5 last:border-0 desk:grid-cols-[9rem_1fr]"
          >
            <dt className="text-soft">{label}</dt>
            <dd className="font-semibold break-words">{value}</dd>
          </div>
        ))}
      </dl>
      {wrong && (
        <div className="mt-4">
          <label className="block font-semibold" htmlFor="correction">
            {t('detailsWrong')}
          </label>
          <p id="correction-help" className="text-[0.9rem] text-soft">
            {t('detailsWrongHelp')}
          </p>
          <textarea
            id="correction"
            aria-describedby="correction-help"
            rows={3}
            maxLength={500}
            value={correction}
            onChange={(event) => setCorrection(event.target.value)}
            className="mt-2 w-full rounded-control border border-edge bg-card p-3"
          />
        </div>
      )}
      {trouble && (
        <div className="mt-4">
          <Notice tone="trouble">{trouble}</Notice>
        </div>
      )}
      <div className="mt-5 flex flex-wrap items-center gap-3">
        {wrong ? (
          <Button
            look="first"
            className="min-h-11"
            disabled={busy || correction.trim() === ''}
            onClick={() => void confirm(correction.trim())}
          >
            {t('detailsSend')}
          </Button>
        ) : (
          <>
            <Button look="first" className="min-h-11" disabled={busy} onClick={() => void confirm(null)}>
              {t('detailsYes')}
            </Button>
            <Button className="min-h-11" onClick={() => setWrong(true)}>
              {t('detailsNo')}
            </Button>
            <Link to={`/i/${link}/rehearsal`} className="ml-auto text-slate underline underline-offset-4">
              {t('practiseFirst')}
            </Link>
          </>
        )}
      </div>
    </>
  );
}
