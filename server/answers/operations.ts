import { tellCandidates } from '../candidates/tellCandidates';
import { and, eq, isNotNull, isNull } from 'drizzle-orm';
import type {
  AcceptedAnswer,
  AcceptPreview,
  AnswerCount,
  AnsweredPart,
  AnswerTable,
  ScriptChange,
} from '../../core/answers/api';
import { wholeForm } from '../../core/forms/drawForm';
import { keyKindOf } from '../../core/kinds/keyKinds';
import { bandOf } from '../../core/results/resultSheet';
import { totalOf } from '../../core/results/totals';
import { allParts, type FullPaper, type PartInPlace } from '../../core/papers/paper';
import { factsOf, partsOfScript, type ScriptPart } from '../../core/scoring/script';
import { record } from '../audit/record';
import { invitations, keyCorrections, rounds, sittings } from '../db/schema';
import { formById } from '../forms/forms';
import { conflict, notFound } from '../http/errors';
import { findInvited } from '../candidates/queries';
import type { Outbox } from '../mail/outbox';
import { keepCredits, markedHash, scoreParts } from '../marking/scoreJob';
import { notify } from '../mail/notices';
import { standingMarks } from '../marking/marks';
import { acceptIn } from '../papers/corrections';
import { forgetPapers, isReadable, paperOfVersion } from '../papers/papers';
import { findRound } from '../schedule/queries';
import type { Reading } from '../reading/read';
import { findSitting } from '../sittings/queries';
import { answersOfReceipt, newestReceipt } from '../sittings/receipts';
import type { HasConfig } from '../config';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasJobs } from '../jobs/jobQueue';
import type { HasHub } from '../events/hub';
import type { HasClock } from '../machine/clock';
import type { HasLog } from '../machine/log';
import type { HasScheduler } from '../machine/loopScheduler';
import type { HasSandbox } from '../sandbox/sandbox';
import type { HasExpressions } from '../scoring/expressionJudge';
import type { HasScorer } from '../scoring/scorer';

/** What is needed here of the server. */
interface Needs
  extends
    HasConfig,
    HasClock,
    HasDb,
    HasCommits,
    HasHub,
    HasScheduler,
    HasLog,
    HasJobs,
    HasSandbox,
    HasScorer,
    HasExpressions {}

type Sitting = typeof sittings.$inferSelect;
type Round = typeof rounds.$inferSelect;

const roundOf = ({ db }: Reading, id: number): Round => {
  const round = findRound(db, id);
  if (!round) throw notFound('noRound');
  return round;
};

export function answeredParts(services: Reading, roundId: number): AnsweredPart[] {
  const paper = paperOfVersion(services.db, roundOf(services, roundId).paperVersionId);
  return wholeForm(paper).paper.questions.flatMap((question) =>
    question.parts.map(({ target, key: part }) => ({
      target,
      itemNumber: question.number,
      title: question.title,
      part,
    })),
  );
}

const scriptsOf = ({ db }: Reading, roundId: number): Sitting[] =>
  db
    .select({ sitting: sittings })
    .from(sittings)
    .innerJoin(invitations, eq(invitations.id, sittings.invitationId))
    .where(and(eq(invitations.roundId, roundId), isNotNull(sittings.closedAt)))
    .all()
    .map((row) => row.sitting);

/** The parts of one item of a script, as the paper now judges them. */
function partsIn({ db }: Reading, sitting: Sitting, { paper, round, item }: Judged): ScriptPart[] {
  const receipt = newestReceipt(db, sitting.id);
  if (!receipt) return [];
  const answers = answersOfReceipt(db, receipt);
  const script = { paper, form: formById(db, sitting.formId), answers, locale: round.settings.locale };
  return partsOfScript(script).filter((part) => part.item.key === item);
}

interface Judged {
  readonly paper: FullPaper;
  readonly round: Round;
  readonly item: string;
}

function placeIn(services: Reading, roundId: number, target: string): { judged: Judged; place: PartInPlace } {
  const round = roundOf(services, roundId);
  const paper = paperOfVersion(services.db, round.paperVersionId);
  const place = allParts(paper).find((one) => one.target === target);
  if (!place) throw notFound('noQuestion');
  return { judged: { paper, round, item: place.item.key }, place };
}

