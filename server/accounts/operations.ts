import { and, asc, eq, gt, isNotNull, isNull, sql } from 'drizzle-orm';
import type { StaffAccount } from '../../core/accounts/api';
import { record } from '../audit/record';
import type { Db } from '../db/open';
import { staff, staffSessions } from '../db/schema';
import { ApiError, conflict, notFound } from '../http/errors';
import { hashOf, type PasswordCheck } from './passwords';
import type { HasDb } from '../db/open';
import type { HasSessions } from '../http/sessions';
import type { HasClock } from '../machine/clock';

type Needed = HasClock & HasDb & HasSessions;

export async function addStaff(
  db: Db,
  member: { email: string; name: string; password: string; roles: StaffAccount['roles'] },
  /** Looked at when the account is made: hashing takes a moment. */
  stillRight: () => void = () => undefined,
): Promise<void> {
  const passwordHash = await hashOf(member.password);
  stillRight();
  db.insert(staff)
    .values({ email: member.email, name: member.name, roles: [...member.roles], passwordHash })
    .run();
}

/** Everybody of the staff, with how many browsers they are signed in with. */
export function staffAccounts({ db, clock }: HasClock & HasDb, asks: number): StaffAccount[] {
  const open = and(eq(staffSessions.staffId, staff.id), gt(staffSessions.expiresAt, clock.now()));
  return db
    .select({
      id: staff.id,
      name: staff.name,
      email: staff.email,
      roles: staff.roles,
      disabledAt: staff.disabledAt,
      sessions: sql<number>`count(${staffSessions.tokenHash})`,
    })
    .from(staff)
    .leftJoin(staffSessions, open)
    .groupBy(staff.id)
    .orderBy(asc(staff.name), asc(staff.id))
    .all()
    .map((account) => ({ ...account, own: account.id === asks }));
}

/** Sets a new password; every other browser that is signed in as this person is signed out. */
export async function changePassword(
  { db, clock, sessions }: Needed,
  passwords: PasswordCheck,
  {
    staffId,
    keep,
  }: { readonly staffId: number; /** The session that stays. */ readonly keep: string | null },
  { current, wanted }: { readonly current: string; readonly wanted: string },
): Promise<void> {
  const before = db.select().from(staff).where(eq(staff.id, staffId)).get()!.passwordHash;
  if (!(await passwords.isRight(before, current))) throw new ApiError(403, 'wrong-password');
  const passwordHash = await hashOf(wanted);
  db.transaction(() => {
    // Changed meanwhile by another browser: the password that was typed is not the current one any more.
    const own = and(eq(staff.id, staffId), eq(staff.passwordHash, before));
    if (db.update(staff).set({ passwordHash }).where(own).run().changes === 0)
      throw new ApiError(403, 'wrong-password');
    sessions.endAllOf(staffId, keep);
    record({ db, clock }, { staffId, act: 'changed-password', subject: `staff ${staffId}` });
  });
}

/** Ends the sessions of somebody of the staff in every browser, or in all but one. */
export function endSessions(
  { db, clock, sessions }: Needed,
  by: number,
  { staffId, keep }: { readonly staffId: number; readonly keep: string | null },
): void {
  if (!db.select({ id: staff.id }).from(staff).where(eq(staff.id, staffId)).get())
    throw notFound('noAccount');
  db.transaction(() => {
    sessions.endAllOf(staffId, keep);
    record({ db, clock }, { staffId: by, act: 'ended-sessions', subject: `staff ${staffId}` });
  });
}

/**
 * Disables an account, which ends its sessions, or enables it again. What somebody did stays on record under their name.
 * Nobody disables their own account, so that there is always one left to enable others.
 */
export function setDisabled(
  { db, clock, sessions }: Needed,
  by: number,
  { staffId, disabled }: { readonly staffId: number; readonly disabled: boolean },
): void {
  if (staffId === by) throw conflict('own-account');
  const disabledAt = disabled ? clock.now() : null;
  db.transaction(() => {
    const changes = disabled ? isNull(staff.disabledAt) : isNotNull(staff.disabledAt);
    const { changes: changed } = db
      .update(staff)
      .set({ disabledAt })
      .where(and(eq(staff.id, staffId), changes))
      .run();
    if (changed === 0) {
      if (!db.select({ id: staff.id }).from(staff).where(eq(staff.id, staffId)).get())
        throw notFound('noAccount');
      return;
    }
    if (disabled) sessions.endAllOf(staffId, null);
    const act = disabled ? 'disabled-account' : 'enabled-account';
    record({ db, clock }, { staffId: by, act, subject: `staff ${staffId}` });
  });
}
