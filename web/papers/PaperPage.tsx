import { Link, useParams } from 'react-router';
import { showMarks } from '../../core/marks';
import type { CandidatePaper } from '../../core/papers/candidatePaper';
import { get } from '../api/client';
import { useFetched } from '../staff/queries';
import { StaffPage } from '../ui/StaffPage';
import { staffFiles } from '../media/fileSource';
import { loadAnswers, PaperView } from './PaperView';
import { t } from './words';

async function load(id: string): Promise<CandidatePaper> {
  const paper = await get<CandidatePaper>(`/papers/${id}`);
  await loadAnswers(paper);
  return paper;
}

/** A published paper as candidates will see it. */
export function PaperPage() {
  const { id = '' } = useParams();
  const [loaded] = useFetched(`/papers/${id}`, () => load(id));
  const paper = loaded.state === 'here' ? loaded.value : null;
  const facts = paper && {
    questions: paper.questions.length,
    marks: showMarks(paper.marks),
    minutes: paper.minutes,
  };
  return (
    <StaffPage
      title={paper?.title ?? t('paper')}
      aside={
        facts && (
          <>
            <p className="text-soft">
              {t('paperFacts', facts)} · {t('asCandidates')}
            </p>
            <Link to={`/staff/rounds/new?paper=${id}`} className="text-slate underline underline-offset-4">
              {t('makeRound')}
            </Link>
          </>
        )
      }
      loaded={loaded}
    >
      {(value) => <PaperView paper={value} files={staffFiles} />}
    </StaffPage>
  );
}
