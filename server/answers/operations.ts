import { and, eq, inArray, isNotNull } from 'drizzle-orm';
import type {
  AcceptedAnswer,
  AcceptPreview,
  AnswerCount,
  AnsweredPart,
  AnswerTable,
} from '../../core/answers/api';
import { wholeForm } from '../../core/forms/drawForm';
import { keyKindOf } from '../../core/kinds/keyKinds';
import { sumMarks } from '../../core/marks';
import { allParts, type FullPaper, type PartInPlace } from '../../core/papers/paper';
import { partsOfScript, type ScriptPart } from '../../core/scoring/script';
import { record } from '../audit/record';
import { invitations, keyCorrections, rounds, sittings } from '../db/schema';
import { formById } from '../forms/forms';
import { conflict, notFound } from '../http/errors';
import { keepCredits, scoreParts } from '../marking/scoreJob';
import { standingMarks } from '../marking/marks';
import { acceptIn } from '../papers/corrections';
import { forgetPapers, isReadable, paperOfVersion } from '../papers/papers';
import { findRound } from '../schedule/queries';
import type { Reading } from '../reading/read';
import type { Services } from '../services';
import { findSitting } from '../sittings/queries';
import { answersOfReceipt, newestReceipt } from '../sittings/receipts';

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
    const part = partsIn(services, sitting, judged).find((one) => one.target === target);
    if (!part || part.empty) continue;
    answered++;
    for (const fact of kind.facts(content, part.response, part.place)) {
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
  return { ...own, scripts: scripts.length, answered, components, answers };
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

/** Scores one part of every script anew; only what the machine can decide, and of what was answered. */
async function rescored(services: Services, judged: Judged, target: string): Promise<Rescored[]> {
  const found: Rescored[] = [];
  for (const sitting of scriptsOf(services, judged.round.id)) {
    const parts = await services.turns.inBetween(() => partsIn(services, sitting, judged));
    const part = parts.find((one) => one.target === target);
    if (!part || part.empty) continue;
    const scores = await scoreParts(services, sitting.id, [part], parts);
    const score = scores.found.get(target);
    if (score && 'credits' in score) found.push({ sitting, part, credits: score.credits });
  }
  return found;
}

/** The rounds in which this item version stands: those whose marks can still change, and those that are signed off. */
function roundsWith(
  { db }: Services,
  { item }: PartInPlace,
): { readonly open: Round[]; readonly frozen: Round[] } {
  const standing = db
    .select()
    .from(rounds)
    .all()
    .filter((round) => isReadable(db, round.paperVersionId))
    .filter((round) =>
      paperOfVersion(db, round.paperVersionId).bank.some(
        (one) => one.key === item.key && one.version === item.version,
      ),
    );
  return {
    open: standing.filter((round) => round.signedOffAt === null),
    frozen: standing.filter((round) => round.signedOffAt !== null),
  };
}

export async function previewAccept(
  services: Services,
  roundId: number,
  { target, ...accepted }: AcceptedAnswer & { readonly target: string },
): Promise<AcceptPreview> {
  const { place } = placeIn(services, roundId, target);
  const { open, frozen } = roundsWith(services, place);
  const changes: AcceptPreview['changes'][number][] = [];
  let scripts = 0;
  for (const round of open) {
    const now = placeIn(services, round.id, target);
    const judged = { ...now.judged, paper: corrected(now.judged, now.place, accepted) };
    for (const { sitting, credits } of await rescored(services, judged, target)) {
      scripts++;
      const standing = standingMarks(services.db, sitting.id).filter(
        (mark) => mark.target === target && credits.some((c) => c.component === mark.component),
      );
      const [before, after] = [standing, credits].map((marks) => sumMarks(marks.map((m) => m.hundredths)));
      if (before !== after) changes.push({ script: sitting.script, before: before!, after: after! });
    }
  }
  const count = frozen.length === 0 ? 0 : countScripts(services, frozen);
  return { scripts, changes, frozen: count };
}

const countScripts = (services: Services, frozen: readonly Round[]): number =>
  services.db
    .select({ id: sittings.id })
    .from(sittings)
    .innerJoin(invitations, eq(invitations.id, sittings.invitationId))
    .where(
      and(
        inArray(
          invitations.roundId,
          frozen.map((r) => r.id),
        ),
        isNotNull(sittings.closedAt),
      ),
    )
    .all().length;

/** Accepts an answer from now on and for all scripts whose marks are not signed off: a job scores them anew. */
export function acceptAnswer(
  services: Services,
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
  if (judged.round.signedOffAt !== null) throw conflict('signed-off');
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

/** The job after an answer was accepted: the part is scored anew in every script, the old marks kept. */
export async function rescore(services: Services, correctionId: number): Promise<void> {
  const { db, clock, commits } = services;
  const correction = db.select().from(keyCorrections).where(eq(keyCorrections.id, correctionId)).get()!;
  const target = `${correction.item}/${correction.part}`;
  const here = db
    .select()
    .from(rounds)
    .all()
    .filter((round) => round.signedOffAt === null && isReadable(db, round.paperVersionId))
    .filter((round) => allParts(paperOfVersion(db, round.paperVersionId)).some((p) => p.target === target));
  for (const round of here) {
    const { judged } = placeIn(services, round.id, target);
    const scored = await rescored(services, judged, target);
    await commits.run(() => {
      for (const { sitting, part, credits } of scored)
        // Readmitted meanwhile, or handed in anew: its own score follows, by the corrected key.
        if (sitting.scoredAt !== null && findSitting(db, sitting.id)?.scoredAt === sitting.scoredAt)
          keepCredits({ db, sittingId: sitting.id, at: clock.now() }, part, credits);
    });
  }
}
