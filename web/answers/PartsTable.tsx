import { Link } from 'react-router';
import type { PartFigures } from '../../core/answers/api';
import type { Estimate } from '../../core/measures/estimate';
import { showMarks } from '../../core/marks';
import { Bands } from '../corrections/Bands';
import { t as corrections } from '../corrections/words';
import { showEstimate, showShare } from '../marking/figures';
import { LIST_MS, useFetched } from '../staff/queries';
import { StaffPage, StaffTable } from '../ui/StaffPage';
import { nameOfPart } from './partName';
import { t } from './words';

/** Below nought the key may be wrong. */
function Correlation({ estimate }: { readonly estimate: Estimate }) {
  const low = estimate.value !== null && estimate.value < 0;
  return <span className={low ? 'font-semibold text-marigold' : ''}>{showEstimate(estimate)}</span>;
}

/** Every question of a round with its figures: the way to what was answered and to corrections, and the bands. */
export function PartsTable({ round }: { readonly round: string }) {
  const [loaded] = useFetched<PartFigures[]>(`/rounds/${round}/figures`, undefined, LIST_MS);
  return (
    <StaffPage
      title={t('title')}
      aside={
        <Link to="/staff/sign-off" className="text-slate underline underline-offset-4">
          {t('back')}
        </Link>
      }
      loaded={loaded}
    >
      {(parts) => (
        <>
          <Bands round={round} />
          <StaffTable
            rows={parts}
            keyOf={(part) => part.target}
            empty={t('noParts')}
            columns={[
              {
                head: t('question'),
                cell: (part) => (
                  <Link
                    to={`/staff/rounds/${round}/answers/${part.target}`}
                    className="break-words text-slate underline underline-offset-4"
                  >
                    {nameOfPart(part, parts)}
                  </Link>
                ),
              },
              { head: t('marks'), cell: (part) => showMarks(part.of), right: true },
              { head: t('n'), cell: (part) => part.facility.n, right: true },
              { head: t('facility'), cell: (part) => showShare(part.facility), right: true },
              { head: t('itemRest'), cell: (part) => <Correlation estimate={part.itemRest} />, right: true },
              { head: t('omitted'), cell: (part) => showShare(part.omitted), right: true },
              { head: t('now'), cell: (part) => part.ruling && corrections(`is ${part.ruling}`) },
            ]}
          />
          <p className="max-w-[75ch] pt-3 text-[0.92rem] text-soft">{t('figuresText')}</p>
        </>
      )}
    </StaffPage>
  );
}
