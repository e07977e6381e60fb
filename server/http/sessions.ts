import { parse, serialize } from 'cookie';
import type { Request, Response } from 'express';
import { and, eq, gt, inArray, sql } from 'drizzle-orm';
import type { Role } from '../../core/rounds/api';
import type { Clock } from '../clock';
import type { Db } from '../db/open';
import { candidateSessions, rounds, roundStaff, staff, staffSessions } from '../db/schema';
import { newSecret, sha256 } from './secrets';

export interface StaffSession {
  readonly id: number;
  readonly name: string;
  readonly roles: readonly Role[];
}

export interface CandidateSession {
  readonly invitation: number;
}

const STAFF_COOKIE = 'clear_sitting_staff';
const CANDIDATE_COOKIE = 'clear_sitting_candidate';
const STAFF_HOURS = 12;
const SESSIONS_KEPT = 50_000;

/** Cookies that carry a random secret; only its hash is stored. */
export class Sessions {
  private readonly db: Db;
  private readonly clock: Clock;
  private readonly secure: boolean;
  private readonly findStaff;
  private readonly findCandidate;
  /** A candidate's session is never taken back, and every save asks for it. */
  private readonly candidatesKnown = new Map<string, CandidateSession>();

  constructor(db: Db, clock: Clock, secure: boolean) {
    this.db = db;
    this.clock = clock;
    this.secure = secure;
    this.findStaff = db
      .select({ id: staff.id, name: staff.name, roles: staff.roles })
      .from(staffSessions)
      .innerJoin(staff, eq(staff.id, staffSessions.staffId))
      .where(
        and(
          eq(staffSessions.tokenHash, sql.placeholder('hash')),
          gt(staffSessions.expiresAt, sql.placeholder('now')),
        ),
      )
      .prepare();
    this.findCandidate = db
      .select({ invitation: candidateSessions.invitationId })
      .from(candidateSessions)
      .where(eq(candidateSessions.tokenHash, sql.placeholder('hash')))
      .prepare();
  }

  staffOf(request: Request): StaffSession | null {
    const token = this.cookie(request, STAFF_COOKIE);
    return (token && this.findStaff.get({ hash: sha256(token), now: this.clock.now() })) || null;
  }

  candidateOf(request: Request): CandidateSession | null {
    const token = this.cookie(request, CANDIDATE_COOKIE);
    if (!token) return null;
    const known = this.candidatesKnown.get(token) ?? this.findCandidate.get({ hash: sha256(token) }) ?? null;
    if (this.candidatesKnown.size >= SESSIONS_KEPT) this.candidatesKnown.clear();
    if (known) this.candidatesKnown.set(token, known);
    return known;
  }

  roundExists(round: number): boolean {
    return this.db.select({ id: rounds.id }).from(rounds).where(eq(rounds.id, round)).get() !== undefined;
  }

  /** Whether somebody has one of these roles in a round. */
  hasRole(staffId: number, round: number, roles: readonly Role[]): boolean {
    const own = and(
      ...[eq(roundStaff.roundId, round), eq(roundStaff.staffId, staffId)],
      inArray(roundStaff.role, [...roles]),
    );
    return this.db.select({ id: roundStaff.roundId }).from(roundStaff).where(own).get() !== undefined;
  }

  openForStaff(response: Response, staffId: number): void {
    const token = newSecret();
    const expiresAt = this.clock.now() + STAFF_HOURS * 3_600_000;
    this.db
      .insert(staffSessions)
      .values({ tokenHash: sha256(token), staffId, expiresAt })
      .run();
    this.setCookie(response, STAFF_COOKIE, token);
  }

  openForCandidate(response: Response, invitationId: number): void {
    const token = newSecret();
    this.db
      .insert(candidateSessions)
      .values({ tokenHash: sha256(token), invitationId, createdAt: this.clock.now() })
      .run();
    this.setCookie(response, CANDIDATE_COOKIE, token);
  }

  closeForStaff(request: Request, response: Response): void {
    const token = this.cookie(request, STAFF_COOKIE);
    if (token)
      this.db
        .delete(staffSessions)
        .where(eq(staffSessions.tokenHash, sha256(token)))
        .run();
    this.setCookie(response, STAFF_COOKIE, '', 0);
  }

  private cookie(request: Request, name: string): string | undefined {
    return parse(request.headers.cookie ?? '')[name];
  }

  private setCookie(response: Response, name: string, value: string, maxAge?: number): void {
    const options = { httpOnly: true, sameSite: 'strict', secure: this.secure, path: '/', maxAge } as const;
    response.append('Set-Cookie', serialize(name, value, options));
  }
}
