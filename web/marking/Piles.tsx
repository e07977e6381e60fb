import { Link } from 'react-router';
import type { MarkingPile } from '../../core/marking/api';
import { alignMarks } from '../../core/marks';
import { DataTable, type Column } from '../staff/DataTable';
import { rowLink } from '../staff/links';
import { StaffPage } from '../ui/StaffPage';
import { t } from './words';

const COLUMNS: readonly Column<MarkingPile>[] = [
  {
    id: 'item',
    sortable: true,
    cell: (p) => (
      <Link to={`/staff/marking/${p.round}/${p.target}`} className={rowLink}>
        {t('open', { number: p.itemNumber, title: p.title })}
      </Link>
    ),
  },
  { id: 'round', sortable: true, cell: (p) => p.roundTitle },
  { id: 'marks', cell: (p) => alignMarks(p.marks), right: true },
  { id: 'byYou', cell: (p) => p.byYou, right: true },
  { id: 'left', sortable: true, cell: (p) => p.left, right: true },
];

/** The piles of responses that wait for assessors, question by question. */
export function Piles() {
  return (
    <StaffPage title={t('piles')}>
      <DataTable
        path="/marking/piles"
        label={t('piles')}
        columns={COLUMNS}
        keyOf={(p) => `${p.round} ${p.target}`}
        empty={t('none')}
      />
    </StaffPage>
  );
}
