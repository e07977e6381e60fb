import { X } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import type { Value } from '../../../core/programs/value';
import { CaseDetails, valueText, type Context, type Row } from './CaseDetails';
import { Check, CircleDot, CircleX, Clock3, PlusMinus } from './caseIcons';
import { t, type RowVerdict } from './caseWords';
import { rowsIn } from './RowsTable';

const SIGNS: Record<RowVerdict, { Icon: typeof Check; look: string }> = {
  accepted: { Icon: Check, look: 'text-kelp' },
  wrong: { Icon: PlusMinus, look: 'text-marigold' },
  error: { Icon: CircleX, look: 'text-brick' },
  tooSlow: { Icon: Clock3, look: 'text-marigold' },
  tooMuchMemory: { Icon: CircleX, look: 'text-brick' },
  tooMuchOutput: { Icon: CircleX, look: 'text-brick' },
  ran: { Icon: CircleDot, look: 'text-soft' },
};

const short = (text: string, most = 22) => (text.length > most ? `${text.slice(0, most - 1)}…` : text);

/** What stands in a narrow cell for a value. */
function brief(context: Context, value: Value | undefined): string {
  if (value === undefined) return '';
  const table = rowsIn(value);
  if (table) return t('rows', { count: table.rows.length });
  return short(valueText(context.shown, context.language, value).replace(/\n/g, '⏎'));
}

const verdictOf = ({ tried }: Row): RowVerdict | null => (tried ? (tried.verdict ?? 'ran') : null);

function gotText(context: Context, row: Row, verdict: RowVerdict | null): string {
  const outcome = row.tried?.outcome;
  if (!outcome || verdict === null) return '';
  return outcome.result === 'returned' ? brief(context, outcome.value) : t(verdict);
}

const HEADS = ['input', 'expected', 'got'] as const;

/** The heads of the columns that a row of a case fills. */
export function CaseHeads() {
  return (
    <thead>
      <tr className="border-b border-line text-left text-soft">
        <td className="w-8" />
        {HEADS.map((head) => (
          <th key={head} scope="col" className="py-1.5 font-semibold">
            {t(head)}
          </th>
        ))}
        <th scope="col" className="w-16 py-1.5 pr-3 text-right font-semibold">
          {t('ms')}
        </th>
      </tr>
    </thead>
  );
}

interface RowProps extends Context {
  readonly row: Row;
  readonly onRemove?: () => void;
  /** What else there is to do with it, once it is unfolded. */
  readonly more?: ReactNode;
}

/** A case: a sign by shape and word, unfolding for its input, differences and errors. */
export function CaseRow({ row, onRemove, more, ...context }: RowProps) {
  const [open, setOpen] = useState(false);
  const { tried, expected, fresh } = row;
  const verdict = verdictOf(row);
  const sign = verdict && SIGNS[verdict];
  const wrong = verdict !== null && verdict !== 'accepted' && verdict !== 'ran';
  const unfolded = open || (wrong && fresh && tried?.outcome.result === 'error');
  const look = `${wrong && fresh ? 'bg-marigold-wash/60' : ''} ${tried && !fresh ? 'text-soft' : ''}`;
  return (
    <>
      <tr className={look}>
        <td className="w-8 py-2 pl-3">
          {sign && (
            <sign.Icon
              role="img"
              aria-label={fresh ? t(verdict) : `${t(verdict)}, ${t('earlier')}`}
              className={`size-4 ${fresh ? sign.look : 'text-soft'}`}
            />
          )}
        </td>
        <td className="py-1 pr-2">
          <button
            type="button"
            aria-expanded={unfolded}
            aria-label={t('details', { title: row.title })}
            onClick={() => setOpen(!open)}
            className="min-h-8 max-w-full text-left break-words underline decoration-line decoration-1 underline-offset-4 hover:decoration-ink"
          >
            {short(row.title, 40)}
          </button>
        </td>
        <td className="py-1 pr-2 font-mono text-[0.78rem] break-words">{brief(context, expected)}</td>
        <td className="py-1 pr-2 font-mono text-[0.78rem] break-words">{gotText(context, row, verdict)}</td>
        <td className="py-1 pr-3 text-right">
          {tried && Math.max(1, Math.round(tried.outcome.milliseconds))}
          {onRemove && (
            <button
              type="button"
              aria-label={t('ownRemove', { title: row.title })}
              onClick={onRemove}
              className="ml-1 inline-grid size-7 place-items-center rounded-control text-soft hover:bg-shade"
            >
              <X aria-hidden className="size-4" />
            </button>
          )}
        </td>
      </tr>
      {unfolded && (
        <tr className={look}>
          <td />
          <td colSpan={4} className="pr-3 pb-2">
            <CaseDetails row={row} {...context} />
            {more}
          </td>
        </tr>
      )}
    </>
  );
}
