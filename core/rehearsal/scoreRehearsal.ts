import { plainForm } from '../forms/drawForm';
import type { Credit } from '../kinds/contract';
import type { FullPaper } from '../papers/paper';
import type { ComponentMark } from '../results/componentMark';
import { buildResultSheet, type ResultSheet } from '../results/resultSheet';
import { partsOfScript, type Answers, type Script } from '../scoring/script';

/** Everybody rehearses with the same form: nothing of a rehearsal is stored. */
export const rehearsalScript = (paper: FullPaper, answers: Answers): Script => ({
  paper,
  form: plainForm(paper),
  answers,
  locale: 'en',
});

/**
 * The sheet of a rehearsal, by the same rules as any script; what people would mark is told as not marked.
 * `credits` are the machine's, by target.
 */
export function rehearsalSheet(script: Script, credits: ReadonlyMap<string, readonly Credit[]>): ResultSheet {
  const marks = partsOfScript(script).flatMap(({ target, components }) =>
    components.map((component): ComponentMark => {
      const credit = credits.get(target)?.find((one) => one.component === component.key);
      const nothing = { hundredths: 0, verdict: 'not marked', reasons: [] } as const;
      return { target, level: null, ...(credit ?? nothing), component: component.key };
    }),
  );
  return buildResultSheet({
    withheld: new Set(),
    state: 'provisional',
    script,
    marks,
    candidate: { name: '', reference: '' },
    satAt: 0,
    handedInAt: 0,
    finalBy: 0,
    releasedAt: 0,
    receipt: '',
    timeZone: 'UTC',
  });
}
