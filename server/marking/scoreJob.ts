import { and, eq, sql } from 'drizzle-orm';
import { canonicalJson } from '../../core/journal/canonicalJson';
import type { CaseOutcome, ProgramRun } from '../../core/kinds/contract';
import { WHOLE_PART } from '../../core/marking/mark';
import type { FullPaper } from '../../core/papers/paper';
import { allParts } from '../../core/papers/paper';
import {
  answerToScore,
  runsOfScript,
  scoreScript,
  type OutcomesByTarget,
  type PartScore,
} from '../../core/scoring/scoreSitting';
import { findInvited, paperOf } from '../arrival/queries';
import type { Db } from '../db/open';
import { perDatabase } from '../db/perDatabase';
import { evidence, markingTasks, sittings } from '../db/schema';
import { sha256 } from '../http/secrets';
import type { Services } from '../services';
import { findSitting } from '../sittings/queries';
import { answersOfReceipt, newestReceipt } from '../sittings/receipts';
import { addMark, standingMark } from './marks';

/** What people and machine mark: a changed response has another hash, and only then is a part marked anew. */
export const responseHash = (response: unknown): string => sha256(canonicalJson(response));

const p = sql.placeholder;

const queriesOf = perDatabase((db) => ({
  tasks: db
    .select()
    .from(markingTasks)
    .where(eq(markingTasks.sittingId, p('sittingId')))
    .prepare(),
  addTask: db
    .insert(markingTasks)
    .values({
      ...{ roundId: p('roundId'), sittingId: p('sittingId'), target: p('target'), response: p('response') },
      ...{ component: WHOLE_PART, role: 'first' },
    })
    .prepare(),
  scored: db
    .update(sittings)
    .set({ scoredAt: sql`${p('at')}` })
    .where(eq(sittings.id, p('id')))
    .prepare(),
}));

interface Script {
  readonly sittingId: number;
  readonly roundId: number;
  readonly paper: FullPaper;
  readonly answers: Readonly<Record<string, unknown>>;
  /** By target. */
  readonly hashes: ReadonlyMap<string, string>;
}

/** The outcomes of a run: as they were found before, or found now and kept. */
async function outcomesOf(
  { db, sandbox, clock, commits }: Services,
  { sittingId }: Script,
  { target, run }: { readonly target: string; readonly run: ProgramRun },
): Promise<readonly CaseOutcome[]> {
  const input = sha256(canonicalJson(run));
  const same = and(
    ...[eq(evidence.sittingId, sittingId), eq(evidence.target, target)],
    eq(evidence.input, input),
  );
  const known = db.select().from(evidence).where(same).get();
  if (known) return known.document as CaseOutcome[];
  const document = await sandbox.run(run);
  await commits.run(() => {
    db.insert(evidence).values({ sittingId, target, input, document, at: clock.now() }).run();
  });
  return document;
}

function keepScore(db: Db, { sittingId, hashes }: Script, score: PartScore, at: number): void {
  const { target, hundredths, verdict, reasons } = score;
  const response = hashes.get(target)!;
  const before = standingMark(db, sittingId, target);
  if (before?.response === response) return;
  const cause = before ? 'response changed' : 'score';
  const byMachine = { role: 'machine', staffId: null, levels: null, comment: '' } as const;
  addMark(
    db,
    { ...{ sittingId, target, hundredths, verdict, reasons, response, at }, cause, ...byMachine },
    before,
  );
}

/**
 * Tasks for what people mark: one that is there already is opened again only where the response has changed; one whose
 * part the machine has scored now, as an answer that was emptied, is done.
 */
function keepTasks(
  db: Db,
  { sittingId, roundId, hashes }: Script,
  { forPeople, scored }: { readonly forPeople: readonly string[]; readonly scored: readonly PartScore[] },
  at: number,
): void {
  const queries = queriesOf(db);
  const known = new Map(queries.tasks.all({ sittingId }).map((task) => [task.target, task]));
  const change = (id: number, to: Partial<typeof markingTasks.$inferSelect>) =>
    db.update(markingTasks).set(to).where(eq(markingTasks.id, id)).run();
  for (const target of forPeople) {
    const [task, response] = [known.get(target), hashes.get(target)!];
    if (!task) queries.addTask.run({ roundId, sittingId, target, response });
    else if (task.response !== response) change(task.id, { response, doneAt: null });
  }
  for (const { target } of scored) {
    const task = known.get(target);
    if (task) change(task.id, { doneAt: at });
  }
}

/** Scores what the newest receipt covers: objective parts at once, programs in the sandbox, tasks for people. */
export async function scoreSitting(services: Services, sittingId: number): Promise<void> {
  const { db, clock, commits } = services;
  const sitting = findSitting(db, sittingId);
  const receipt = newestReceipt(db, sittingId);
  // Readmitted before the job came to it: the next hand-in brings a job of its own.
  if (!sitting || !receipt || sitting.scoredAt !== null || sitting.closedAt === null) return;
  const invited = findInvited(db, sitting.invitationId)!;
  const paper = paperOf(db, invited);
  const answers = answersOfReceipt(db, receipt);
  const hashes = new Map(
    allParts(paper).map((place) => [place.target, responseHash(answerToScore(answers, place))]),
  );
  const script: Script = { sittingId, roundId: invited.round.id, paper, answers, hashes };
  const outcomes: Record<string, OutcomesByTarget[string]> = {};
  for (const one of runsOfScript(paper, answers))
    outcomes[one.target] = await outcomesOf(services, script, one);
  const { scored, forPeople } = scoreScript(paper, answers, outcomes, invited.round.settings);
  await commits.run(() => {
    // Readmitted or decided anew while the programs ran: what was found is of other answers.
    if (findSitting(db, sittingId)?.closedAt !== sitting.closedAt) return;
    if (newestReceipt(db, sittingId)?.id !== receipt.id) return;
    const at = clock.now();
    for (const score of scored) keepScore(db, script, score, at);
    keepTasks(db, script, { forPeople, scored }, at);
    queriesOf(db).scored.run({ at, id: sittingId });
  });
}
