import { type RoundMarked, roundMarked } from '../marking/roundMarked';
import { and, inArray, isNotNull } from 'drizzle-orm';
import type { RoundMoves } from '../../core/corrections/api';
import { isComplete, maximumOf } from '../../core/results/attempts';
import { bandOf } from '../../core/results/bands';
import type { FullPaper } from '../../core/papers/paper';
import type { ScriptPart } from '../../core/scoring/script';
import type { Db } from '../db/open';
import { sittings } from '../db/schema';
import { markedHash, scoreParts } from '../marking/scoreJob';
import type { Mark } from '../marking/marks';
import { paperOfVersion } from '../papers/papers';
import { resultsOfAll } from '../results/attempts';
import type { ScoreFound } from '../scoring/scoreOne';
import type { Sitting } from '../sittings/queries';
import { partsOfItem, scriptsOf } from '../sittings/scriptsOf';
import { paperWith, type Judged, type Round } from './wanted';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasJobs } from '../jobs/jobQueue';
import type { HasHub } from '../events/hub';
import type { HasClock } from '../machine/clock';
import type { HasLog } from '../machine/log';
import type { HasScheduler } from '../machine/loopScheduler';
import type { HasSandbox } from '../sandbox/sandbox';
import type { HasEvidence } from '../scoring/findEvidence';
import type { HasScorer } from '../scoring/scorer';

/** What scoring again needs of the server. */
export interface Needs
  extends
    HasClock,
    HasDb,
    HasCommits,
    HasHub,
    HasScheduler,
    HasLog,
    HasJobs,
    HasSandbox,
    HasScorer,
    HasEvidence {}

/** So many candidates are looked at in one piece: saves go between. */
export const PIECE = 50;

/** A part of a script, scored again. */
interface ScoredAgain {
  readonly part: ScriptPart;
  /** What the machine marks, as it was marked: a person's mark of the same stands. */
  readonly hash: string;
  readonly score: Extract<ScoreFound, { credits: unknown }>;
}

/** Both papers of a round: as it was judged, and as it is with a correction. */
function papersOf(db: Db, round: Round, { before, after }: Judged) {
  const paper = paperOfVersion(db, round.paperVersionId);
  return { before: paperWith(paper, before), after: paperWith(paper, after) };
}

/** Scores the parts that a correction is about in one script: what the machine can decide, of what was answered. */
async function scoredAgain(
  services: Needs,
  { sitting, round, paper }: { readonly sitting: Sitting; readonly round: Round; readonly paper: FullPaper },
  { after, again }: Judged,
): Promise<ScoredAgain[]> {
  const { db, scheduler } = services;
  if (again.size === 0) return [];
  const parts = await scheduler.inBetween(() => partsOfItem(db, sitting, { paper, round, item: after.key }));
  const own = parts.filter(({ part, empty }) => again.has(part.key) && !empty);
  if (own.length === 0) return [];
  const { found } = await scoreParts(services, sitting.id, own, parts);
  return own.flatMap((part) => {
    const score = found.get(part.target);
    if (!score || !('credits' in score)) return [];
    return [{ part, score, hash: markedHash(db, sitting.id, part) }];
  });
}

/** Scores found again, by sitting. */
export type FoundAgain = ReadonlyMap<number, readonly ScoredAgain[]>;

/** The marks that would stand of a sitting by scores that were found again. What a person has set right stands. */
const standingAs =
  (found: FoundAgain) =>
  (sitting: number, standing: readonly Mark[]): readonly Mark[] => {
    const own = found.get(sitting) ?? [];
    return standing.map((mark) => {
      const again = own.find(({ part }) => part.target === mark.target);
      const credit = again?.score.credits.find((one) => one.component === mark.component);
      const stands = mark.role !== 'machine' && mark.response === again?.hash;
      return credit && !stands
        ? { ...mark, hundredths: credit.hundredths, verdict: credit.verdict, reasons: credit.reasons }
        : mark;
    });
  };