/** Counts what was answered. */
export function answerTable(services: Reading, roundId: number, target: string): AnswerTable {
  const { judged, place } = placeIn(services, roundId, target);
  const kind = keyKindOf(place.part.kind);
  const { content, marks } = place.part;
  const scripts = scriptsOf(services, roundId);
  const counts = new Map<string, AnswerCount>();
  let answered = 0;
  for (const sitting of scripts) {
    const parts = partsIn(services, sitting, judged);
    const part = parts.find((one) => one.target === target);
    if (!part || part.empty) continue;
    answered++;
    for (const fact of factsOf(part, parts)) {
      const key = JSON.stringify(fact);
      const before = counts.get(key);
      const acceptable = () =>
        fact.right === false && kind.accept(content, fact.component, fact.answer) !== null;
      counts.set(key, {
        ...fact,
        count: (before?.count ?? 0) + 1,
        acceptable: before?.acceptable ?? acceptable(),
      });
    }
  }
  const own = answeredParts(services, roundId).find((one) => one.target === target)!;
  const components = kind.components(content, marks).map(({ key, name }) => ({ key, name }));
  const answers = [...counts.values()].sort((a, b) => b.count - a.count || (a.answer < b.answer ? -1 : 1));
  const waiting = services.db
    .select()
    .from(keyCorrections)
    .where(
      and(
        eq(keyCorrections.item, place.item.key),
        eq(keyCorrections.version, place.item.version),
        eq(keyCorrections.part, place.part.key),
        isNull(keyCorrections.finishedAt),
      ),
    )
    .all()
    .at(-1);
  const rescoring = waiting ? { done: waiting.done, of: waiting.of ?? scripts.length } : null;
  return { ...own, scripts: scripts.length, answered, components, answers, rescoring };
}

/** The paper as it would judge with one more answer accepted. Refuses what its kind cannot accept. */
function corrected({ paper, item }: Judged, { part }: PartInPlace, accepted: AcceptedAnswer): FullPaper {
  const bank = paper.bank.map((one) => {
    if (one.key !== item) return one;
    const made = acceptIn(one, { part: part.key, ...accepted });
    if (!made) throw conflict('not-acceptable');
    return made;
  });
  return { ...paper, bank };
}

interface Rescored {
  readonly sitting: Sitting;
  readonly part: ScriptPart;
  readonly credits: Parameters<typeof keepCredits>[2];
}

/** Scores one part of every script again; only what the machine can decide, and of what was answered. */
async function rescored(services: Needs, judged: Judged, target: string): Promise<Rescored[]> {
  const found: Rescored[] = [];
  for (const sitting of scriptsOf(services, judged.round.id)) {
    const parts = await services.scheduler.inBetween(() => partsIn(services, sitting, judged));
    const part = parts.find((one) => one.target === target);
    if (!part || part.empty) continue;
    const scores = await scoreParts(services, sitting.id, [part], parts);
    const score = scores.found.get(target);
    if (score && 'credits' in score) found.push({ sitting, part, credits: score.credits });
  }
  return found;
}

/** The rounds in which this item version stands, the signed-off ones among them. */
const roundsWith = ({ db }: HasDb, { item }: Pick<PartInPlace, 'item'>): Round[] =>
  db
    .select()
    .from(rounds)
    .all()
    .filter((round) => isReadable(db, round.paperVersionId))
    .filter((round) =>
      paperOfVersion(db, round.paperVersionId).bank.some(
        (one) => one.key === item.key && one.version === item.version,
      ),
    );

/** What scores found again change in a script's total; null where nothing. What a person has set right stands. */
function changeOf(
  { db }: HasDb,
  paper: FullPaper,
  { sitting, part, credits }: Rescored,
): ScriptChange | null {
  const standing = standingMarks(db, sitting.id);
  const hash = markedHash(db, sitting.id, part);
  const changed = standing.map((mark) => {
    const found = credits.find((one) => mark.target === part.target && one.component === mark.component);
    const stands = mark.role !== 'machine' && mark.response === hash;
    return found && !stands ? { ...mark, hundredths: found.hundredths } : mark;
  });
  const copy = wholeForm(paper).paper;
  const [before, after] = [totalOf(copy, standing), totalOf(copy, changed)];
  if (before === after) return null;
  const band = (total: number) => bandOf(paper, total)?.title ?? null;
  return { script: sitting.script, before, after, bandBefore: band(before), bandAfter: band(after) };
}

