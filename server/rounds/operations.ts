import { and, desc, eq, isNull } from 'drizzle-orm';
import { sumMarks } from '../../core/marks';
import { allParts } from '../../core/papers/paper';
import { marksOfCounted } from '../../core/results/attempts';
import type { Arrangements, AttemptRule, InvitedRow, RoundDetail } from '../../core/rounds/api';
import { arrivalsOf, sittingsOf } from '../arrival/queries';
import { candidates, invitations, rounds, sittings } from '../db/schema';
import { conflict, notFound } from '../http/errors';
import { newSecret, sha256 } from '../http/secrets';
import { invitationLetter } from '../mail/invitationLetter';
import type { Outbox } from '../mail/outbox';
import { countedOf } from '../results/operations';
import type { Services } from '../services';
import { lateArrivals } from './late';
import { findPaper, findRound, invitedOf, listRounds } from './queries';
import { record } from './record';

export interface NewInvitation {
  readonly name: string;
  readonly email: string;
  readonly reference: string | null;
  readonly extraPercent: number;
  readonly arrangements: Arrangements;
  readonly timeZone: string | null;
}

export interface Invited {
  readonly invitation: number;
  readonly letter: number;
}

function nextReference({ db }: Services): string {
  const last = db.select({ id: candidates.id }).from(candidates).orderBy(desc(candidates.id)).limit(1).get();
  return `HR-${2201 + (last?.id ?? 0)}`;
}

/** Invites one candidate: the secret link goes into the letter, only its hash into the database. */
export function invite(services: Services, outbox: Outbox, roundId: number, wanted: NewInvitation): Invited {
  const { db, clock, config } = services;
  const round = findRound(db, roundId);
  if (!round) throw notFound('This round');
  if (clock.now() >= round.closesAt)
    throw conflict('round-over', 'The window of this round is over; nobody can be invited to it any more.');
  const paper = findPaper(db, round.paperId)!.document;
  const email = wanted.email.trim().toLowerCase();
  const already = db
    .select({ id: invitations.id })
    .from(invitations)
    .innerJoin(candidates, eq(candidates.id, invitations.candidateId))
    .where(and(eq(invitations.roundId, roundId), eq(candidates.email, email)))
    .get();
  if (already)
    throw conflict(
      'already-invited',
      `${email} is already invited to this round. The letter is in the outbox.`,
    );
  const secret = newSecret();
  const link = `${config.publicUrl}/i/${secret}`;
  return db.transaction(() => {
    const reference = wanted.reference ?? nextReference(services);
    const person = { name: wanted.name.trim(), email, reference };
    const candidateId = Number(db.insert(candidates).values(person).run().lastInsertRowid);
    const values = {
      roundId,
      candidateId,
      linkHash: sha256(secret),
      extraPercent: wanted.extraPercent,
      arrangements: wanted.arrangements,
      timeZone: wanted.timeZone,
      invitedAt: clock.now(),
    };
    const invitationId = Number(db.insert(invitations).values(values).run().lastInsertRowid);
    const { title, opensAt, closesAt, timeZone, settings } = round;
    const camera = settings.checks.includes('camera');
    const facts = {
      title,
      paperTitle: paper.title,
      opensAt,
      closesAt,
      timeZone,
      help: settings.help,
      minutes: paper.minutes,
      camera,
    };
    const letter = invitationLetter({
      ...{ invitationId, organisation: config.organisation, candidate: person, round: facts },
      ...{ extraPercent: wanted.extraPercent, breakMinutes: wanted.arrangements.breakMinutes, link },
      candidateZone: wanted.timeZone ?? timeZone,
    });
    return { invitation: invitationId, letter: outbox.put(letter) };
  });
}

function rowOf(
  services: Services,
  { invitation, candidate }: ReturnType<typeof invitedOf>[number],
  { parts, counts }: { readonly parts: number; readonly counts: AttemptRule },
): InvitedRow {
  const sitting = sittingsOf(services.db, invitation.id).find((s) => s.startedAt !== null);
  const given = marksOfCounted(countedOf(services, invitation.id, counts));
  const arrival = arrivalsOf(services.db, invitation.id).at(-1);
  const weak = (arrival?.checks ?? [])
    .filter((c) => c.outcome !== 'good')
    .map((c) => `${c.name}: ${c.outcome}`);
  return {
    id: invitation.id,
    name: candidate.name,
    email: candidate.email,
    reference: candidate.reference,
    extraPercent: invitation.extraPercent,
    breakMinutes: invitation.arrangements.breakMinutes,
    startedAt: sitting?.startedAt ?? null,
    deadlineAt: sitting?.deadlineAt ?? null,
    handedInAt: sitting?.closedAt ?? null,
    notes: weak,
    correction: arrival?.correctionSettledAt === null ? arrival.correction : null,
    total: given.length === parts ? sumMarks(given.map((m) => m.hundredths)) : null,
  };
}

export function roundDetail(services: Services, id: number): RoundDetail {
  const { db } = services;
  const round = findRound(db, id);
  const row = listRounds(db, services.clock.now()).find((r) => r.id === id);
  if (!round || !row) throw notFound('This round');
  const parts = allParts(findPaper(db, round.paperId)!.document).length;
  const invitedRows = invitedOf(db, id).map((found) =>
    rowOf(services, found, { parts, counts: round.settings.counts }),
  );
  const mayRelease = round.signedOffAt !== null && round.releasedAt === null;
  return { ...row, settings: round.settings, invitedRows, mayRelease, late: lateArrivals(services, id) };
}

/** Gives the results to the candidates. Only what a lead has signed off can be released. */
export function release(services: Services, staffId: number, id: number): void {
  const { db, clock } = services;
  const round = findRound(db, id);
  if (!round) throw notFound('This round');
  if (round.signedOffAt === null)
    throw conflict(
      'not-signed-off',
      'The lead assessor has not signed off the marks yet; results cannot go out before.',
    );
  const change = db
    .update(rounds)
    .set({ releasedAt: clock.now() })
    .where(and(eq(rounds.id, id), isNull(rounds.releasedAt)))
    .run();
  if (change.changes > 0) record(services, { staffId, act: 'released results', subject: `round ${id}` });
}

export function openSittings({ db }: Services, roundId: number) {
  return db
    .select({ sitting: sittings })
    .from(sittings)
    .innerJoin(invitations, eq(invitations.id, sittings.invitationId))
    .where(eq(invitations.roundId, roundId))
    .all()
    .map((row) => row.sitting);
}
