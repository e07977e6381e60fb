import { Check, CircleX, Clock3, Play, PlusMinus } from './caseIcons';
import { useState } from 'react';
import { judgeCase, type CaseVerdict } from '../../../core/kinds/code/compareOutcome';
import type { CodeShown } from '../../../core/kinds/code/response';
import type { CaseOutcome, Json } from '../../../core/kinds/evidence';
import { Button } from '../../ui/Button';
import { words } from '../../words';
import type { Trial } from './useTrial';

const t = words('cases', {
  cases: 'Cases',
  tally: '{{right}} of {{all}} as expected',
  all: 'Try all',
  given: 'input',
  expected: 'expected',
  got: 'got',
  ms: 'ms',
  own: 'try your own input, for example [1, 2]',
  ownLabel: 'Your own input, as a JSON list',
  ownTry: 'Try this input',
  ownBad: 'This is not a JSON list. Example: [[1, 2], 3]',
  accepted: 'as expected',
  wrong: 'different',
  error: 'error',
  tooSlow: 'too slow',
  tooMuchMemory: 'too much memory',
  tooMuchOutput: 'too much output',
  printed: 'printed',
  details: 'Details of {{title}}',
  difference: 'expected {{expected}}, got {{got}}',
  thrown: '{{text}}',
  thrownAt: '{{text}} (line {{line}})',
  noFunction: 'There is no function {{text}}.',
  notComparable: 'The function returned a value that cannot be compared: {{text}}.',
  endedItself: 'The program ended itself before the function returned.',
  waits: 'The function waits for something that never happens.',
  tooDeep: 'The calls, or the values returned, are nested too deeply.',
  ended: 'The program ended before the function returned.',
  forbidden: 'The program tried something that is not allowed here.',
  disturbed: 'What the function returned cannot be read.',
});

const SIGNS: Record<CaseVerdict, { Icon: typeof Check; look: string }> = {
  accepted: { Icon: Check, look: 'text-kelp' },
  wrong: { Icon: PlusMinus, look: 'text-marigold' },
  error: { Icon: CircleX, look: 'text-brick' },
  tooSlow: { Icon: Clock3, look: 'text-marigold' },
  tooMuchMemory: { Icon: CircleX, look: 'text-brick' },
  tooMuchOutput: { Icon: CircleX, look: 'text-brick' },
};

export const showJson = (value: Json): string => JSON.stringify(value);
const short = (text: string, most = 22) => (text.length > most ? `${text.slice(0, most - 1)}…` : text);

function gotOf(outcome: CaseOutcome): string {
  return outcome.result === 'returned' ? showJson(outcome.value) : '–';
}

function faultText({ fault, text, line }: Extract<CaseOutcome, { result: 'error' }>): string {
  return fault === 'thrown' && line !== null ? t('thrownAt', { text, line }) : t(fault, { text });
}

interface Row {
  readonly key: string;
  readonly title: string;
  readonly arguments: readonly Json[];
  readonly expected: Json | undefined;
  readonly outcome: CaseOutcome | undefined;
}

function Unfolded({ row }: { row: Row }) {
  const { outcome, expected } = row;
  return (
    <div className="space-y-1 font-mono text-[0.78rem] break-words">
      <p>{row.arguments.map(showJson).join(', ')}</p>
      {outcome?.result === 'error' && <p className="text-brick">{faultText(outcome)}</p>}
      {outcome?.result === 'returned' && expected !== undefined && (
        <p>{t('difference', { expected: showJson(expected), got: gotOf(outcome) })}</p>
      )}
      {outcome?.printed && (
        <pre className="max-h-32 overflow-auto whitespace-pre-wrap">
          {t('printed')}: {outcome.printed}
        </pre>
      )}
    </div>
  );
}

function CaseRow({ row, tolerance }: { row: Row; tolerance: number }) {
  const [open, setOpen] = useState(false);
  const { outcome, expected } = row;
  const verdict = outcome && expected !== undefined ? judgeCase(expected, outcome, tolerance) : null;
  const sign = verdict && SIGNS[verdict];
  const wrong = verdict !== null && verdict !== 'accepted';
  const unfolded = open || (wrong && outcome?.result === 'error');
  return (
    <>
      <tr className={wrong ? 'bg-marigold-wash/60' : ''}>
        <td className="w-8 py-2 pl-3">
          {sign && <sign.Icon role="img" aria-label={t(verdict)} className={`size-4 ${sign.look}`} />}
        </td>
        <td className="py-1 pr-2">
          <button
            type="button"
            aria-expanded={unfolded}
            aria-label={t('details', { title: row.title })}
            onClick={() => setOpen(!open)}
            className="min-h-8 text-left underline decoration-line decoration-1 underline-offset-4 hover:decoration-ink"
          >
            {row.title}
          </button>
        </td>
        <td className="py-1 pr-2 font-mono text-[0.78rem] break-words">
          {expected === undefined ? '' : short(showJson(expected))}
        </td>
        <td className="py-1 pr-2 font-mono text-[0.78rem] break-words">
          {outcome && (outcome.result === 'returned' ? short(gotOf(outcome)) : verdict && t(verdict))}
        </td>
        <td className="py-1 pr-3 text-right">{outcome && Math.max(1, Math.round(outcome.milliseconds))}</td>
      </tr>
      {unfolded && (
        <tr className={wrong ? 'bg-marigold-wash/60' : ''}>
          <td />
          <td colSpan={4} className="pr-3 pb-2">
            <Unfolded row={row} />
          </td>
        </tr>
      )}
    </>
  );
}

