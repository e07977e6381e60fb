import { and, eq, sql } from 'drizzle-orm';
import { canonicalJson } from '../../core/journal/canonicalJson';
import { candidateKindOf } from '../../core/kinds/candidateKindOf';
import type { Credit } from '../../core/kinds/contract';
import type { EvidenceFound, EvidenceRequest } from '../../core/kinds/evidence';
import type { MarkCause } from '../../core/marking/mark';
import {
  evidenceFor,
  isForMachine,
  isForPeople,
  partsOfScript,
  toScore,
  unansweredCredits,
  type ScriptPart,
} from '../../core/scoring/script';
import { findInvited, paperOf } from '../candidates/queries';
import type { Db } from '../db/open';
import { perDatabase } from '../db/perDatabase';
import { pagesUnseen } from '../sittings/pages';
import { evidence, judgements, markingTasks, sittings, standards } from '../db/schema';
import { formById } from '../forms/forms';
import { sha256 } from '../secrets';
import type { Try } from '../jobs/jobQueue';
import { knownEvidence, type Requested } from '../scoring/keptEvidence';
import { findEvidence, gatherEvidence, type HasEvidence } from '../scoring/findEvidence';
import type { ScoreFound } from '../scoring/scoreOne';
import { findSitting, type Sitting } from '../sittings/queries';
import { answersOfReceipt, newestReceipt, type ReceiptRow } from '../sittings/receipts';
import { addMark, standingMark } from './marks';
import { newTaskId, positionByChance } from './taskIds';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasJobs } from '../jobs/jobQueue';
import type { HasHub } from '../events/hub';
import type { HasClock } from '../machine/clock';
import type { HasLog } from '../machine/log';
import type { HasScorer } from '../scoring/scorer';

/** What is needed here of the server. */
interface Needs extends HasClock, HasDb, HasCommits, HasHub, HasLog, HasJobs, HasScorer, HasEvidence {}

/**
 * What people and machine mark: a changed response, or a page that has come since, makes another hash, and only then is a
 * part marked again.
 */
export function markedHash(
  db: Db,
  sittingId: number,
  { part, response }: Pick<ScriptPart, 'part' | 'response'>,
): string {
  const kind = candidateKindOf(part.kind);
  const unseen = pagesUnseen(db, sittingId, kind.files(response));
  const own = kind.markedAs?.(response) ?? response;
  return sha256(canonicalJson(unseen.length === 0 ? own : { response: own, unseen }));
}

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
      id: p('id'),
      roundId: p('roundId'),
      sittingId: p('sittingId'),
      target: p('target'),
      response: p('response'),
      role: 'first',
      position: p('position'),
      failure: p('failure'),
      trouble: p('trouble'),
      undecided: p('undecided'),
    })
    .prepare(),
  scored: db
    .update(sittings)
    .set({ scoredAt: sql`${p('at')}` })
    .where(eq(sittings.id, p('id')))
    .prepare(),
}));

/** The script of a closed sitting, part by part: what the newest receipt covers, in its own form. */
export function scriptPartsOf({ db }: HasDb, sitting: Sitting, receipt: ReceiptRow): ScriptPart[] {
  const invited = findInvited(db, sitting.invitationId)!;
  const { locale } = invited.round.settings;
  const [paper, form] = [paperOf(db, invited), formById(db, sitting.formId)];
  return partsOfScript({ paper, form, locale, answers: answersOfReceipt(db, receipt) });
}

/** What running came to: as it was found before, or found now and kept. */
async function evidenceOf(
  services: Needs,
  { sittingId, target, request }: Requested,
): Promise<EvidenceFound> {
  const { db, clock, commits } = services;
  const known = knownEvidence(db, { sittingId, target, request });
  if (known) return known;
  const input = sha256(canonicalJson(request.run));
  const document = await findEvidence(services, request, `sitting ${sittingId}`);
  const found = { sittingId, target, request: request.key, input, document, at: clock.now() };
  await commits.run(() => void db.insert(evidence).values(found).run());
  return document;
}

type Evidence = Readonly<Record<string, EvidenceFound>>;
type Gathered = { readonly evidence: Evidence } | { readonly trouble: string };

