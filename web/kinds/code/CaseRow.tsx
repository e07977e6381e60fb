import { X } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import type { CodeShown, Language, TestCase } from '../../../core/kinds/code/response';
import type { CaseOutcome } from '../../../core/kinds/evidence';
import type { FaultPlace, ProgramFile } from '../../../core/programs/engine';
import { showValue, type Value } from '../../../core/programs/value';
import { Check, CircleDot, CircleX, Clock3, PlusMinus } from './caseIcons';
import { faultWords, placeWords, t, type RowVerdict } from './caseWords';
import { markedLines } from './difference';
import { rowsIn, RowsTable } from './RowsTable';
import type { Tried } from './useTrial';

const SIGNS: Record<RowVerdict, { Icon: typeof Check; look: string }> = {
  accepted: { Icon: Check, look: 'text-kelp' },
  wrong: { Icon: PlusMinus, look: 'text-marigold' },
  error: { Icon: CircleX, look: 'text-brick' },
  tooSlow: { Icon: Clock3, look: 'text-marigold' },
  tooMuchMemory: { Icon: CircleX, look: 'text-brick' },
  tooMuchOutput: { Icon: CircleX, look: 'text-brick' },
  ran: { Icon: CircleDot, look: 'text-soft' },
};

const MEGABYTE = 2 ** 20;
const short = (text: string, most = 22) => (text.length > most ? `${text.slice(0, most - 1)}…` : text);

/** A value in one line or more: an output as it was written, anything else as its language writes it. */
export function valueText({ way }: CodeShown, language: Language, value: Value): string {
  return way.is === 'streams' && typeof value === 'string' ? value : showValue(value, language);
}

export function inputText({ way }: CodeShown, input: TestCase['input']): string {
  if (way.is === 'function')
    return Array.isArray(input) ? input.map((one) => JSON.stringify(one)).join(', ') : '';
  return way.is === 'streams' && typeof input === 'string' ? input : '';
}

export interface Row {
  readonly key: string;
  readonly title: string;
  readonly input: string;
  readonly files: readonly ProgramFile[];
  /** Undefined where nothing is expected: of an input of one's own, and where a checker decides. */
  readonly expected: Value | undefined;
  /** An input of one's own has no verdict but its errors. */
  readonly own: boolean;
  readonly tried: Pick<Tried, 'outcome' | 'verdict' | 'reason'> | undefined;
  /** What was tried is of the program as it stands. */
  readonly fresh: boolean;
}

interface Context {
  readonly shown: CodeShown;
  readonly language: Language;
  /** Goes to a line of the program; null where there is no editor. */
  readonly onJump: ((place: FaultPlace) => void) | null;
}

function Marked({ own, other }: { own: string; other: string }) {
  return (
    <span className="whitespace-pre-wrap">
      {markedLines(own, other).map((line, i) => (
        <span key={i} className="block min-h-[1em]">
          {line.map(({ text, differs }, k) =>
            differs ? (
              <mark key={k} className="rounded-sm bg-card text-ink underline decoration-2 underline-offset-2">
                {text}
              </mark>
            ) : (
              text
            ),
          )}
        </span>
      ))}
    </span>
  );
}

function Compared({ row, shown, language }: { row: Row } & Context) {
  const { expected, tried } = row;
  const outcome = tried?.outcome;
  const got = outcome?.result === 'returned' ? outcome.value : undefined;
  const [wanted, found] = [expected, got].map((value) => (value === undefined ? null : rowsIn(value)));
  if (wanted || found)
    return (
      <div className="flex flex-wrap gap-x-6 gap-y-2">
        {wanted && <RowsTable title={t('expected')} table={wanted} />}
        {found && <RowsTable title={t('got')} table={found} />}
      </div>
    );
  const differs =
    tried?.verdict === 'wrong' && !shown.comparison.byChecker && expected !== undefined && got !== undefined;
  const [a, b] = [expected, got].map((value) =>
    value === undefined ? null : valueText(shown, language, value),
  );
  const lines = [
    [t('input'), row.input === '' ? null : row.input, null],
    [t('expected'), a, b],
    [t('got'), b, a],
  ] as const;
  return (
    <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1">
      {lines.map(([title, own, other]) =>
        own == null ? null : (
          <div key={title} className="contents">
            <dt className="font-sans text-soft">{title}</dt>
            <dd className="min-w-0">
              {differs && other != null ? (
                <Marked own={own} other={other} />
              ) : (
                <span className="whitespace-pre-wrap">{own}</span>
              )}
            </dd>
          </div>
        ),
      )}
    </dl>
  );
}

