import { readAs, readEntry } from '../../../core/kinds/number/readEntry';
import type { NumberResponse, NumberShown } from '../../../core/kinds/number/response';
import { words } from '../../words';
import type { AnswerProps } from '../answerProps';

const t = words('number', { minus: 'A minus sign is possible here.', readAs: 'Read as {{figure}}' });

/** A figure between its labels. What does not read as a figure is kept as typed, and said at once. */
export function Answer({
  shown,
  response,
  onChange,
  promptId,
  needId,
}: AnswerProps<NumberShown, NumberResponse>) {
  const entry = readEntry(shown, response.typed, shown.locale);
  const figure = 'read' in entry ? readAs(entry.read, response.typed, shown.locale) : null;
  return (
    <div>
      <div className="flex flex-wrap items-center gap-2.5">
        {shown.before && <span>{shown.before}</span>}
        <input
          type="text"
          inputMode={shown.minusPossible ? 'text' : 'decimal'}
          autoComplete="off"
          maxLength={200}
          value={response.typed}
          onChange={(event) => onChange({ typed: event.target.value })}
          aria-labelledby={promptId}
          aria-describedby={needId}
          className="min-h-11 w-32 rounded-control border border-edge bg-card px-3"
        />
        {shown.unit && <span className="text-[1.05em]">{shown.unit}</span>}
      </div>
      <p aria-live="polite" className="mt-1 text-[0.85rem] text-soft empty:hidden">
        {figure !== null && t('readAs', { figure })}
      </p>
      {shown.minusPossible && <p className="mt-1 text-[0.82rem] text-soft">{t('minus')}</p>}
    </div>
  );
}
