import { Link } from 'react-router';
import type { WatchRoundRow } from '../../core/watch/api';
import { Pill } from '../ui/Pill';
import { StaffPage, StaffTable } from '../ui/StaffPage';
import { showShort } from '../ui/times';
import { LIST_MS, useFetched } from '../staff/queries';
import { t } from './words';

const ORDER = { open: 0, later: 1, over: 2 } as const;

/** The rounds that can be watched over, those that are open first. */
export function WatchRounds() {
  const [loaded] = useFetched<WatchRoundRow[]>('/watch', undefined, LIST_MS);
  return (
    <StaffPage title={t('watch')} loaded={loaded}>
      {(rounds) => (
        <StaffTable
          rows={[...rounds].sort((a, b) => ORDER[a.window] - ORDER[b.window])}
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
