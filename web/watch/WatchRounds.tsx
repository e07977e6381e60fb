import { Link } from 'react-router';
import { roundsByNeed, type WatchRoundRow } from '../../core/watch/api';
import { Pill } from '../ui/Pill';
import { StaffPage, StaffTable } from '../ui/StaffPage';
import { showSecond } from '../ui/showSecond';
import { showShort } from '../ui/times';
import { LIST_MS, useFetched } from '../staff/queries';
import { t } from './words';

/** The rounds that can be watched over: where a hand has waited longest first, then those that are open. */
export function WatchRounds() {
  const [loaded] = useFetched<WatchRoundRow[]>('/watch', undefined, LIST_MS);
  return (
    <StaffPage title={t('watch')} loaded={loaded}>
      {(rounds) => (
        <StaffTable
          rows={roundsByNeed(rounds)}
          keyOf={(r) => r.id}
          empty={t('none')}
          columns={[
            {
              head: t('round'),
              cell: (r) => (
                <Link
                  to={`/staff/watch/${r.id}`}
                  className="font-semibold underline decoration-line underline-offset-4 hover:decoration-ink"
                >
                  {r.title}
                </Link>
              ),
            },
            {
              head: t('window'),
              cell: (r) => `${showShort(r.opensAt, r.timeZone)} – ${showShort(r.closesAt, r.timeZone)}`,
            },
            {
              head: t('hands'),
              cell: (r) =>
                r.handSince !== null && (
                  <b className="text-marigold">
                    {t('handsSince', { count: r.hands, time: showSecond(r.handSince).slice(0, 5) })}
                  </b>
                ),
            },
            {
              head: '',
              cell: (r) => (
                <Pill tone={r.window === 'open' ? 'good' : 'plain'}>{t(`window ${r.window}`)}</Pill>
              ),
            },
          ]}
        />
      )}
    </StaffPage>
  );
}
