import { parse, serialize } from 'cookie';
import type { Request, Response } from 'express';
import { and, eq, gt, inArray, isNull, sql } from 'drizzle-orm';
import type { Role } from '../../core/rounds/api';
import type { Clock } from '../machine/clock';
import { isSecure, type Config } from '../config';
import type { Db } from '../db/open';
import { candidateSessions, invitations, rounds, roundStaff, staff, staffSessions } from '../db/schema';
import { newSecret, sha256 } from '../secrets';

export interface StaffSession {
  readonly id: number;
  readonly name: string;
  readonly roles: readonly Role[];
}

export interface CandidateSession {
  readonly invitation: number;
}

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;
const STAFF_MS = 12 * HOUR_MS;
/** How exactly it is noted when somebody was last here: not every request is worth a write. */
const SEEN_MS = MINUTE_MS;
/** Links and sessions of candidates end with the time for queries after their round. */
export const QUERIES_MS = 90 * 24 * HOUR_MS;
const SESSIONS_KEPT = 50_000;
/** How long a device is known to have signed in before. */
const DEVICE_S = 180 * 24 * 3600;

type CookieName = 'staff' | 'candidate' | 'device';

/** What has to end with a session: streams of events that were opened in it. */
class OpenLines {
  private readonly lines = new Map<string, Set<() => void>>();

  /** Gives how to take the line out again when it has ended by itself. */
  add(session: string, end: () => void): () => void {
    const own = this.lines.get(session) ?? new Set();
    this.lines.set(session, own.add(end));
    return () => {
      own.delete(end);
      if (own.size === 0 && this.lines.get(session) === own) this.lines.delete(session);
    };
  }

  endOf(session: string): void {
    const own = this.lines.get(session) ?? [];
    this.lines.delete(session);
    for (const end of own) end();
  }
}

interface KnownCandidate extends CandidateSession {
  readonly expiresAt: number;
}

/** Cookies that carry a random secret; only its hash is stored. */
export class Sessions {
  private readonly db: Db;
  private readonly clock: Clock;
  private readonly secure: boolean;
  private readonly idleMs: number;
  private readonly findStaff;
  private readonly seen;
  private readonly findCandidate;
  private readonly addCandidate;
  private readonly lines = new OpenLines();
  /** By token hash: every save asks for it. */
  private readonly candidatesKnown = new Map<string, KnownCandidate>();

  constructor(db: Db, clock: Clock, config: Config) {
    this.db = db;
    this.clock = clock;
    this.secure = isSecure(config);
    this.idleMs = config.idleMinutes * MINUTE_MS;
    const hash = sql.placeholder('hash');
    this.findStaff = db
      .select({ id: staff.id, name: staff.name, roles: staff.roles, seenAt: staffSessions.seenAt })
      .from(staffSessions)
      .innerJoin(staff, eq(staff.id, staffSessions.staffId))
      .where(
        and(
          eq(staffSessions.tokenHash, hash),
          gt(staffSessions.expiresAt, sql.placeholder('now')),
          gt(staffSessions.seenAt, sql.placeholder('idle')),
          isNull(staff.disabledAt),
        ),
      )
      .prepare();
    this.seen = db
      .update(staffSessions)
      .set({ seenAt: sql`${sql.placeholder('now')}` })
      .where(eq(staffSessions.tokenHash, hash))
      .prepare();
    this.findCandidate = db
      .select({ invitation: candidateSessions.invitationId, closesAt: rounds.closesAt })
      .from(candidateSessions)
      .innerJoin(invitations, eq(invitations.id, candidateSessions.invitationId))
      .innerJoin(rounds, eq(rounds.id, invitations.roundId))
      .where(eq(candidateSessions.tokenHash, hash))
      .prepare();
    this.addCandidate = db
      .insert(candidateSessions)
      .values({
        tokenHash: hash,
        invitationId: sql.placeholder('invitationId'),
        createdAt: sql.placeholder('now'),
      })
      .prepare();
  }

  staffOf(request: Request): StaffSession | null {
    const hash = this.hashOf(request, 'staff');
    const now = this.clock.now();
    const found = hash && this.findStaff.get({ hash, now, idle: now - this.idleMs });
    if (!found) return null;
    const { seenAt, ...who } = found;
    if (now - seenAt >= SEEN_MS) this.seen.run({ hash, now });
    return who;
  }

  candidateOf(request: Request): CandidateSession | null {
    const hash = this.hashOf(request, 'candidate');
    if (!hash) return null;
    const known = this.candidatesKnown.get(hash) ?? this.readCandidate(hash);
    return known && this.clock.now() < known.expiresAt ? known : null;
  }

  private readCandidate(hash: string): KnownCandidate | null {
    const row = this.findCandidate.get({ hash });
    if (!row) return null;
    const known = { invitation: row.invitation, expiresAt: row.closesAt + QUERIES_MS };
    if (this.candidatesKnown.size >= SESSIONS_KEPT) this.candidatesKnown.clear();
    this.candidatesKnown.set(hash, known);
    return known;
  }

