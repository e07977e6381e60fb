import type { Desk } from '../../core/journal/fold';
import type { CaseOutcome } from '../../core/kinds/contract';
import type { FullPaper } from '../../core/papers/paper';
import { buildResultSheet, type PartMark, type ResultSheet } from '../../core/results/resultSheet';
import { runsOfScript, scoreScript } from '../../core/scoring/scoreSitting';
import { engineOf } from '../kinds/code/tryProgram';

export const REHEARSAL_SEED = 'rehearsal';

/** Runs the programs of a rehearsal in this browser's workers; in the test itself only the server's runs count. */
async function runPrograms(
  paper: FullPaper,
  answers: Desk['answers'],
): Promise<Record<string, CaseOutcome[]>> {
  const outcomes: Record<string, CaseOutcome[]> = {};
  for (const { target, run } of runsOfScript(paper, answers)) {
    outcomes[target] = [];
    for (const one of run.cases)
      outcomes[target].push(
        await engineOf(run.language).run(run.program, run.functionName, one, run.limits.milliseconds),
      );
  }
  return outcomes;
}

/** Scores a rehearsal at once, on the device, by the same rules as any script. */
export async function scoreRehearsal(paper: FullPaper, answers: Desk['answers']): Promise<ResultSheet> {
  const { scored, forPeople } = scoreScript(paper, answers, await runPrograms(paper, answers));
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
  const candidate = { name: '', reference: '' };
  const times = { satAt: 0, releasedAt: 0, receipt: '' };
  return buildResultSheet({
    ...{ state: 'provisional', paper, seed: REHEARSAL_SEED, answers, marks, candidate },
    ...times,
  });
}