/** All that has to be run for a part; trouble of the machine is told, never scored. */
async function gather(services: Needs, sittingId: number, part: ScriptPart): Promise<Gathered> {
  const find = (request: EvidenceRequest) =>
    evidenceOf(services, { sittingId, target: part.target, request });
  try {
    return { evidence: await gatherEvidence((found) => Promise.resolve(evidenceFor(part, found)), find) };
  } catch (error) {
    services.log.error({ err: error, sittingId, target: part.target }, 'evidence cannot be had');
    return { trouble: String(error).slice(0, 500) };
  }
}

/**
 * The machine's scores of a script, by target: of the parts that were answered and have something for it. A part whose
 * evidence cannot be had is not among them, until the job's last try: then people decide.
 */
export async function scoreParts(
  services: Needs,
  sittingId: number,
  parts: readonly ScriptPart[],
  script: readonly ScriptPart[] = parts,
): Promise<{
  readonly found: ReadonlyMap<string, ScoreFound>;
  readonly without: ReadonlyMap<string, string>;
}> {
  const ready: { readonly part: ScriptPart; readonly evidence: Evidence }[] = [];
  const without = new Map<string, string>();
  for (const part of parts.filter((one) => isForMachine(one) && !one.empty)) {
    const gathered = await gather(services, sittingId, part);
    if ('evidence' in gathered) ready.push({ part, evidence: gathered.evidence });
    else without.set(part.target, gathered.trouble);
  }
  const found = await services.scorer.score(ready.map(({ part, evidence: e }) => toScore(part, script, e)));
  return { found, without };
}

interface Keeping {
  readonly db: Db;
  readonly sittingId: number;
  readonly at: number;
  /** The correction that it is scored again for; null where there is none. */
  readonly correctionId?: number | null;
}

/** Adds the machine's marks of a part, where they are not those that stand: an unchanged score leaves no trace. */
function keepCredits(
  { db, sittingId, at, correctionId = null }: Keeping,
  part: ScriptPart,
  credits: readonly Credit[],
): void {
  const { target } = part;
  const hash = markedHash(db, sittingId, part);
  for (const { component, hundredths, verdict, reasons } of credits) {
    const before = standingMark(db, sittingId, target, component);
    if (before?.response === hash && before.hundredths === hundredths) continue;
    // What a person has set right stands over the machine, for as long as the response is the same.
    if (before?.response === hash && before.role !== 'machine') continue;
    const given = { sittingId, target, component, hundredths, verdict, reasons, response: hash, at };
    const cause: MarkCause =
      before === null ? 'score' : before.response === hash ? 'rescore' : 'response changed';
    const byMachine = { role: 'machine', staffId: null, judgementId: null, level: null } as const;
    addMark(db, { ...given, ...byMachine, cause, correctionId }, before);
  }
}

type Task = typeof markingTasks.$inferSelect;

interface Tasks {
  readonly roundId: number;
  /** Of the sitting, as they were. */
  readonly tasks: readonly Task[];
}

/** A task for people where the part has something for them, or the machine has failed; opened again if it changed. */
function keepTask(
  { db, sittingId, at, roundId, tasks }: Keeping & Tasks,
  part: ScriptPart,
  score: ScoreFound | null,
): void {
  const { target } = part;
  const queries = queriesOf(db);
  const own = tasks.filter((one) => one.target === target && (one.role === 'first' || one.role === 'second'));
  const { failure, trouble, undecided } = leftToPeople(score);
  const response = markedHash(db, sittingId, part);
  const change = (task: Task, to: Partial<Task>) =>
    db.update(markingTasks).set(to).where(eq(markingTasks.id, task.id)).run();
  if (!isForPeople(part) && failure === null && undecided.length === 0) {
    for (const task of own) change(task, { failure, trouble, undecided, doneAt: task.doneAt ?? at });
  } else if (own.length === 0) {
    // Its agreed marks are what it has.
    if (hasAgreedMarks(db, { roundId, sittingId, target, response })) return;
    const added = { id: newTaskId(), position: positionByChance(), failure, trouble, undecided };
    queries.addTask.run({ ...added, roundId, sittingId, target, response });
  } else
    for (const task of own) {
      const more = undecided.some((component) => !task.undecided.includes(component));
      if (task.response !== response || (failure !== null && task.failure === null) || more)
        change(task, { response, failure, trouble, undecided, doneAt: null, draft: null });
      else if (task.failure !== failure || task.undecided.length > undecided.length)
        change(task, { failure, trouble, undecided });
    }
}

/**
 * Keeps a score that was found again for a corrected key. Once the marks of a round are frozen nobody can mark there: what
 * the machine cannot decide any more keeps the mark that it has.
 */