interface Props {
  readonly shown: CodeShown;
  readonly trial: Trial;
  /** What these runs are good for. */
  readonly note: string;
}

function OwnInput({ onTry }: { onTry: (given: Json[]) => void }) {
  const [text, setText] = useState('');
  const [bad, setBad] = useState(false);
  const tryIt = () => {
    try {
      const given = JSON.parse(text) as Json;
      setBad(!Array.isArray(given));
      if (Array.isArray(given)) onTry(given);
    } catch {
      setBad(true);
    }
  };
  return (
    <>
      <form
        className="flex items-center gap-1.5"
        onSubmit={(event) => {
          event.preventDefault();
          tryIt();
        }}
      >
        <input
          aria-label={t('ownLabel')}
          placeholder={t('own')}
          value={text}
          onChange={(event) => setText(event.target.value)}
          className="min-h-9 w-full rounded-control border border-line bg-card px-2 font-mono text-[0.78rem] placeholder:font-sans placeholder:text-soft"
        />
        <button
          type="submit"
          aria-label={t('ownTry')}
          className="grid size-9 flex-none place-items-center rounded-control border border-line"
        >
          <Play aria-hidden className="size-4" />
        </button>
      </form>
      {bad && (
        <p role="alert" className="pt-1 text-[0.8rem] text-brick">
          {t('ownBad')}
        </p>
      )}
    </>
  );
}

/** The table of cases: a row a case, a sign by shape and word, unfolding for output and differences. */
export function CaseTable({ shown, trial, note }: Props) {
  const { outcomes, own, busy, trouble, tryAll, tryOwn } = trial;
  const rows = shown.cases.map((c): Row => ({ ...c, outcome: outcomes.find((o) => o.key === c.key) }));
  const right = rows.filter(
    (r) => r.outcome && judgeCase(r.expected!, r.outcome, shown.numberTolerance) === 'accepted',
  );
  const heads = ['given', 'expected', 'got'] as const;
  return (
    <div
      role="group"
      aria-label={t('cases')}
      className="flex flex-col rounded-card border border-line bg-card"
    >
      <div className="flex flex-wrap items-center gap-x-3 border-b border-line bg-paper px-3 py-1.5 rounded-t-card">
        <h2 className="font-semibold">{t('cases')}</h2>
        <p role="status" className="flex-1 text-[0.88rem] text-soft">
          {busy ?? (outcomes.length > 0 ? t('tally', { right: right.length, all: rows.length }) : '')}
        </p>
        <Button look="first" onClick={tryAll} disabled={busy !== null}>
          <Play aria-hidden className="size-4" /> {t('all')}
        </Button>
      </div>
      <table className="w-full table-fixed text-[0.88rem]">
        <thead>
          <tr className="border-b border-line text-left text-soft">
            <td className="w-8" />
            {heads.map((head) => (
              <th key={head} scope="col" className="py-1.5 font-semibold">
                {t(head)}
              </th>
            ))}
            <th scope="col" className="w-13 py-1.5 pr-3 text-right font-semibold">
              {t('ms')}
            </th>
          </tr>
        </thead>
        <tbody className="[&>tr]:border-b [&>tr]:border-line/60">
          {rows.map((row) => (
            <CaseRow key={row.key} row={row} tolerance={shown.numberTolerance} />
          ))}
          {own && <CaseRow row={own} tolerance={shown.numberTolerance} />}
          <tr>
            <td className="pl-3 text-soft">+</td>
            <td colSpan={4} className="py-1.5 pr-3">
              <OwnInput onTry={tryOwn} />
            </td>
          </tr>
        </tbody>
      </table>
      {trouble && (
        <p role="alert" className="px-3 pt-2 text-brick">
          {trouble}
        </p>
      )}
      <p className="px-3 py-2 text-[0.85rem] text-soft">{note}</p>
    </div>
  );
}
