import { bandsSet } from '../marking/roundMarked';
import { and, eq, inArray, max } from 'drizzle-orm';
import type { BandsMade, CorrectionMade, CorrectionPreview, WantedChange } from '../../core/corrections/api';
import { canonicalJson } from '../../core/journal/canonicalJson';
import { targetOf } from '../../core/papers/paper';
import { record } from '../audit/record';
import { tellCandidates } from '../candidates/tellCandidates';
import type { Db } from '../db/open';
import { invitations, keyCorrections, marks, roundBands, sittings } from '../db/schema';
import { conflict, unreadable } from '../http/errors';
import { correctionsOf } from '../papers/corrections';
import { forgetPapers } from '../papers/papers';
import { sha256 } from '../secrets';
import { scriptsOf } from '../sittings/scriptsOf';
import { movesIn, type Needs } from './moves';
import { judgedWith, partIn, roundsWith, type Judged, type Round } from './wanted';
import { bandsView } from './pages';

/** The newest mark that a preview of a round depends on: of these parts, and of all once the marks are signed off. */
function newestMark(db: Db, round: Round, targets: readonly string[]): number {
  const own = round.signedOffAt === null ? inArray(marks.target, [...targets]) : undefined;
  return (
    db
      .select({ id: max(marks.id) })
      .from(marks)
      .innerJoin(sittings, eq(sittings.id, marks.sittingId))
      .innerJoin(invitations, eq(invitations.id, sittings.invitationId))
      .where(and(eq(invitations.roundId, round.id), own))
      .get()!.id ?? 0
  );
}

/**
 * A name of the state that a preview shows: another mark of these parts, another script, another correction, a sign-off, a
 * release, or other bands make another. Marks of other parts move whole totals alike until the sign-off, and do not.
 */
function stateOf(db: Db, all: readonly Round[], { before, again }: Judged, wanted: WantedChange): string {
  const targets = before.parts.map(({ key }) => targetOf(before.key, key));
  const state = all.map((round) => ({
    id: round.id,
    releasedAt: round.releasedAt,
    signedOffAt: round.signedOffAt,
    settings: round.settings,
    bands: bandsSet(db, round.id)?.id ?? 0,
    scripts: scriptsOf(db, round.id).map(({ id, scoredAt }) => [id, scoredAt]),
    mark: newestMark(db, round, targets),
  }));
  const corrections = correctionsOf(db, before).map(({ id }) => id);
  return sha256(canonicalJson({ state, corrections, wanted, again: [...again] }));
}

/** What a correction would change, round by round. */
export async function previewCorrection(
  services: Needs,
  roundId: number,
  target: string,
  wanted: WantedChange,
): Promise<CorrectionPreview> {
  const { db } = services;
  const ref = partIn(db, roundId, target);
  const judged = judgedWith(db, ref, wanted, ref.round.settings.locale);
  const all = roundsWith(db, ref.item);
  const seen = stateOf(db, all, judged, wanted);
  const found = [];
  for (const round of all) found.push(await movesIn(services, round, judged));
  return { rounds: found, seen };
}

/**
 * Corrects a part from now on; scripts that were scored already are scored again by a job. Refused where the preview that
 * was looked at is of another state.
 */
export function correct(
  services: Needs,
  who: { readonly staffId: number; readonly roundId: number },
  target: string,
  { change, reason, seen }: CorrectionMade,
): { readonly correction: number } {
  const { db, clock, jobs } = services;
  const ref = partIn(db, who.roundId, target);
  const judged = judgedWith(db, ref, change, ref.round.settings.locale);
  if (stateOf(db, roundsWith(db, ref.item), judged, change) !== seen) throw conflict('preview-stale');
  const takesBack = change.type === 'take back' ? change.correction : null;
  const { key: item, version } = ref.item;
  const correction = db.transaction(() => {
    const made = db
      .insert(keyCorrections)
      .values({
        item,
        version,
        part: ref.letter,
        change: change.type === 'take back' ? null : change,
        takesBack,
        roundId: who.roundId,
        staffId: who.staffId,
        reason,
        at: clock.now(),
      })
      .run();
    const act = takesBack === null ? 'corrected-key' : 'took-back-correction';
    record(services, { staffId: who.staffId, act, subject: target, reason });
    jobs.add('rescore', Number(made.lastInsertRowid));
    return Number(made.lastInsertRowid);
  });
  forgetPapers(db);
  return { correction };
}

/** Sets the bands of a round: until the sign-off, and after it only where they are to be set anew. */
export function setBands(services: Needs, staffId: number, id: number, { bands, reason }: BandsMade): void {
  const { db, clock } = services;
  const view = bandsView(services, id);
  if (!view.open) throw conflict('signed-off');
  const froms = bands.map(({ from }) => from);
  if (new Set(froms).size !== froms.length || froms.some((from) => from > view.of))
    throw unreadable('bandsNotPossible');
  db.transaction(() => {
    db.insert(roundBands).values({ roundId: id, bands, of: view.of, staffId, reason, at: clock.now() }).run();
    record(services, { staffId, act: 'set-bands', subject: `round ${id}`, reason });
  });
  tellCandidates(services, id);
}
