import { Link } from 'react-router';
import type { RoundRow } from '../../core/rounds/api';
import { get } from '../api/client';
import { Pill } from '../ui/Pill';
import { StaffPage, StaffTable } from '../ui/StaffPage';
import { showShort } from '../ui/times';
import { useLoaded } from '../ui/useAsync';
import { t } from './words';

export function RoundState({ round }: { round: RoundRow }) {
  if (round.releasedAt !== null) return <Pill tone="good">{t('released')}</Pill>;
  if (round.signedOffAt !== null) return <Pill tone="good">{t('signedOff')}</Pill>;
  if (round.window === 'open') return <Pill tone="care">{t('open')}</Pill>;
  return <Pill>{t(round.window === 'later' ? 'opensLater' : 'over')}</Pill>;
}

export const roundLink =
  'font-semibold text-ink underline decoration-line underline-offset-4 hover:decoration-ink';

export function Rounds() {
  const [loaded] = useLoaded('rounds', () => get<RoundRow[]>('/rounds'));
  return (
    <StaffPage title={t('rounds')} loaded={loaded}>
      {(rounds) => (
        <StaffTable
          rows={rounds}
          keyOf={(r) => r.id}
          empty={t('none')}
          columns={[
            {
              head: t('round'),
              cell: (r) => (
                <Link to={`/staff/rounds/${r.id}`} className={roundLink}>
                  {r.title}
                </Link>
              ),
            },
            { head: t('paper'), cell: (r) => r.paperTitle },
            {
              head: t('window'),
              cell: (r) => `${showShort(r.opensAt, r.timeZone)} – ${showShort(r.closesAt, r.timeZone)}`,
            },
            { head: t('invited'), cell: (r) => r.invited, right: true },
            { head: t('running'), cell: (r) => r.running, right: true },
            { head: t('handedIn'), cell: (r) => r.handedIn, right: true },
            { head: t('state'), cell: (r) => <RoundState round={r} /> },
          ]}
        />
      )}
    </StaffPage>
  );
}
