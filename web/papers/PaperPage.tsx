import { Link, useParams } from 'react-router';
import { showMarks } from '../../core/marks';
import type { AdaptiveView } from '../../core/papers/adaptiveApi';
import type { CandidatePaper } from '../../core/papers/candidatePaper';
import { get } from '../api/client';
import { useFetched } from '../staff/queries';
import { StaffPage } from '../ui/StaffPage';
import { staffFiles } from '../media/fileSource';
import { AdaptiveSectionView } from './AdaptiveSectionView';
import { loadAnswers, PaperView } from './PaperView';
import { t } from './words';

interface Loaded {
  readonly paper: CandidatePaper;
  readonly adaptive: readonly AdaptiveView[];
}

async function load(id: string): Promise<Loaded> {
  const [paper, adaptive] = await Promise.all([
    get<CandidatePaper>(`/papers/${id}`),
    get<readonly AdaptiveView[]>(`/papers/${id}/adaptive`),
  ]);
  await loadAnswers(paper);
  return { paper, adaptive };
}

/** A published paper as candidates will see it. */
export function PaperPage() {
  const { id = '' } = useParams();
  const [loaded] = useFetched(`/papers/${id}`, () => load(id));
  const { paper, adaptive } = loaded.state === 'here' ? loaded.value : { paper: null, adaptive: [] };
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
              {t(paper.marks > 0 ? 'paperFacts' : 'paperFactsUnmarked', facts)} · {t('asCandidates')}
            </p>
            {adaptive.length === 0 && (
              <Link to={`/staff/rounds/new?paper=${id}`} className="text-slate underline underline-offset-4">
                {t('makeRound')}
              </Link>
            )}
          </>
        )
      }
      loaded={loaded}
    >
      {(value) => (
        <>
          {value.adaptive.map((section) => (
            <AdaptiveSectionView key={section.key} section={section} />
          ))}
          <PaperView paper={value.paper} files={staffFiles} />
        </>
      )}
    </StaffPage>
  );
}