export async function previewAccept(
  services: Needs,
  roundId: number,
  { target, ...accepted }: AcceptedAnswer & { readonly target: string },
): Promise<AcceptPreview> {
  const { place } = placeIn(services, roundId, target);
  const changes: ScriptChange[] = [];
  let [scripts, released] = [0, 0];
  for (const round of roundsWith(services, place)) {
    const now = placeIn(services, round.id, target);
    const judged = { ...now.judged, paper: corrected(now.judged, now.place, accepted) };
    for (const found of await rescored(services, judged, target)) {
      scripts++;
      const change = changeOf(services, now.judged.paper, found);
      if (!change) continue;
      changes.push(change);
      if (round.releasedAt !== null) released++;
    }
  }
  return { scripts, changes, released };
}

/** Accepts an answer from now on; scripts that were scored already are scored again by a job. */
export function acceptAnswer(
  services: Needs,
  who: { readonly staffId: number; readonly roundId: number },
  {
    target,
    component,
    answer,
    reason,
  }: AcceptedAnswer & { readonly target: string; readonly reason: string },
): void {
  const { db, clock, jobs } = services;
  const { judged, place } = placeIn(services, who.roundId, target);
  corrected(judged, place, { component, answer });
  const { item, part } = place;
  const kept = { item: item.key, version: item.version, part: part.key, component, answer, reason };
  db.transaction(() => {
    const made = db
      .insert(keyCorrections)
      .values({ ...kept, staffId: who.staffId, at: clock.now() })
      .run();
    record(services, { staffId: who.staffId, act: 'accepted-answer', subject: target, reason });
    jobs.add('rescore', Number(made.lastInsertRowid));
  });
  forgetPapers(db);
}

/**
 * The job after an answer was accepted: the part is scored again in every script, the old marks kept. Whose result is out
 * and changes is told so.
 */
export async function rescore(services: Needs, outbox: Outbox, correctionId: number): Promise<void> {
  const { db, clock, commits } = services;
  const own = eq(keyCorrections.id, correctionId);
  const correction = db.select().from(keyCorrections).where(own).get()!;
  const target = `${correction.item}/${correction.part}`;
  const item = { key: correction.item, version: correction.version };
  const here = db
    .select()
    .from(rounds)
    .all()
    .filter((round) => isReadable(db, round.paperVersionId))
    .filter((round) =>
      allParts(paperOfVersion(db, round.paperVersionId)).some(
        (p) => p.target === target && p.item.version === item.version,
      ),
    );
  const progress = (to: Partial<typeof keyCorrections.$inferInsert>) =>
    void db.update(keyCorrections).set(to).where(own).run();
  progress({ done: 0, of: here.reduce((sum, round) => sum + scriptsOf(services, round.id).length, 0) });
  let done = 0;
  for (const round of here) {
    const { judged } = placeIn(services, round.id, target);
    const scored = await rescored(services, judged, target);
    await commits.run(() => {
      for (const found of scored) {
        const { sitting, part, credits } = found;
        // Readmitted meanwhile, or handed in again: its own score follows, by the corrected key.
        if (sitting.scoredAt === null || findSitting(db, sitting.id)?.scoredAt !== sitting.scoredAt) continue;
        const moves = changeOf(services, judged.paper, found) !== null;
        keepCredits({ db, sittingId: sitting.id, at: clock.now() }, part, credits);
        if (moves && round.releasedAt !== null)
          notify(services, outbox, findInvited(db, sitting.invitationId)!, { topic: 'result changed' });
      }
      done += scriptsOf(services, round.id).length;
      progress({ done });
    });
    tellCandidates(services, round.id);
  }
  progress({ finishedAt: clock.now() });
}
