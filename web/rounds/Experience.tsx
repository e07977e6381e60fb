import { experienceQuestions, LEVELS, type ExperienceReport } from '../../core/experience/api';
import { useFetched } from '../staff/queries';
import { t } from './words';

/** What candidates said of the test: how often each answer was given, and their comments. */
export function Experience({ round }: { readonly round: number }) {
  const [loaded] = useFetched<ExperienceReport>(`/rounds/${round}/experience`);
  if (loaded.state !== 'here') return null;
  const { answered, counts, comments } = loaded.value;
  return (
    <details className="mt-4 rounded-card border border-line bg-card px-4 py-2">
      <summary className="min-h-9 content-center font-semibold">
        {t('experience')} ·{' '}
        <span className="font-normal text-soft">
          {answered === 0 ? t('experienceNone') : t('experienceCount', { count: answered })}
        </span>
      </summary>
      {answered > 0 && (
        <table className="my-2 w-full">
          <thead>
            <tr className="text-[0.85rem] text-soft">
              <td />
              {LEVELS.map((level) => (
                <th key={level} scope="col" className="px-3 py-1 text-right font-semibold">
                  {t(`level ${level}`)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {experienceQuestions.map((question) => (
              <tr key={question} className="border-t border-line/70">
                <th scope="row" className="py-1.5 text-left font-normal">
                  {t(`experience ${question}`)}
                </th>
                {counts[question].map((count, i) => (
                  <td key={i} className="px-3 py-1.5 text-right">
                    {count}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {comments.length > 0 && (
        <>
          <h3 className="mt-2 font-semibold">{t('experienceComments')}</h3>
          <ul className="mb-2 max-h-60 overflow-y-auto">
            {comments.map((comment, i) => (
              <li key={i} className="border-t border-line/70 py-1.5 whitespace-pre-wrap">
                {comment}
              </li>
            ))}
          </ul>
        </>
      )}
    </details>
  );
}
