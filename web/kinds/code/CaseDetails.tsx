import { OUTPUT_LIMIT_BYTES } from '../../../core/kinds/code/checkerRun';
import { limitsOf } from '../../../core/kinds/code/program';
import type { CodeShown, Language, TestCase } from '../../../core/kinds/code/response';
import type { CaseOutcome } from '../../../core/kinds/evidence';
import type { FaultPlace, ProgramFile } from '../../../core/programs/engine';
import { showValue, type Value } from '../../../core/programs/value';
import { faultWords, placeWords, t } from './caseWords';
import { markedLines } from './difference';
import { rowsIn, RowsTable } from './RowsTable';
import type { Tried } from './useTrial';

const MEGABYTE = 2 ** 20;

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

export interface Context {
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

function Limit({ outcome, shown, language }: { outcome: CaseOutcome } & Context) {
  const { milliseconds, megabytes } = limitsOf(shown, language);
  if (outcome.result === 'too-slow') return <p>{t('overTime', { seconds: milliseconds / 1000 })}</p>;
  if (outcome.result === 'too-much-memory') return <p>{t('overMemory', { megabytes })}</p>;
  return outcome.result === 'too-much-output' ? (
    <p>{t('overOutput', { kilobytes: OUTPUT_LIMIT_BYTES / 1024 })}</p>
  ) : null;
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

/** A case unfolded: its input, what was expected beside what came, errors with their places, and what the run took. */
export function CaseDetails({ row, ...context }: { row: Row } & Context) {
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
