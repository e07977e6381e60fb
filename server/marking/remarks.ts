import { desc, eq } from 'drizzle-orm';
import type { OverallComment, RemarkMade } from '../../core/marking/api';
import { showMarks } from '../../core/marks';
import { record } from '../audit/record';
import { tellCandidateOf } from '../candidates/tellCandidates';
import { findInvited } from '../candidates/queries';
import type { Db } from '../db/open';
import { overallComments } from '../db/schema';
import { badRequest, conflict } from '../http/errors';
import { notify } from '../mail/notices';
import type { Outbox } from '../mail/outbox';
import { itemOf, markingOf } from './items';
import { addMark, standingMark } from './marks';
import { markedHash } from './scoreJob';
import { partOf, sittingOfScript } from './scripts';
import type { HasConfig } from '../config';
import type { HasDb } from '../db/open';
import type { HasHub } from '../events/hub';
import type { HasClock } from '../machine/clock';

/** What is needed here of the server. */
interface Needs extends HasConfig, HasClock, HasDb, HasHub {}

/** Changes one credit of a script, with a reason: a credit of the machine set right, or a remark after the sign-off. */
export function remark(
  services: Needs,
  outbox: Outbox,
  staffId: number,
  round: number,
  { script, target, component, before: seen, hundredths, reason }: RemarkMade,
): void {
  const { db, clock } = services;
  const item = itemOf(db, { round, target });
  const sitting = sittingOfScript(db, round, script);
  const { part } = partOf(services, { sittingId: sitting.id, target, failure: null, undecided: [] });
  const own = part.components.find(({ key }) => key === component);
  if (!own || hundredths > own.of) throw badRequest('marksNotPossible', component);
  const before = standingMark(db, sitting.id, target, component);
  if (!before) throw conflict('not-marked-yet');
  if (before.hundredths !== seen)
    throw conflict('mark-changed', { values: { marks: showMarks(before.hundredths) } });
  const frozen =
    item.round.signedOffAt !== null || markingOf(db, { round, target }, item.judged).signedOffAt !== null;
  const byPerson = own.by === 'people' || !['machine', 'override'].includes(before.role);
  if (!frozen && byPerson) throw conflict('not-signed-off-yet');
  const role = frozen ? 'remark' : 'override';
  const response = markedHash(db, sitting.id, part);
  const reasons = [{ code: 'sheet.byLead', values: { reason } }];
  const level = own.criterion?.levels?.findIndex((one) => one.hundredths === hundredths) ?? -1;
  db.transaction(() => {
    const mark = { sittingId: sitting.id, target, component, hundredths, staffId, role, response } as const;
    const rest = {
      cause: 'marking',
      judgementId: null,
      verdict: null,
      level: level < 0 ? null : level,
    } as const;
    addMark(db, { ...mark, ...rest, reasons, at: clock.now() }, before);
    const subject = `round ${round}, ${target}, script ${script}`;
    record(services, { staffId, act: 'remarked', subject, reason });
    if (item.round.releasedAt !== null && before.hundredths !== hundredths)
      notify(services, outbox, findInvited(db, sitting.invitationId)!, { topic: 'result changed' });
  });
  tellCandidateOf(services, sitting.id);
}

/** Says something of a script as a whole, which its sheet shows; an empty text takes it back. Its file stays. */
export function commentOn(
  services: HasClock & HasDb,
  staffId: number,
  round: number,
  { script, text }: OverallComment,
): void {
  const { db, clock } = services;
  const sittingId = sittingOfScript(db, round, script).id;
  const before = overallRemarkOn(db, sittingId);
  if (before.text === text) return;
  db.transaction(() => {
    db.insert(overallComments)
      .values({ ...before, sittingId, staffId, text, at: clock.now() })
      .run();
    record(services, {
      staffId,
      act: 'commented',
      subject: `round ${round}, script ${script}`,
      reason: text,
    });
  });
}

/** What stands of a script as a whole: an empty text, and no file, where nothing does. */
export const overallRemarkOn = (
  db: Db,
  sittingId: number,
): Pick<typeof overallComments.$inferSelect, 'text' | 'file' | 'fileType'> =>
  db
    .select({ text: overallComments.text, file: overallComments.file, fileType: overallComments.fileType })
    .from(overallComments)
    .where(eq(overallComments.sittingId, sittingId))
    .orderBy(desc(overallComments.id))
    .limit(1)
    .get() ?? { text: '', file: null, fileType: null };
