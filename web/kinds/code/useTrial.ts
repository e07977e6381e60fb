import { useEffect, useRef, useState } from 'react';
import { caseRun, inputFor } from '../../../core/kinds/code/caseInput';
import { checkerRun, OUTPUT_LIMIT_BYTES } from '../../../core/kinds/code/checkerRun';
import { judgeCase, readChecked, type CaseVerdict } from '../../../core/kinds/code/judgeCase';
import { readOwnInput } from '../../../core/kinds/code/ownInput';
import { limitsOf, programFiles } from '../../../core/kinds/code/program';
import type { CodeResponse, CodeShown, TestCase } from '../../../core/kinds/code/response';
import type { CaseOutcome, CaseRun, ProgramRun } from '../../../core/kinds/evidence';
import { words } from '../../words';
import { languageNames } from '../../../core/programs/languages';
import { engineOf, stopAll, Stopped } from './tryProgram';

const t = words('codeTrial', {
  trying: 'Running {{title}} …',
  warming: 'Getting {{language}} ready …',
  engine: '{{language}} did not start. Reload the page. Your work is saved.',
});

/** What a case came to. Without a verdict it was only run: an input of one's own, or a checker that is not here. */
export interface Tried {
  readonly outcome: CaseOutcome;
  readonly verdict: CaseVerdict | null;
  /** The checker's line, or empty. */
  readonly reason: string;
  /** The program that ran, to tell whether it is still the one that stands there. */
  readonly program: string;
}

export interface OwnCase {
  readonly key: string;
  /** As it was typed. */
  readonly text: string;
}

export interface Trial {
  /** By the key of the case. */
  readonly tried: Readonly<Record<string, Tried>>;
  readonly own: readonly OwnCase[];
  /** The program as it stands now. */
  readonly program: string;
  /** What is being done now, in words. */
  readonly busy: string | null;
  readonly trouble: string | null;
  /** Starts the engine before it is asked for anything. */
  readonly getReady: () => void;
  readonly tryAll: () => void;
  readonly tryOwn: (text: string) => void;
  readonly removeOwn: (key: string) => void;
  readonly stop: () => void;
}

/** What is kept of trials beside the answer: inputs of one's own, and each run for the record. */
export interface TrialRecord {
  readonly inputs: readonly string[];
  readonly onInputs: (inputs: readonly string[]) => void;
  readonly onRun: (cases: readonly { readonly key: string; readonly verdict: string }[]) => void;
}

const MOST_OWN = 12;
/** By its text: what was tried stays with it when others are removed. */
const ownKey = (text: string) => `own-${text}`;
/** As the journal names every input of one's own, however long it is. */
const OWN_IN_JOURNAL = 'own-input';

/** Runs a program in this browser, with the cases that are shown or with inputs of one's own; nothing of it counts. */
export function useTrial(shown: CodeShown, response: CodeResponse, record: TrialRecord): Trial {
  const [tried, setTried] = useState<Readonly<Record<string, Tried>>>({});
  const [busy, setBusy] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const { language } = response;
  const files = programFiles(shown, response);
  const program = JSON.stringify({ language, files });
  const engine = engineOf(language);
  /** Counts what was asked for and what was stopped: only the latest goes on. */
  const turn = useRef(0);
  useEffect(() => engineOf(language).bring(), [language]);

  const asked: Omit<ProgramRun, 'cases'> = {
    language,
    files,
    functionName: shown.way.is === 'function' ? shown.way.name : null,
    limits: { ...limitsOf(shown, language), outputBytes: OUTPUT_LIMIT_BYTES },
  };
  const own = record.inputs.map((text): OwnCase => ({ key: ownKey(text), text }));

  const checked = async (one: TestCase, outcome: CaseOutcome): Promise<Pick<Tried, 'verdict' | 'reason'>> => {
    if (!shown.comparison.byChecker || outcome.result !== 'returned')
      return { verdict: judgeCase(shown, one.expected, outcome), reason: '' };
    const run = shown.checker && checkerRun(shown.way, shown.checker, [one], [outcome]);
    if (!run) return { verdict: null, reason: '' };
    const found = readChecked(await engineOf(run.language).run(run, run.cases[0]!));
    if (!found) return { verdict: null, reason: '' };
    return { verdict: found.share === 100 ? 'accepted' : 'wrong', reason: found.reason };
  };
  const inTurn = (mine: number) => {
    if (turn.current !== mine) throw new Stopped();
  };
  const runCase = async (
    mine: number,
    run: CaseRun,
    title: string,
    sample: TestCase | null,
  ): Promise<Tried> => {
    inTurn(mine);
    setBusy(t('trying', { title }));
    const outcome = await engine.run(asked, run);
    inTurn(mine);
    const found = sample
      ? await checked(sample, outcome)
      : {
          verdict: outcome.result === 'returned' ? null : judgeCase(shown, null, outcome),
          reason: '',
        };
    inTurn(mine);
    const result = { outcome, program, ...found };
    setTried((before) => ({ ...before, [run.key]: result }));
    return result;
  };

  const attempt = async (work: (mine: number) => Promise<readonly (readonly [string, Tried])[]>) => {
    const mine = ++turn.current;
    setTrouble(null);
    setBusy(t('warming', { language: languageNames[language] }));
    try {
      await engine.warm();
      const done = await work(mine);
      record.onRun(done.map(([key, { verdict, outcome }]) => ({ key, verdict: verdict ?? outcome.result })));
    } catch (error) {
      if (!(error instanceof Stopped) && turn.current === mine)
        setTrouble(t('engine', { language: languageNames[language] }));
    } finally {
      if (turn.current === mine) setBusy(null);
    }
  };
  const ownRun = ({ key, text }: OwnCase): CaseRun | null => {
    const read = readOwnInput(shown.way, text);
    const input = 'input' in read ? inputFor(shown.way, shown.fixtures, read.input) : undefined;
    return input === undefined ? null : { key, input, files: [] };
  };
  const tryAll = () =>
    void attempt(async (mine) => {
      const done: (readonly [string, Tried])[] = [];
      for (const one of shown.cases)
        done.push([one.key, await runCase(mine, caseRun(shown, one), one.title, one)]);
      for (const one of own) {
        const run = ownRun(one);
        if (run) done.push([OWN_IN_JOURNAL, await runCase(mine, run, one.text, null)]);
      }
      return done;
    });
  const tryOwn = (text: string) => {
    const known = record.inputs.indexOf(text);
    const inputs = known >= 0 ? record.inputs : [...record.inputs, text].slice(-MOST_OWN);
    const run = ownRun({ key: ownKey(text), text });
    if (!run) return;
    if (known < 0) record.onInputs(inputs);
    void attempt(async (mine) => [[OWN_IN_JOURNAL, await runCase(mine, run, text, null)]]);
  };
  const removeOwn = (key: string) => {
    setTried((before) => Object.fromEntries(Object.entries(before).filter(([of]) => of !== key)));
    record.onInputs(record.inputs.filter((text) => ownKey(text) !== key));
  };
  return {
    tried,
    own,
    program,
    busy,
    trouble,
    getReady: () => void engine.warm().catch(() => undefined),
    tryAll,
    tryOwn,
    removeOwn,
    stop: () => {
      turn.current++;
      stopAll();
      setBusy(null);
    },
  };
}
