import * as v from 'valibot';
import { noPlace, type CaseOutcome, type Place, type ProgramRun, type Score } from '../kinds/contract';
import { kindOf } from '../kinds/registry';
import type { Hundredths } from '../marks';
import { allParts, type FullPaper, type PartInPlace } from '../papers/paper';

type Answers = Readonly<Record<string, unknown>>;

/**
 * The stored answer of a part, or the empty one where there is none or it does not parse: a broken value can cost its
 * own part only, never the script.
 */
export function answerToScore(answers: Answers, { target, part }: PartInPlace): unknown {
  const kind = kindOf(part.kind);
  const shown = kind.show(part.content);
  if (answers[target] === undefined) return kind.empty(shown);
  const parsed = v.safeParse(kind.response, answers[target]);
  return parsed.success && kind.misfit(shown, parsed.output) === null ? parsed.output : kind.empty(shown);
}

/** The runs in the code sandbox that a script needs before it can be scored. */
export function runsOfScript(paper: FullPaper, answers: Answers): { target: string; run: ProgramRun }[] {
  return allParts(paper).flatMap((place) => {
    const run = kindOf(place.part.kind).runs(place.part.content, answerToScore(answers, place));
    return run ? [{ target: place.target, run }] : [];
  });
}

export interface PartScore extends Score {
  readonly target: string;
  readonly of: Hundredths;
}

export interface ScriptScores {
  readonly scored: readonly PartScore[];
  /** Targets that people mark. */
  readonly forPeople: readonly string[];
}

export type OutcomesByTarget = Readonly<Record<string, readonly CaseOutcome[]>>;

/** Scores all that a machine can; an unanswered part that people would mark is 0 at once. */
export function scoreScript(
  paper: FullPaper,
  answers: Answers,
  outcomes: OutcomesByTarget,
  at: Place = noPlace,
): ScriptScores {
  const scored: PartScore[] = [];
  const forPeople: string[] = [];
  for (const place of allParts(paper)) {
    const { target, part } = place;
    const kind = kindOf(part.kind);
    const response = answerToScore(answers, place);
    const empty = kind.progress(kind.show(part.content), response).state === 'empty';
    if (kind.judge === 'people' && !empty) {
      forPeople.push(target);
      continue;
    }
    const score = kind.score({
      content: part.content,
      response,
      maximum: part.marks,
      place: at,
      outcomes: outcomes[target],
    });
    scored.push({ target, of: part.marks, ...score });
  }
  return { scored, forPeople };
}
