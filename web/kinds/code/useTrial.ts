import { useEffect, useState } from 'react';
import type { CodeResponse, CodeShown } from '../../../core/kinds/code/response';
import type { CaseOutcome, CaseRun, Json } from '../../../core/kinds/evidence';
import { words } from '../../words';
import { languageNames } from './languageNames';
import { engineOf } from './tryProgram';

const t = words('codeTrial', {
  own: 'your own input',
  trying: 'Trying …',
  warming: 'Getting {{language}} ready …',
  engine: '{{language}} did not start. Reload the page. Your work is saved.',
});

const OWN = 'own-input';

/** As written, or as it was begun for the candidate. */
export const programOf = (shown: CodeShown, { programs, language }: CodeResponse): string =>
  programs[language] ?? shown.languages.find((l) => l.language === language)?.starter ?? '';

export interface OwnRun {
  readonly key: string;
  readonly title: string;
  readonly arguments: readonly Json[];
  readonly expected: undefined;
  readonly outcome: CaseOutcome | undefined;
}

export interface Trial {
  readonly outcomes: readonly CaseOutcome[];
  /** The last run with an input of one's own. */
  readonly own: OwnRun | null;
  /** What is being done now, in words. */
  readonly busy: string | null;
  readonly trouble: string | null;
  /** Starts the engine before it is asked for anything. */
  readonly getReady: () => void;
  readonly tryAll: () => void;
  readonly tryOwn: (given: readonly Json[]) => void;
}

/** Runs a program in this browser, with the cases that are shown or with an input of one's own; nothing of it counts. */
export function useTrial(shown: CodeShown, response: CodeResponse): Trial {
  const [outcomes, setOutcomes] = useState<CaseOutcome[]>([]);
  const [own, setOwn] = useState<CaseRun | null>(null);
  const [ownOutcome, setOwnOutcome] = useState<CaseOutcome>();
  const [busy, setBusy] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const { language } = response;
  const program = programOf(shown, response);
  useEffect(() => engineOf(language).bring(), [language]);
  const getReady = () =>
    void engineOf(language)
      .warm()
      .catch(() => undefined);

  const attempt = async (work: () => Promise<void>) => {
    setTrouble(null);
    setBusy(t('warming', { language: languageNames[language] }));
    try {
      await engineOf(language).warm();
      setBusy(t('trying'));
      await work();
    } catch {
      setTrouble(t('engine', { language: languageNames[language] }));
    } finally {
      setBusy(null);
    }
  };
  const { functionName, limits } = shown;
  const runOne = (one: CaseRun) => engineOf(language).run({ program, functionName, limits }, one);
  const tryAll = () =>
    void attempt(async () => {
      const results: CaseOutcome[] = [];
      for (const one of shown.cases) {
        results.push(await runOne(one));
        setOutcomes([...results]);
      }
    });
  const tryOwn = (given: readonly Json[]) =>
    void attempt(async () => {
      const one = { key: OWN, arguments: given };
      setOwn(one);
      setOwnOutcome(await runOne(one));
    });
  const ownRow = own && { ...own, title: t('own'), expected: undefined, outcome: ownOutcome };
  return { outcomes, own: ownRow, busy, trouble, getReady, tryAll, tryOwn };
}
