import { useState } from 'react';
import { sittingVerdicts, type SittingReview, type SittingVerdict } from '../../core/observations/review';
import { Button } from '../ui/Button';
import { Card } from '../ui/Card';
import { LongText } from '../ui/LongText';
import { Notice } from '../ui/Notice';
import { showMoment } from '../ui/times';
import { useAction } from '../ui/useAsync';
import type { Act } from './act';
import { t } from './words';

/** Whether the sitting stands; void takes effect once a second coordinator agrees. */
export function Decide({
  data,
  act,
  coordinates,
}: {
  readonly data: SittingReview;
  readonly act: Act;
  readonly coordinates: boolean;
}) {
  const [verdict, setVerdict] = useState<SittingVerdict>('stands');
  const [reason, setReason] = useState('');
  const { busy, trouble, run } = useAction();
  const known = data.verdict;
  return (
    <Card title={t('decide')}>
      {known && (
        <>
          <p>
            {t('verdictBy', {
              verdict: t(`verdict ${known.verdict}`),
              reason: known.reason,
              by: known.by,
              when: showMoment(known.at, data.timeZone),
            })}
          </p>
          {known.verdict === 'void' && (
            <p className={known.agreedBy ? '' : 'text-marigold'}>
              {known.agreedBy ? t('agreedBy', { name: known.agreedBy }) : t('waitsForSecond')}
            </p>
          )}
          {known.mayAgree && coordinates && (
            <Button
              look="first"
              disabled={busy}
              onClick={() => void run(() => act('agree', { id: known.id }))}
              className="my-2"
            >
              {t('agree')}
            </Button>
          )}
        </>
      )}
      {coordinates && (
        <>
          <div role="radiogroup" aria-label={t('decide')} className="flex flex-wrap gap-2 py-1">
            {sittingVerdicts.map((one) => (
              <button
                key={one}
                type="button"
                role="radio"
                aria-checked={verdict === one}
                onClick={() => setVerdict(one)}
                className={`min-h-9 rounded-control border px-3 ${verdict === one ? 'border-kelp bg-wash font-semibold' : 'border-line bg-card'}`}
              >
                {t(`verdict ${one}`)}
              </button>
            ))}
          </div>
          <LongText label={t('decideReason')} value={reason} onChange={setReason} />
          <Button
            disabled={busy || reason.trim().length < 2}
            onClick={() => void run(() => act('judge', { verdict, reason }))}
            className="mt-2"
          >
            {t('decideAct')}
          </Button>
        </>
      )}
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
    </Card>
  );
}
