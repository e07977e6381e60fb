import { useId, useState } from 'react';
import { expectedValue } from '../../../core/kinds/code/judgeCase';
import { readOwnInput } from '../../../core/kinds/code/ownInput';
import { INPUT_MOST, type CodeShown, type Language } from '../../../core/kinds/code/response';
import type { FaultPlace } from '../../../core/programs/engine';
import { Button } from '../../ui/Button';
import { Play, Square } from './caseIcons';
import { inputText, type Row } from './CaseDetails';
import { CaseHeads, CaseRow } from './CaseRow';
import { t, typeWords } from './caseWords';
import type { Trial } from './useTrial';

interface Props {
  readonly shown: CodeShown;
  readonly language: Language;
  readonly trial: Trial;
  /** What these runs are good for. */
  readonly note: string;
  readonly onJump?: ((place: FaultPlace) => void) | null;
}

/** An input as it may be typed: that of the first case, where it is short. */
function exampleOf(shown: CodeShown): string {
  const [first] = shown.cases;
  const text = first ? inputText(shown, first.input) : '';
  return text !== '' && text.length <= 60 ? text : '[1, 2], "a"';
}

function problemOf(shown: CodeShown, text: string): string | null {
  const read = readOwnInput(shown.way, text);
  if ('input' in read) return null;
  const example = exampleOf(shown);
  if (read.problem === 'json') return t('ownJson', { example });
  if (read.problem === 'type') return t('ownType', { name: read.name, type: typeWords(read.type), example });
  const count = shown.way.is === 'function' ? (shown.way.parameters?.length ?? 0) : 0;
  return t('ownCount', { count, example });
}

interface OwnInputProps {
  readonly shown: CodeShown;
  readonly onTry: (text: string) => void;
}

/** A field for an input of one's own, read before it is run. */
export function OwnInput({ shown, onTry }: OwnInputProps) {
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const problemId = useId();
  const streams = shown.way.is === 'streams';
  const tryIt = () => {
    const found = problemOf(shown, text);
    setProblem(found);
    if (found === null) onTry(text);
  };
  const common = {
    'aria-label': t(streams ? 'ownStreams' : 'ownLabel'),
    'aria-invalid': problem !== null,
    'aria-describedby': problem === null ? undefined : problemId,
    placeholder: streams ? t('ownStreams') : t('ownHint', { example: exampleOf(shown) }),
    value: text,
    maxLength: INPUT_MOST,
    className:
      'min-h-9 w-full rounded-control border border-edge bg-card px-2 py-1.5 font-mono text-[0.78rem] placeholder:font-sans placeholder:text-soft',
  };
  return (
    <>
      <form
        className="flex items-start gap-1.5"
        onSubmit={(event) => {
          event.preventDefault();
          tryIt();
        }}
      >
        {streams ? (
          <textarea {...common} rows={3} onChange={(event) => setText(event.target.value)} />
        ) : (
          <input {...common} onChange={(event) => setText(event.target.value)} />
        )}
        <button
          type="submit"
          aria-label={t('ownTry')}
          className="grid size-9 flex-none place-items-center rounded-control border border-edge"
        >
          <Play aria-hidden className="size-4" />
        </button>
      </form>
      {problem && (
        <p id={problemId} role="alert" className="pt-1 text-[0.8rem] text-brick">
          {problem}
        </p>
      )}
    </>
  );
}

function rowsOf(shown: CodeShown, trial: Trial): { samples: Row[]; own: Row[] } {
  const found = (key: string) => {
    const tried = trial.tried[key];
    return { tried, fresh: tried?.program === trial.program };
  };
  return {
    samples: shown.cases.map((one) => ({
      key: one.key,
      title: one.title,
      input: inputText(shown, one.input),
      files: one.files,
      expected: shown.comparison.byChecker ? undefined : (expectedValue(shown.way, one.expected) ?? null),
      own: false,
      ...found(one.key),
    })),
    own: trial.own.map(({ key, text }, i) => ({
      key,
      title: t('ownCase', { number: i + 1 }),
      input: text,
      files: [],
      expected: undefined,
      own: true,
      ...found(key),
    })),
  };
}

function statusOf(trial: Trial, samples: readonly Row[]): string {
  if (trial.busy !== null) return trial.busy;
  const tried = samples.filter((row) => row.tried);
  if (tried.length === 0) return '';
  if (tried.some((row) => !row.fresh)) return t('stale');
  // Where no verdict is given here, there is nothing to count.
  if (tried.every((row) => row.tried!.verdict === null)) return '';
  const right = tried.filter((row) => row.tried!.verdict === 'accepted').length;
  return t('tally', { right, all: samples.length });
}

/** The table of cases: a row a case, a sign by shape and word, unfolding for output and differences. */
export function CaseTable({ shown, language, trial, note, onJump = null }: Props) {
  const { samples, own } = rowsOf(shown, trial);
  const context = { shown, language, onJump };
  return (
    <div
      role="group"
      aria-label={t('cases')}
      className="flex flex-col rounded-card border border-line bg-card"
    >
      <div className="flex flex-wrap items-center gap-x-3 border-b border-line bg-paper px-3 py-1.5 rounded-t-card">
        <h2 className="font-semibold">{t('cases')}</h2>
        <p role="status" className="flex-1 text-[0.88rem] text-soft">
          {statusOf(trial, samples)}
        </p>
        {trial.busy === null ? (
          <Button look="first" onClick={trial.tryAll}>
            <Play aria-hidden className="size-4" /> {t('all')}
          </Button>
        ) : (
          <Button onClick={trial.stop}>
            <Square aria-hidden className="size-4" /> {t('stop')}
          </Button>
        )}
      </div>
      <table className="w-full table-fixed text-[0.88rem]">
        <CaseHeads />
        <tbody className="[&>tr]:border-b [&>tr]:border-line/60">
          {samples.map((row) => (
            <CaseRow key={row.key} row={row} {...context} />
          ))}
          {own.map((row) => (
            <CaseRow key={row.key} row={row} {...context} onRemove={() => trial.removeOwn(row.key)} />
          ))}
          {shown.way.is !== 'query' && (
            <tr>
              <td className="pl-3 text-soft">+</td>
              <td colSpan={4} className="py-1.5 pr-3">
                <OwnInput shown={shown} onTry={trial.tryOwn} />
              </td>
            </tr>
          )}
        </tbody>
      </table>
      {trial.trouble && (
        <p role="alert" className="px-3 pt-2 text-brick">
          {trial.trouble}
        </p>
      )}
      <p className="px-3 py-2 text-[0.85rem] text-soft">{note}</p>
    </div>
  );
}
