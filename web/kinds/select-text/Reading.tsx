import {
  chosenOf,
  type SelectTextResponse,
  type SelectTextShown,
} from '../../../core/kinds/select-text/response';
import { words } from '../../words';
import type { ReadingProps } from '../answerProps';
import { CreditMark } from '../shared/CreditMark';

const t = words('selectReading', {
  chosen: 'chosen',
  right: 'right answer',
  nothing: 'nothing chosen',
});

/** What was chosen in each passage, and what was meant. */
export function Reading({
  shown,
  response,
  right,
  credits,
}: ReadingProps<SelectTextShown, SelectTextResponse>) {
  return (
    <dl className="space-y-2">
      {shown.passages.map((passage) => {
        const chosen = chosenOf(passage, response);
        const missed = right ? chosenOf(passage, right).filter((one) => !chosen.includes(one)) : [];
        return (
          <div key={passage.key}>
            <dt className="flex items-center gap-2 text-[0.92em] text-soft">
              {passage.title} <CreditMark credits={credits} component={passage.key} />
            </dt>
            {chosen.length === 0 && <dd className="text-soft">{t('nothing')}</dd>}
            {chosen.map(({ key, text }) => (
              <dd key={key} className="font-serif">
                <span className="rounded bg-wash px-1 underline decoration-kelp decoration-2 underline-offset-4">
                  {text}
                </span>
                <span className="sr-only"> – {t('chosen')}</span>
              </dd>
            ))}
            {missed.map(({ key, text }) => (
              <dd key={key} className="font-serif">
                {text}{' '}
                <span className="rounded bg-wash px-1.5 font-sans text-[0.85em] text-kelp">{t('right')}</span>
              </dd>
            ))}
          </div>
        );
      })}
    </dl>
  );
}
