import { Check } from 'lucide-react';
import { Suspense, useState } from 'react';
import { Link } from 'react-router';
import type { ArrivalView, MarkingProgress } from '../../core/arrival/api';
import { showMarks } from '../../core/marks';
import type { Receipt } from '../../core/sittings/api';
import { ReviewQuestions } from '../results/ReviewQuestions';
import { showLength } from '../../core/timing/pace';
import { post } from '../api/client';
import { Button } from '../ui/Button';
import { lazily } from '../ui/later';
import { Notice } from '../ui/Notice';
import { say } from '../words';
import { useAction } from '../ui/useAsync';
import { showDay, showMoment } from '../ui/times';
import { useArrival } from './ArrivalContext';
import { Questionnaire } from './Questionnaire';
import { useUntil } from './steps/Waiting';
import { t } from './words';
import { PageHeading } from '../ui/PageHeading';

const PagesStillHere = lazily(async () => (await import('../pages/PagesStillHere')).PagesStillHere);

interface Checked {
  readonly matches: boolean;
  readonly whole: boolean;
}

/** Later, a candidate can see that the code they kept is that of what is stored. */
function ReceiptCheck() {
  const [code, setCode] = useState('');
  const [checked, setChecked] = useState<Checked | null>(null);
  const { busy, trouble, run } = useAction();
  const { organisation } = useArrival().view;
  const check = () => run(async () => setChecked(await post<Checked>('/arrival/receipt-check', { code })));
  const words =
    checked && (checked.matches ? (checked.whole ? 'receiptWhole' : 'receiptBroken') : 'receiptOther');
  return (
    <form
      className="mt-4 border-t border-line pt-4"
      onSubmit={(event) => {
        event.preventDefault();
        void check();
      }}
    >
      <div className="flex flex-wrap gap-3">
        <input
          aria-label={t('receiptField')}
          placeholder="XXXX-XXXX-XXXX"
          value={code}
          maxLength={40}
          onChange={(event) => setCode(event.target.value)}
          className="min-h-11 w-52 rounded-control border border-edge bg-card px-3 font-mono uppercase placeholder:text-soft"
        />
        <Button type="submit" className="min-h-11" disabled={busy || code.trim() === ''}>
          {t('receiptCheck')}
        </Button>
      </div>
      <p role="status" className="mt-2 text-[0.92rem]">
        {trouble ?? (words && t(words, { organisation }))}
      </p>
    </form>
  );
}

/** What is scored, and who reads what: never “nothing found”. */
function Progress({ marking }: { readonly marking: MarkingProgress }) {
  const { scored, questions, reading, scoring } = marking;
  if (scoring) return <p>{t('beingScored')}</p>;
  if (reading.length === 0) return <p>{t('allMarked')}</p>;
  return (
    <>
      <p>{t('scoredOf', { scored, all: questions })}</p>
      {reading.map(({ title, assessors }) => (
        <p key={title}>{t('readBy', { count: assessors, title })}</p>
      ))}
    </>
  );
}

/** The receipt of a hand-in: its code, when, how long it took, and how much was answered. */
export function ReceiptCard({ receipt }: { readonly receipt: Receipt }) {
  const facts = [
    [t('handedAt'), showMoment(receipt.handedInAt)],
    [t('used'), showLength(receipt.usedMs)],
    [t('answered'), t('answeredOf', { answered: receipt.answered, all: receipt.parts })],
  ];
  return (
    <section className="no-print mt-5 rounded-card border border-line bg-card px-6 py-5">
      <h2 className="text-soft">{t('receipt')}</h2>
      <p className="font-mono text-[1.55rem] font-semibold tracking-wide">{receipt.code}</p>
      <p className="text-[0.9rem] text-soft">{t('receiptHelp')}</p>
      {receipt.earlier.map(({ code, at }) => (
        <p key={code} className="mt-1 text-[0.9rem] text-soft">
          {t('receiptEarlier', { code, when: showMoment(at) })}
        </p>
      ))}
      <dl className="mt-4 grid gap-x-6 gap-y-3 desk:grid-cols-3">
        {facts.map(([label, value]) => (
          <div key={label}>
            <dt className="text-[0.85rem] text-soft">{label}</dt>
            <dd className="font-semibold">{value}</dd>
          </div>
        ))}
      </dl>
      <ReceiptCheck />
    </section>
  );
}

