import { buildCandidatePaper, type CandidatePaper } from '../papers/candidatePaper';
import type { FullPaper } from '../papers/paper';
import { buildResultSheet, type PartMark, type ResultSheet } from '../results/resultSheet';
import { scoreScript, type OutcomesByTarget } from '../scoring/scoreSitting';

/** Everybody rehearses with the same form: nothing of a rehearsal is stored. */
export const rehearsalForm = (paper: FullPaper): CandidatePaper => buildCandidatePaper(paper, 'rehearsal');

/** Scores a rehearsal by the same rules as any script; what people would mark is told as not marked. */
export function scoreRehearsal(
  paper: FullPaper,
  answers: Readonly<Record<string, unknown>>,
  outcomes: OutcomesByTarget,
): ResultSheet {
  const { scored, forPeople } = scoreScript(paper, answers, outcomes);
  const nothing = { levels: null, comment: '' };
  const marks: PartMark[] = [
    ...scored.map(({ target, hundredths, verdict, reasons }) => ({
      ...{ target, hundredths, verdict, reasons },
      ...nothing,
    })),
    ...forPeople.map((target) => ({
      ...{ target, hundredths: 0, verdict: 'not marked' as const, reasons: [] },
      ...nothing,
    })),
  ];
  return buildResultSheet({
    ...{ state: 'provisional', paper, form: rehearsalForm(paper), answers, marks },
    ...{ candidate: { name: '', reference: '' }, satAt: 0, releasedAt: 0, receipt: '' },
  });
}
