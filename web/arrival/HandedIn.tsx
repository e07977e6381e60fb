import { Check } from 'lucide-react';
import { Suspense, useState } from 'react';
import type { MarkingProgress } from '../../core/arrival/api';
import { ReviewQuestions } from '../results/ReviewQuestions';
import { showLength } from '../../core/timing/pace';
import { post } from '../api/client';
import { Button } from '../ui/Button';
import { lazily } from '../ui/later';
import { useAction } from '../ui/useAsync';
import { showDay, showMoment } from '../ui/times';
import { useArrival } from './ArrivalContext';
import { Questionnaire } from './Questionnaire';
import { t } from './words';

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

/** After hand-in: the receipt, what was answered, and what is being marked until when. */
export function HandedIn() {
  const { link, view } = useArrival();
  const { receipt, marking, round, questionnaire } = view;
  if (!receipt) return null;
  const facts = [
    [t('handedAt'), showMoment(receipt.handedInAt)],
    [t('used'), showLength(receipt.usedMs)],
    [t('answered'), t('answeredOf', { answered: receipt.answered, all: receipt.parts })],
  ];
  const day = showDay(round.resultBy);
  return (
    <div className="mx-auto max-w-[720px]">
      <p className="text-soft">{round.paperTitle}</p>
      <h1 className="flex items-center gap-3 font-serif text-[1.75rem] leading-tight font-semibold">
        <span aria-hidden className="grid size-8 flex-none place-items-center rounded-full bg-kelp text-on">
          <Check className="size-5" strokeWidth={2.6} />
        </span>
        {t('handedTitle')}
      </h1>
      {receipt.closedBy !== 'candidate' && (
        <p className="mt-2">{t(receipt.closedBy === 'time' ? 'handedByTime' : 'handedByServer')}</p>
      )}
      {receipt.claimedAt !== null && (
        <p className="mt-2">{t('claimedEarlier', { when: showMoment(receipt.claimedAt) })}</p>
      )}
      <Suspense>
        <PagesStillHere link={link} />
      </Suspense>
      <section className="mt-5 rounded-card border border-line bg-card px-6 py-5">
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
      <h2 className="mt-6 font-semibold">{t('beingMarked')}</h2>
      {marking && <Progress marking={marking} />}
      <p>{t('resultBy', { day })}</p>
      <ReviewQuestions />
      <p className="mt-3 text-soft">{round.help}</p>
      {questionnaire && <Questionnaire />}
    </div>
  );
}
