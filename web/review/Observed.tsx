import { useState } from 'react';
import {
  weights,
  type SittingReview,
  type WeighedObservation,
  type Weight,
} from '../../core/observations/review';
import { showLength } from '../../core/timing/pace';
import { Button } from '../ui/Button';
import { LongText } from '../ui/LongText';
import { Notice } from '../ui/Notice';
import { Pill } from '../ui/Pill';
import { showSecond } from '../ui/showSecond';
import { useAction } from '../ui/useAsync';
import type { Act } from './act';
import { seenWords } from './seenWords';
import { t } from './words';

const lengthOf = ({ from, to }: { readonly from: number; readonly to: number }) =>
  to - from < 1000 ? '' : showLength(to - from);

/** What a person makes of an observation, with the reason. */
export function Weighing({ one, act }: { readonly one: WeighedObservation; readonly act: Act }) {
  const [reason, setReason] = useState(one.reason);
  const { busy, trouble, run } = useAction();
  return (
    <div>
      <label className="block">
        {t('reason')}
        <input
          value={reason}
          maxLength={1000}
          onChange={(event) => setReason(event.target.value)}
          className="mt-1 block min-h-10 w-full rounded-control border border-edge bg-card px-3"
        />
      </label>
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
      <div className="mt-2 flex flex-wrap gap-2">
        {weights.map((weight: Weight) => (
          <Button
            key={weight}
            look={one.weight === weight ? 'first' : 'plain'}
            aria-pressed={one.weight === weight}
            disabled={busy || reason.trim().length < 2}
            onClick={() => void run(() => act('weigh', { observation: one.id, weight, reason }))}
          >
            {t(`act ${weight}`)}
          </Button>
        ))}
      </div>
    </div>
  );
}

/** Asks the candidate, about an observation or at all. */
export function Ask({ observation, act }: { readonly observation: number | null; readonly act: Act }) {
  const [question, setQuestion] = useState('');
  const { busy, trouble, run } = useAction();
  const send = () =>
    run(async () => {
      await act('ask', { observation, question });
      setQuestion('');
    });
  return (
    <details className="mt-3">
      <summary className="min-h-8 py-1 text-slate">{t('ask')}</summary>
      <LongText label={t('question')} value={question} onChange={setQuestion} />
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
      <Button disabled={busy || question.trim().length < 2} onClick={() => void send()} className="mt-1">
        {t('askAct')}
      </Button>
    </details>
  );
}

export function Observations({
  data,
  chosen,
  onChoose,
}: {
  readonly data: SittingReview;
  readonly chosen: number | null;
  readonly onChoose: (one: WeighedObservation) => void;
}) {
  if (data.observations.length === 0) return <p className="text-soft">{t('none')}</p>;
  return (
    <table className="w-full">
      <thead>
        <tr className="border-b border-line text-left text-[0.85rem] text-soft">
          {(['when', 'what', 'lasted', 'weighed'] as const).map((head) => (
            <th key={head} scope="col" className="px-2 py-1.5 font-semibold">
              {t(head)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {data.observations.map((one) => (
          <tr key={one.id} className={`border-b border-line/70 ${chosen === one.id ? 'bg-shade' : ''}`}>
            <td className="px-2 py-1.5 whitespace-nowrap">{showSecond(one.from)}</td>
            <th scope="row" className="px-2 py-1.5 text-left font-normal">
              <button
                type="button"
                onClick={() => onChoose(one)}
                className="underline decoration-line underline-offset-4"
              >
                {seenWords(one.kind)}
              </button>
            </th>
            <td className="px-2 py-1.5 whitespace-nowrap">{lengthOf(one)}</td>
            <td className="px-2 py-1.5">
              {one.weight === null ? (
                '–'
              ) : (
                <Pill tone={one.weight === 'nothing to note' ? 'good' : 'care'}>
                  {t(`weight ${one.weight}`)}
                  {one.reason && `: ${one.reason}`}
                </Pill>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
