import { Link } from 'react-router';
import type { MarkingPile } from '../../core/marking/api';
import { showMarks } from '../../core/marks';
import { get } from '../api/client';
import { roundLink } from '../rounds/Rounds';
import { StaffPage, StaffTable } from '../ui/StaffPage';
import { useLoaded } from '../ui/useAsync';
import { t } from './words';

/** The piles of responses that wait for assessors, question by question. */
export function Piles() {
  const [loaded] = useLoaded('piles', () => get<MarkingPile[]>('/marking/piles'));
  return (
    <StaffPage title={t('piles')} loaded={loaded}>
      {(piles) => (
        <StaffTable
          rows={piles}
          keyOf={(p) => `${p.round} ${p.target}`}
          empty={t('none')}
          columns={[
            {
              head: t('item'),
              cell: (p) => (
                <Link to={`/staff/marking/${p.round}/${p.target}`} className={roundLink}>
                  {t('open', { number: p.itemNumber, title: p.title })}
                </Link>
              ),
            },
            { head: t('round'), cell: (p) => p.roundTitle },
            { head: t('marks'), cell: (p) => showMarks(p.marks), right: true },
            { head: t('byYou'), cell: (p) => p.byYou, right: true },
            { head: t('left'), cell: (p) => p.left, right: true },
          ]}
        />
      )}
    </StaffPage>
  );
}
