import { CalendarPlus } from 'lucide-react';
import { Link } from 'react-router';
import type { RoundRow } from '../../core/rounds/api';
import { firstLink, rowLink } from '../staff/links';
import { DataTable, type Column } from '../staff/DataTable';
import { Pill } from '../ui/Pill';
import { StaffPage } from '../ui/StaffPage';
import { showShort } from '../ui/times';
import { t } from './words';

export function RoundState({ round }: { round: RoundRow }) {
  if (round.releasedAt !== null) return <Pill tone="good">{t('released')}</Pill>;
  if (round.signedOffAt !== null) return <Pill tone="good">{t('signedOff')}</Pill>;
  if (round.window === 'open') return <Pill tone="good">{t('open')}</Pill>;
  return <Pill>{t(round.window === 'later' ? 'opensLater' : 'over')}</Pill>;
}

/** Left out until they are chosen, so that all the others are seen whole on a laptop. */
const HIDDEN_AT_FIRST = ['closesAt'];

const COLUMNS: readonly Column<RoundRow>[] = [
  {
    id: 'title',
    sortable: true,
    cell: (r) => (
      <Link to={`/staff/rounds/${r.id}`} className={rowLink}>
        {r.title}
      </Link>
    ),
  },
  { id: 'paper', sortable: true, cell: (r) => r.paperTitle },
  { id: 'opensAt', sortable: true, cell: (r) => showShort(r.opensAt, r.timeZone) },
  { id: 'closesAt', cell: (r) => showShort(r.closesAt, r.timeZone) },
  { id: 'invited', sortable: true, cell: (r) => r.invited, right: true },
  { id: 'running', cell: (r) => r.running, right: true },
  { id: 'handedIn', cell: (r) => r.handedIn, right: true },
  { id: 'state', cell: (r) => <RoundState round={r} />, actions: true },
];

export function Rounds() {
  return (
    <StaffPage
      title={t('rounds')}
      aside={
        <Link to="/staff/rounds/new" className={firstLink}>
          <CalendarPlus aria-hidden className="size-5" /> {t('newRound')}
        </Link>
      }
    >
      <DataTable
        path="/rounds"
        hiddenAtFirst={HIDDEN_AT_FIRST}
        label={t('rounds')}
        columns={COLUMNS}
        keyOf={(r) => r.id}
        empty={t('none')}
        filters={[
          { value: 'open', words: t('open') },
          { value: 'later', words: t('opensLater') },
          { value: 'over', words: t('over') },
        ]}
      />
    </StaffPage>
  );
}
