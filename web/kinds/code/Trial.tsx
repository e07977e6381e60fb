import { useState } from 'react';
import { outcomeAgain, type SeenCase } from '../../../core/kinds/code/inspect';
import { verdictOn, type CaseVerdict } from '../../../core/kinds/code/judgeCase';
import type { CodeResponse, CodeShown } from '../../../core/kinds/code/response';
import type { RunAsked } from '../../../core/kinds/contract';
import type { CaseOutcome } from '../../../core/kinds/evidence';
import { messageOf } from '../../api/client';
import { Button } from '../../ui/Button';
import { words } from '../../words';
import type { TrialProps } from '../answerProps';
import { Play } from './caseIcons';
import { inputText, type Row } from './CaseDetails';
import { CaseHeads, CaseRow } from './CaseRow';
import { OwnInput } from './CaseTable';
import { t as caseWords } from './caseWords';

const t = words('codeEvidence', {
  evidence: 'What the program did',
  tally: '{{right}} of {{all}} cases as expected',
  none: 'The program was not run.',
  hidden: 'hidden',
  sample: 'sample',
  again: 'Run again: {{title}}',
  running: 'Running …',
  note: 'These are the runs that were scored. Running again happens on the server; it changes no mark and is not kept.',
  own: 'your input',
});

/** Every case that was scored, with what was expected and found; each can be run again, and an input of one's own too. */
export function Trial({ shown, response, found, onRun }: TrialProps<CodeShown, CodeResponse>) {
  const cases = found as readonly SeenCase[] | null;
  const [again, setAgain] = useState<Readonly<Record<string, CaseOutcome>>>({});
  const [own, setOwn] = useState<readonly string[]>([]);
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const run = async (key: string, asked: RunAsked) => {
    setBusy(true);
    setTrouble(null);
    try {
      const outcome = outcomeAgain(await onRun!(asked));
      if (outcome) setAgain((before) => ({ ...before, [key]: outcome }));
    } catch (error) {
      setTrouble(messageOf(error));
    } finally {
      setBusy(false);
    }
  };
  if (!cases) return <p className="text-soft">{t('none')}</p>;
  const context = { shown, language: response.language, onJump: null };
  const rowOf = (one: SeenCase): Row => ({
    key: one.key,
    title: `${one.title} (${t(one.hidden ? 'hidden' : 'sample')})`,
    input: inputText(shown, one.input),
    files: one.files,
    expected: one.expected,
    own: false,
    tried: { outcome: one.outcome, verdict: one.verdict, reason: one.reason },
    fresh: true,
  });
  const ownRow = (text: string): Row => ({
    key: text,
    title: `${t('own')}: ${text}`,
    input: text,
    files: [],
    expected: undefined,
    own: true,
    tried: again[text] && {
      outcome: again[text],
      verdict: again[text].result === 'returned' ? null : verdictOn(shown, null, again[text]),
      reason: '',
    },
    fresh: true,
  });
  const verdictAgain = ({ key, expected }: SeenCase): CaseVerdict | 'ran' => {
    const outcome = again[key];
    // The checker is run only where a script is scored.
    return outcome && !(shown.comparison.byChecker && outcome.result === 'returned')
      ? verdictOn(shown, expected, outcome)
      : 'ran';
  };
  const right = cases.filter(({ verdict }) => verdict === 'accepted').length;
  return (
    <section aria-label={t('evidence')} className="rounded-card border border-line bg-card text-[0.9rem]">
      <header className="flex flex-wrap items-baseline gap-x-3 rounded-t-card border-b border-line bg-paper px-3 py-1.5">
        <h2 className="font-semibold">{t('evidence')}</h2>
        <p role="status" className="text-soft">
          {busy ? t('running') : t('tally', { right, all: cases.length })}
        </p>
      </header>
      <table className="w-full table-fixed">
        <CaseHeads />
        <tbody className="[&>tr]:border-b [&>tr]:border-line/60">
          {cases.map((one) => (
            <CaseRow
              key={one.key}
              row={rowOf(one)}
              {...context}
              more={
                onRun && (
                  <Again
                    title={one.title}
                    busy={busy}
                    outcome={again[one.key]}
                    verdict={verdictAgain(one)}
                    onRun={() => void run(one.key, { case: one.key })}
                  />
                )
              }
            />
          ))}
          {own.map((text) => (
            <CaseRow key={text} row={ownRow(text)} {...context} />
          ))}
          {onRun && shown.way.is !== 'query' && (
            <tr>
              <td className="pl-3 text-soft">+</td>
              <td colSpan={4} className="py-1.5 pr-3">
                <OwnInput
                  shown={shown}
                  onTry={(text) => {
                    if (!own.includes(text)) setOwn([...own, text]);
                    void run(text, { input: text });
                  }}
                />
              </td>
            </tr>
          )}
        </tbody>
      </table>
      {trouble && (
        <p role="alert" className="px-3 pt-2 text-brick">
          {trouble}
        </p>
      )}
      {onRun && <p className="px-3 py-2 text-[0.85rem] text-soft">{t('note')}</p>}
    </section>
  );
}

interface AgainProps {
  readonly title: string;
  readonly busy: boolean;
  readonly outcome: CaseOutcome | undefined;
  readonly verdict: CaseVerdict | 'ran';
  readonly onRun: () => void;
}

/** Runs a case again, and says what it came to this time. */
function Again({ title, busy, outcome, verdict, onRun }: AgainProps) {
  return (
    <p className="flex flex-wrap items-center gap-2 font-sans">
      <Button onClick={onRun} disabled={busy}>
        <Play aria-hidden className="size-4" /> {t('again', { title })}
      </Button>
      {outcome && (
        <span className="text-soft">
          {caseWords(verdict)} · {caseWords('took', { ms: Math.max(1, Math.round(outcome.milliseconds)) })}
        </span>
      )}
    </p>
  );
}
