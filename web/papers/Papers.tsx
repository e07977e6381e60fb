import { FileUp } from 'lucide-react';
import { Link } from 'react-router';
import type { PaperRow } from '../../core/papers/importApi';
import { DataTable, type Column } from '../staff/DataTable';
import { firstLink, rowLink } from '../staff/links';
import { StaffPage } from '../ui/StaffPage';
import { t } from './words';

const COLUMNS: readonly Column<PaperRow>[] = [
  {
    id: 'paper',
    cell: (paper) => (
      <Link to={`/staff/papers/${paper.id}`} className={rowLink}>
        {paper.title}
      </Link>
    ),
  },
  { id: 'version', cell: (paper) => paper.version, right: true },
  { id: 'rounds', cell: (paper) => paper.rounds, right: true },
];

export function Papers() {
  return (
    <StaffPage
      title={t('papers')}
      aside={
        <Link to="/staff/papers/import" className={firstLink}>
          <FileUp aria-hidden className="size-5" /> {t('import')}
        </Link>
      }
    >
      <DataTable
        path="/papers"
        label={t('papers')}
        columns={COLUMNS}
        keyOf={(paper) => paper.id}
        empty={t('none')}
      />
    </StaffPage>
  );
}