function Fault({ outcome, onJump }: { outcome: Extract<CaseOutcome, { result: 'error' }> } & Context) {
  return (
    <div className="space-y-0.5 text-brick">
      <p className="whitespace-pre-wrap">{faultWords(outcome)}</p>
      {outcome.at.map((place, i) =>
        onJump ? (
          <button
            key={i}
            type="button"
            aria-label={t('jump', { place: placeWords(place) })}
            className="block min-h-8 text-left underline underline-offset-4"
            onClick={() => onJump(place)}
          >
            {placeWords(place)}
          </button>
        ) : (
          <p key={i}>{placeWords(place)}</p>
        ),
      )}
    </div>
  );
}

function Limit({ outcome, shown }: { outcome: CaseOutcome } & Context) {
  const { milliseconds, megabytes } = shown.limits;
  if (outcome.result === 'too-slow') return <p>{t('overTime', { seconds: milliseconds / 1000 })}</p>;
  if (outcome.result === 'too-much-memory') return <p>{t('overMemory', { megabytes })}</p>;
  return outcome.result === 'too-much-output' ? <p>{t('overOutput')}</p> : null;
}

const bytesOf = (text: string): number => new TextEncoder().encode(text).length;

/** What a run took, as far as the engine can tell. */
function Taken({ outcome, shown }: { outcome: CaseOutcome } & Context) {
  const output =
    bytesOf(outcome.printed) +
    (shown.way.is === 'streams' && outcome.result === 'returned' && typeof outcome.value === 'string'
      ? bytesOf(outcome.value)
      : 0);
  const parts = [
    t('took', { ms: Math.max(1, Math.round(outcome.milliseconds)) }),
    ...(outcome.memoryBytes > 0
      ? [t('memory', { megabytes: Math.max(0.1, outcome.memoryBytes / MEGABYTE).toFixed(1) })]
      : []),
    ...(output > 0 ? [t('output', { count: output })] : []),
  ];
  return <p className="font-sans text-soft">{parts.join(' · ')}</p>;
}

function Unfolded({ row, ...context }: { row: Row } & Context) {
  const { tried, files, own } = row;
  const outcome = tried?.outcome;
  return (
    <div className="space-y-1.5 font-mono text-[0.78rem] break-words">
      {files.map(({ name, text }) => (
        <details key={name}>
          <summary className="cursor-pointer font-sans">{t('file', { name })}</summary>
          <pre className="max-h-32 overflow-auto whitespace-pre-wrap">{text}</pre>
        </details>
      ))}
      <Compared row={row} {...context} />
      {tried?.reason && <p className="font-sans">{tried.reason}</p>}
      {outcome?.result === 'error' && <Fault outcome={outcome} {...context} />}
      {outcome && <Limit outcome={outcome} {...context} />}
      {outcome?.printed && (
        <pre className="max-h-32 overflow-auto whitespace-pre-wrap">
          <span className="font-sans text-soft">{t('printed')} </span>
          {outcome.printed}
        </pre>
      )}
      {outcome?.result === 'returned' && !own && tried?.verdict === null && (
        <p className="font-sans text-soft">{t('noVerdict')}</p>
      )}
      {outcome && <Taken outcome={outcome} {...context} />}
    </div>
  );
}

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
              aria-label={t('ownRemove', { number: row.key.replace(/\D/g, '') })}
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
            <Unfolded row={row} {...context} />
            {more}
          </td>
        </tr>
      )}
    </>
  );
}
