import { Link } from 'react-router';
import type { RoundRow } from '../../core/rounds/api';
import { DataTable, type Column } from '../staff/DataTable';
import { rowLink } from '../staff/links';
import { StaffPage } from '../ui/StaffPage';
import { showShort } from '../ui/times';
import { t } from './staffWords';

const COLUMNS: readonly Column<RoundRow>[] = [
  {
    id: 'title',
    sortable: true,
    cell: (row) => (
      <Link to={`/staff/results/${row.id}`} aria-label={t('open', { title: row.title })} className={rowLink}>
        {row.title}
      </Link>
    ),
  },
  { id: 'paper', sortable: true, cell: (row) => row.paperTitle },
  { id: 'closesAt', cell: (row) => showShort(row.closesAt, row.timeZone) },
  { id: 'invited', sortable: true, right: true, cell: (row) => row.invited },
  { id: 'handedIn', right: true, cell: (row) => row.handedIn },
];

/** The rounds whose results somebody of the staff sees. */
export function ResultRounds() {
  return (
    <StaffPage title={t('results')}>
      <DataTable
        path="/results"
        label={t('results')}
        columns={COLUMNS}
        keyOf={(row) => row.id}
        empty={t('noRounds')}
      />
    </StaffPage>
  );
}