  /**
   * Ties a stream to the session in which it was asked for: it is ended with it. Gives whether the session still holds,
   * to be asked from time to time, and how to untie what has ended by itself.
   */
  tie(
    request: Request,
    of: 'staff' | 'candidate',
    end: () => void,
  ): { readonly holds: () => boolean; readonly untie: () => void } {
    const hash = this.hashOf(request, of);
    const untie = hash === null ? () => undefined : this.lines.add(hash, end);
    const holds = () => (of === 'staff' ? this.staffOf(request) : this.candidateOf(request)) !== null;
    return { holds, untie };
  }

  roundExists(round: number): boolean {
    return this.db.select({ id: rounds.id }).from(rounds).where(eq(rounds.id, round)).get() !== undefined;
  }

  /** Whether somebody has one of these roles in a round. */
  hasRole(staffId: number, round: number, roles: readonly Role[]): boolean {
    const own = and(
      eq(roundStaff.roundId, round),
      eq(roundStaff.staffId, staffId),
      inArray(roundStaff.role, [...roles]),
    );
    return this.db.select({ id: roundStaff.roundId }).from(roundStaff).where(own).get() !== undefined;
  }

  /** Signs somebody in; the session that this browser had before ends. */
  openForStaff(request: Request, response: Response, staffId: number): void {
    this.endStaff(request);
    this.setCookie(response, 'staff', this.addForStaff(staffId));
  }

  /** A new session of somebody of the staff; gives its token. */
  addForStaff(staffId: number): string {
    const token = newSecret();
    const now = this.clock.now();
    this.db
      .insert(staffSessions)
      .values({ tokenHash: sha256(token), staffId, expiresAt: now + STAFF_MS, seenAt: now })
      .run();
    return token;
  }

  /** A new session of a candidate; gives its token, which is theirs once it is durable. */
  addForCandidate(invitationId: number): string {
    const token = newSecret();
    this.addCandidate.run({ hash: sha256(token), invitationId, now: this.clock.now() });
    return token;
  }

  giveToCandidate(response: Response, token: string): void {
    this.setCookie(response, 'candidate', token);
  }

  closeForStaff(request: Request, response: Response): void {
    this.endStaff(request);
    this.setCookie(response, 'staff', '', 0);
  }

  /** Ends every session of a candidate, as when their link fell into other hands. */
  revokeCandidate(invitationId: number): void {
    const own = eq(candidateSessions.invitationId, invitationId);
    const ended = this.db.delete(candidateSessions).where(own).returning().all();
    for (const { tokenHash } of ended) {
      this.candidatesKnown.delete(tokenHash);
      this.lines.endOf(tokenHash);
    }
  }

  /** Ends every session of somebody of the staff but one; part of a commit of whoever asks for it. */
  endAllOf(staffId: number, keep: string | null): void {
    const { db } = this;
    const own = db.select().from(staffSessions).where(eq(staffSessions.staffId, staffId)).all();
    for (const { tokenHash } of own) {
      if (tokenHash === keep) continue;
      db.delete(staffSessions).where(eq(staffSessions.tokenHash, tokenHash)).run();
      this.lines.endOf(tokenHash);
    }
  }

  /** What names the session of a request of the staff; null where there is none. */
  staffHash(request: Request): string | null {
    return this.hashOf(request, 'staff');
  }

  /** What a device was given at an earlier sign-in: a claim, to be checked. */
  deviceOf(request: Request): string | undefined {
    return parse(request.headers.cookie ?? '')[this.cookieName('device')];
  }

  giveDevice(response: Response, token: string): void {
    this.setCookie(response, 'device', token, DEVICE_S);
  }

  private endStaff(request: Request): void {
    const hash = this.hashOf(request, 'staff');
    if (!hash) return;
    this.db.delete(staffSessions).where(eq(staffSessions.tokenHash, hash)).run();
    this.lines.endOf(hash);
  }

  /** Under https with a prefix that browsers hold to this very host and to `Secure`. */
  private cookieName(of: CookieName): string {
    return `${this.secure ? '__Host-' : ''}clear_sitting_${of}`;
  }

  private hashOf(request: Request, of: 'staff' | 'candidate'): string | null {
    const token = parse(request.headers.cookie ?? '')[this.cookieName(of)];
    return token ? sha256(token) : null;
  }

  private setCookie(response: Response, of: CookieName, value: string, maxAge?: number): void {
    const options = { httpOnly: true, sameSite: 'strict', secure: this.secure, path: '/', maxAge } as const;
    response.append('Set-Cookie', serialize(this.cookieName(of), value, options));
  }
}

export interface HasSessions {
  readonly sessions: Sessions;
}
