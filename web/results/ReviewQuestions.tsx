import { useState } from 'react';
import { get, post } from '../api/client';
import { Button } from '../ui/Button';
import { LongText } from '../ui/LongText';
import { Notice } from '../ui/Notice';
import { showMoment } from '../ui/times';
import { useAction, useLoaded } from '../ui/useAsync';
import { words } from '../words';

const t = words('reviewQuestions', {
  title: 'A question to you',
  asked: 'Asked on {{when}}',
  yours: 'Your answer',
  send: 'Send the answer',
  answered: 'You answered on {{when}}:',
  once: 'You can answer once. Write what happened in your own words.',
});

interface Asked {
  readonly id: number;
  readonly question: string;
  readonly askedAt: number;
  readonly answer: string | null;
  readonly answeredAt: number | null;
}

function Question({
  asked,
  onAnswered,
}: {
  readonly asked: Asked;
  readonly onAnswered: (all: Asked[]) => void;
}) {
  const [answer, setAnswer] = useState('');
  const { busy, trouble, run } = useAction();
  const send = () =>
    run(async () => onAnswered(await post<Asked[]>(`/review-questions/${asked.id}`, { answer })));
  return (
    <li className="rounded-card border border-line bg-card px-5 py-4">
      <p className="text-[0.85rem] text-soft">{t('asked', { when: showMoment(asked.askedAt) })}</p>
      <p className="font-semibold whitespace-pre-wrap">{asked.question}</p>
      {asked.answer !== null ? (
        <p className="mt-2 whitespace-pre-wrap">
          <span className="text-soft">{t('answered', { when: showMoment(asked.answeredAt!) })}</span>{' '}
          {asked.answer}
        </p>
      ) : (
        <>
          <LongText
            label={t('yours')}
            value={answer}
            onChange={setAnswer}
            rows={3}
            most={4000}
            className="mt-2"
          />
          <p className="text-[0.88rem] text-soft">{t('once')}</p>
          {trouble && <Notice tone="trouble">{trouble}</Notice>}
          <Button disabled={busy || answer.trim() === ''} onClick={() => void send()} className="mt-2">
            {t('send')}
          </Button>
        </>
      )}
    </li>
  );
}

/** What whoever reviews the sitting asks the candidate; nothing where nothing is asked. */
export function ReviewQuestions() {
  const [loaded, , replace] = useLoaded<Asked[]>('review questions', () => get<Asked[]>('/review-questions'));
  if (loaded.state !== 'here' || loaded.value.length === 0) return null;
  return (
    <section aria-label={t('title')} className="no-print mt-5">
      <h2 className="mb-2 font-semibold">{t('title')}</h2>
      <ul className="space-y-3">
        {loaded.value.map((asked) => (
          <Question key={asked.id} asked={asked} onAnswered={replace} />
        ))}
      </ul>
    </section>
  );
}
