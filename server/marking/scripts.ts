import { and, eq } from 'drizzle-orm';
import type { Component } from '../../core/kinds/contract';
import type { RoughWork } from '../../core/kit/notes';
import type { MarkedCredit } from '../../core/marking/api';
import { byPeople, withUndecided, withoutMachine } from '../../core/scoring/components';
import type { ScriptPart } from '../../core/scoring/script';
import type { Db, HasDb } from '../db/open';
import type { HasSessions } from '../http/sessions';
import { invitations, markingTasks, sittings } from '../db/schema';
import { notFound } from '../http/errors';
import type { Reading } from '../reading/read';
import { filesOfPart, pagesUnseen } from '../sittings/pages';
import { findSitting, sittingQueries, type Sitting } from '../sittings/queries';
import { newestReceipt } from '../sittings/receipts';
import { deskOf } from '../sittings/values';
import { standingMarks } from './marks';
import { scriptPartsOf } from './scoreJob';

export type Task = typeof markingTasks.$inferSelect;

export const findTask = (db: Db, id: number): Task | null =>
  db.select().from(markingTasks).where(eq(markingTasks.id, id)).get() ?? null;

/** A sitting of a round by its script code. */
export function sittingOfScript(db: Db, round: number, script: string): Sitting {
  const found = db
    .select({ sitting: sittings })
    .from(sittings)
    .innerJoin(invitations, eq(invitations.id, sittings.invitationId))
    .where(and(eq(sittings.script, script), eq(invitations.roundId, round)))
    .get();
  if (!found) throw notFound('noScript');
  return found.sitting;
}

/** A task that somebody may look into: an assessor their own, a lead those of their rounds. Null for anybody else. */
export function taskFor({ db, sessions }: HasDb & HasSessions, staffId: number, taskId: number): Task | null {
  const task = findTask(db, taskId);
  if (!task) return null;
  if (sessions.hasRole(staffId, task.roundId, ['lead'])) return task;
  const own = task.assessorId === staffId && sessions.hasRole(staffId, task.roundId, ['assessor']);
  return own ? task : null;
}

export interface MarkedPart {
  readonly sitting: Sitting;
  readonly part: ScriptPart;
  /** What people decide of it. */
  readonly components: readonly Component[];
}

/** A part as it was handed in, and what people decide of it. */
export function partOf(
  services: Pick<Reading, 'db'>,
  { sittingId, target, failure, undecided }: Pick<Task, 'sittingId' | 'target' | 'failure' | 'undecided'>,
): MarkedPart {
  const sitting = findSitting(services.db, sittingId)!;
  const parts = scriptPartsOf(services, sitting, newestReceipt(services.db, sittingId)!);
  const part = parts.find((one) => one.target === target);
  if (!part) throw notFound('noQuestion');
  const all = failure === null ? withUndecided(part.components, undecided) : withoutMachine(part.components);
  return { sitting, part, components: byPeople(all) };
}

/** What the machine gave a part, and what a person has set right, so that it is seen beside what is decided. */
export const creditsOf = (db: Db, sittingId: number, { target, components }: ScriptPart): MarkedCredit[] =>
  standingMarks(db, sittingId)
    .filter((mark) => mark.target === target && (mark.role === 'machine' || mark.role === 'override'))
    .map(({ component, hundredths, verdict, reasons, role }) => {
      const own = components.find((one) => one.key === component);
      return {
        component,
        hundredths,
        verdict: verdict ?? (hundredths === own?.of ? 'right' : hundredths > 0 ? 'partly' : 'wrong'),
        reasons,
        of: own?.of ?? 0,
        name: own?.name ?? null,
        overridden: role === 'override',
      };
    });

/** The rough work of a sitting; null where nothing was put down. */
export function roughWorkOf(db: Db, sittingId: number): RoughWork | null {
  const { text = '', drawing = [] } = deskOf(sittingQueries(db).currentAbout(sittingId, 'rough-work'))
    .roughWork as Partial<RoughWork>;
  return text.trim() === '' && drawing.length === 0 ? null : { text, drawing };
}

/** The sitting of a task whose page it is; its address says nothing of the person. Throws where it names no such page. */
export function sittingOfPage(db: Db, task: Task, hash: string): number {
  const named = filesOfPart(db, task.sittingId, task.target).some((file) => file.hash === hash);
  if (!named || pagesUnseen(db, task.sittingId, [{ hash }]).length > 0) throw notFound('noPage');
  return task.sittingId;
}
