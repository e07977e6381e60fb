import type { QueuePlace } from '../../core/arrival/api';
import { t } from './words';
import { PageHeading } from '../ui/PageHeading';

/** From here on the time is told in minutes. */
const MINUTES_FROM_S = 90;

/** Many people arrive at once: how long it takes, and that nothing is lost by it. */
export function Queue({ place: { place, seconds } }: { readonly place: QueuePlace }) {
  return (
    <div className="mx-auto max-w-[40rem] space-y-4">
      <PageHeading className="font-serif text-[1.75rem] leading-tight font-semibold">
        {t('queueTitle')}
      </PageHeading>
      <p role="status">
        {seconds < MINUTES_FROM_S
          ? t('queueSeconds', { seconds })
          : t('queueMinutes', { minutes: Math.ceil(seconds / 60) })}
      </p>
      <p>{t('queuePlace', { count: place })}</p>
      <p className="text-soft">{t('queueText')}</p>
    </div>
  );
}