export function keepAgain(
  keeping: Keeping & Pick<Tasks, 'roundId'>,
  part: ScriptPart,
  score: Extract<ScoreFound, { credits: unknown }>,
  frozen: boolean,
): void {
  keepCredits(keeping, part, score.credits);
  if (frozen) return;
  const tasks = queriesOf(keeping.db).tasks.all({ sittingId: keeping.sittingId });
  keepTask({ ...keeping, tasks }, part, score);
}

/** What the machine leaves to people of a part that it scored, or could not score. */
function leftToPeople(score: ScoreFound | null): Pick<Task, 'failure' | 'trouble' | 'undecided'> {
  if (score && 'failure' in score) return { failure: score.failure, trouble: score.trouble, undecided: [] };
  const undecided = score?.undecided ?? [];
  const trouble = undecided.map((one) => `${one.component}: ${one.undecided}`).join('; ');
  return { failure: null, trouble: trouble.slice(0, 500), undecided: undecided.map((one) => one.component) };
}

/** Has a lead recorded agreed marks for this very response? */
function hasAgreedMarks(
  db: Db,
  { roundId, sittingId, target, response }: Pick<Task, 'roundId' | 'sittingId' | 'target' | 'response'>,
): boolean {
  const own = and(
    eq(standards.roundId, roundId),
    eq(standards.target, target),
    eq(standards.sittingId, sittingId),
    eq(judgements.response, response),
  );
  return (
    db
      .select({ id: standards.id })
      .from(standards)
      .innerJoin(judgements, eq(judgements.id, standards.judgementId))
      .where(own)
      .get() !== undefined
  );
}

/** Targets that wait for people because what has to be run could not be run. */
const leftWithoutEvidence = (db: Db, sittingId: number): string[] =>
  queriesOf(db)
    .tasks.all({ sittingId })
    .filter((task) => task.failure === 'no evidence' && task.doneAt === null)
    .map(({ target }) => target);

/** Scores what the newest receipt covers: objective parts at once, programs in the sandbox, tasks for people. */
export async function scoreSitting(services: Needs, sittingId: number, { last }: Try): Promise<void> {
  const { db, clock, commits } = services;
  const sitting = findSitting(db, sittingId);
  const receipt = newestReceipt(db, sittingId);
  // Readmitted before the job came to it: the next hand-in brings a job of its own.
  if (!sitting || !receipt || sitting.closedAt === null) return;
  const { round } = findInvited(db, sitting.invitationId)!;
  const script = scriptPartsOf(services, sitting, receipt);
  // Run again by staff after its last try: only what people were left with for want of evidence.
  const left = sitting.scoredAt === null ? null : leftWithoutEvidence(db, sittingId);
  const parts = left === null ? script : script.filter(({ target }) => left.includes(target));
  if (parts.length === 0) return;
  const { found, without } = await scoreParts(services, sittingId, parts, script);
  const waiting = last ? new Map<string, string>() : without;
  await commits.run(() => {
    // Readmitted or decided again while it was scored: what was found is of other answers.
    if (findSitting(db, sittingId)?.closedAt !== sitting.closedAt) return;
    if (newestReceipt(db, sittingId)?.id !== receipt.id) return;
    const tasks = queriesOf(db).tasks.all({ sittingId });
    const keeping = { db, sittingId, at: clock.now(), roundId: round.id, tasks };
    for (const part of parts.filter(({ target }) => !waiting.has(target))) {
      const trouble = without.get(part.target);
      const score =
        trouble === undefined ? found.get(part.target) : ({ failure: 'no evidence', trouble } as const);
      const credits = part.empty ? unansweredCredits(part) : score && 'credits' in score ? score.credits : [];
      keepCredits(keeping, part, credits);
      keepTask(keeping, part, score ?? null);
    }
    if (waiting.size === 0) queriesOf(db).scored.run({ at: keeping.at, id: sittingId });
    services.jobs.addOnce('allocate', round.id);
  });
  services.hub.tellOf(sitting.invitationId, round.id);
  for (const [target, score] of found)
    if ('failure' in score) services.log.error({ sittingId, target, ...score }, 'a part could not be scored');
  // After the last try too: people have the part then, and staff see that something is wrong with the machine.
  if (without.size > 0)
    throw new Error(`no evidence for ${[...without].map(([t, why]) => `${t}: ${why}`).join('; ')}`);
}
