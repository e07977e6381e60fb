import type { OnPaperResponse, OnPaperShown } from '../../../core/kinds/on-paper/response';
import { showMarks } from '../../../core/marks';
import { DocumentView } from '../../documents/DocumentView';
import { words } from '../../words';
import type { AnswerProps } from '../answerProps';
import { FIELD_RING, OptionMark } from '../shared/OptionMark';

const t = words('onPaper', {
  done: 'I have done this on paper.',
  judged: 'Assessors mark: {{criteria}}',
});

/** What to do with the sheet, and the confirmation that it is done. */
export function Answer({
  shown,
  response,
  onChange,
  promptId,
  needId,
}: AnswerProps<OnPaperShown, OnPaperResponse>) {
  const criteria = shown.criteria.map((c) => `${c.title} ${showMarks(c.hundredths)}`).join(', ');
  return (
    <div role="group" aria-labelledby={promptId}>
      <div className="mb-3 rounded-lg border border-line bg-card px-4 py-3">
        <DocumentView document={shown.sheet} />
      </div>
      <label
        className={`relative flex min-h-11 cursor-pointer items-center gap-3 rounded-lg border px-3 ${FIELD_RING} ${response.done ? 'border-kelp bg-wash' : 'border-line bg-card'}`}
      >
        <input
          type="checkbox"
          checked={response.done}
          aria-describedby={needId}
          onChange={() => onChange({ done: !response.done })}
          className="absolute size-px opacity-0"
        />
        <OptionMark round={false} on={response.done} />
        {t('done')}
      </label>
      <p className="mt-1.5 text-[0.85rem] text-soft">{t('judged', { criteria })}</p>
    </div>
  );
}
