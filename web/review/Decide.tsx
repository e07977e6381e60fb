import { RadioGroup } from 'radix-ui';
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
          <RadioGroup.Root
            aria-label={t('decide')}
            value={verdict}
            onValueChange={(one) => setVerdict(one as SittingVerdict)}
            className="flex flex-wrap gap-2 py-1"
          >
            {sittingVerdicts.map((one) => (
              <RadioGroup.Item
                key={one}
                value={one}
                className={`min-h-9 rounded-control border px-3 ${verdict === one ? 'border-kelp bg-wash font-semibold' : 'border-line bg-card'}`}
              >
                {t(`verdict ${one}`)}
              </RadioGroup.Item>
            ))}
          </RadioGroup.Root>
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