/** The attempts that were handed in, with what is marked of them. */
function Attempts() {
  const { link, view } = useArrival();
  return (
    <>
      <h2 className="mt-6 font-semibold">{t('yourAttempts')}</h2>
      <ul className="mt-2 divide-y divide-line rounded-card border border-line bg-card px-6">
        {view.attempts.map(({ attempt, receipt, marks, counts }) => (
          <li key={attempt} className="flex flex-wrap items-baseline gap-x-5 gap-y-1 py-3">
            <b>{t('attemptNumber', { number: attempt })}</b>
            <span className="text-soft">{showMoment(receipt.handedInAt)}</span>
            <span className="font-mono text-[0.92rem]">{receipt.code}</span>
            {marks ? (
              <>
                <span>
                  <b>{showMarks(marks.hundredths)}</b>{' '}
                  <span className="text-soft">
                    {t(marks.complete ? 'marksOf' : 'marksSoFar', { all: showMarks(marks.of) })}
                  </span>
                </span>
                {counts && <span className="font-semibold text-kelp">{t('countsNow')}</span>}
                <Link to={`/i/${link}?sheet=${attempt}`} className="ml-auto text-slate underline">
                  {t('seeSheet', { number: attempt })}
                </Link>
              </>
            ) : (
              <span className="text-soft">{t('notMarkedYet')}</span>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}

/** The next attempt: what it means, and the step to it, which does not start the clock. */
function NextAttempt({ next, from }: { readonly next: number; readonly from: number }) {
  const { view, live, update } = useArrival();
  const waits = useUntil(from, live?.now ?? view.now) > 0;
  const { busy, trouble, run } = useAction();
  const begin = () => run(async () => update(await post<ArrivalView>('/arrival/attempt', { attempt: next })));
  return (
    <section className="mt-6" aria-labelledby="next-attempt">
      <h2 id="next-attempt" className="font-semibold">
        {t('nextAttempt')}
      </h2>
      <p>{view.round.attempts.map(say).join(' ')}</p>
      <p className="text-soft">{t('nextAttemptText', { when: showMoment(view.round.closesAt) })}</p>
      <div className="mt-3 flex flex-wrap items-center gap-4">
        <Button className="min-h-11" disabled={waits || busy} onClick={() => void begin()}>
          {t('startAttempt', { next, all: view.round.attemptsAllowed })}
        </Button>
        <p role="status" className="text-[0.92rem] text-soft">
          {waits && t('attemptFrom', { when: showMoment(from) })}
        </p>
      </div>
      {trouble && (
        <div className="mt-3">
          <Notice tone="trouble">{trouble}</Notice>
        </div>
      )}
    </section>
  );
}

/** After a hand-in: the receipt, what is being marked until when, and the next attempt where there is one. */
export function HandedIn() {
  const { link, view } = useArrival();
  const { receipt, marking, round, stage, attempts } = view;
  if (!receipt) return null;
  const day = showDay(round.resultBy);
  const [newest] = attempts.toReversed();
  const several = round.attemptsAllowed > 1;
  return (
    <div className="mx-auto max-w-[720px]">
      <p className="text-soft">{round.paperTitle}</p>
      <PageHeading
        context={round.paperTitle}
        className="flex items-center gap-3 font-serif text-[1.75rem] leading-tight font-semibold"
      >
        <span aria-hidden className="grid size-8 flex-none place-items-center rounded-full bg-kelp text-on">
          <Check className="size-5" strokeWidth={2.6} />
        </span>
        {several && newest
          ? t('handedAttempt', { number: newest.attempt, all: round.attemptsAllowed })
          : t('handedTitle')}
      </PageHeading>
      {receipt.closedBy !== 'candidate' && (
        <p className="mt-2">{t(receipt.closedBy === 'time' ? 'handedByTime' : 'handedByServer')}</p>
      )}
      {receipt.claimedAt !== null && (
        <p className="mt-2">{t('claimedEarlier', { when: showMoment(receipt.claimedAt) })}</p>
      )}
      <Suspense>
        <PagesStillHere link={link} />
      </Suspense>
      <ReceiptCard receipt={receipt} />
      {!newest?.marks && (
        <>
          <h2 className="mt-6 font-semibold">{t('beingMarked')}</h2>
          {marking && <Progress marking={marking} />}
          <p>{t('resultBy', { day })}</p>
        </>
      )}
      {several && <Attempts />}
      {stage.at === 'between' && <NextAttempt next={stage.next} from={stage.from} />}
      <ReviewQuestions />
      <p className="mt-3 text-soft">{round.help}</p>
      <p className="mt-5 text-[0.92rem] text-soft">{t('canClose')}</p>
      <Questionnaire />
    </div>
  );
}