/** A result that moves, of the candidate who was invited so. */
export interface Move {
  readonly invitation: number;
  readonly script: string;
  readonly before: number;
  readonly after: number;
  /** What it may not fall below; null where it may, or does not. */
  readonly kept: number | null;
  readonly bandBefore: string | null;
  readonly bandAfter: string | null;
}

export interface Compared {
  readonly round: Round;
  readonly by: { readonly before: RoundMarked; readonly after: RoundMarked };
  readonly takesBack: number | null;
}

export function comparedIn(db: Db, round: Round, judged: Judged): Compared {
  const papers = papersOf(db, round, judged);
  const by = {
    before: roundMarked(db, round, papers.before),
    after: roundMarked(db, round, papers.after),
  };
  return { round, by, takesBack: judged.takesBack };
}

/** The results of these candidates that a correction moves, whether their marks are complete or not. */
export function movesOf(
  db: Db,
  { round, by, takesBack }: Compared,
  invited: readonly number[],
  found: FoundAgain,
): Move[] {
  const before = resultsOfAll(db, round, by.before.marked, invited);
  const after = resultsOfAll(db, round, by.after.marked, invited, { as: standingAs(found), takesBack });
  const most = maximumOf(by.after.marked);
  const keeps = round.releasedAt !== null && !round.settings.marksMayFall;
  return invited.flatMap((invitation): Move[] => {
    const [old, own] = [before.get(invitation)!, after.get(invitation)!];
    const last = own.counted.at(-1);
    if (!last) return [];
    const floor = Math.min(old.total, most);
    const kept = keeps && own.total < floor ? floor : null;
    const to = kept ?? own.total;
    const bandIn = ({ marked, bands }: RoundMarked, counted: typeof own.counted, total: number) =>
      isComplete(counted, marked) ? (bandOf(bands ?? [], total)?.title ?? null) : null;
    const bands = {
      bandBefore: bandIn(by.before, old.counted, old.total),
      bandAfter: bandIn(by.after, own.counted, to),
    };
    if (old.total === to && kept === null && bands.bandBefore === bands.bandAfter) return [];
    return [{ invitation, script: last.sitting.script, before: old.total, after: to, kept, ...bands }];
  });
}

/** So many of the results that move are shown one by one. */
const SHOWN = 200;

/** What a correction does in a round, as it is shown before it is made. */
export async function movesIn(services: Needs, round: Round, judged: Judged): Promise<RoundMoves> {
  const { db, scheduler } = services;
  const compared = comparedIn(db, round, judged);
  const scripts = scriptsOf(db, round.id);
  const invited = [...new Set(scripts.map(({ invitationId }) => invitationId))];
  const moves: Move[] = [];
  for (let from = 0; from < invited.length; from += PIECE) {
    const some = invited.slice(from, from + PIECE);
    const found = await foundAgain(services, compared, judged, some);
    moves.push(...(await scheduler.inBetween(() => movesOf(db, compared, some, found))));
  }
  const of = { before: maximumOf(compared.by.before.marked), after: maximumOf(compared.by.after.marked) };
  return {
    round: round.id,
    title: round.title,
    released: round.releasedAt !== null,
    scripts: scripts.length,
    moved: moves.filter((one) => one.before !== one.after).length,
    across: moves.filter((one) => one.bandBefore !== one.bandAfter).length,
    kept: moves.filter((one) => one.kept !== null).length,
    moves: moves.slice(0, SHOWN).map(({ invitation: _, kept, ...one }) => ({ ...one, kept: kept !== null })),
    of,
    bandsAnew: compared.by.after.bands === null && compared.by.before.bands !== null,
  };
}

/** The scripts of these candidates, scored again. */
export async function foundAgain(
  services: Needs,
  { round, by }: Compared,
  judged: Judged,
  invited: readonly number[],
): Promise<FoundAgain> {
  const found = new Map<number, readonly ScoredAgain[]>();
  if (judged.again.size === 0) return found;
  const closed = services.db
    .select()
    .from(sittings)
    .where(and(inArray(sittings.invitationId, [...invited]), isNotNull(sittings.closedAt)))
    .all();
  for (const sitting of closed)
    found.set(sitting.id, await scoredAgain(services, { sitting, round, paper: by.after.paper }, judged));
  return found;
}
