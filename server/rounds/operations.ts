import { weakChecks } from '../../core/arrival/checks';
import { and, eq, isNull } from 'drizzle-orm';
import { plainForm } from '../../core/forms/drawForm';
import type { FullPaper } from '../../core/papers/paper';
import { isFullyMarked } from '../../core/results/componentMark';
import { totalOf } from '../../core/results/totals';
import { componentsOf } from '../../core/scoring/components';
import { marksOfCounted } from '../../core/results/attempts';
import type { Arrangements, AttemptRule, InvitedRow, RoundDetail } from '../../core/rounds/api';
import { arrivalsOf, findInvited, sittingsOf, type Invited as InvitedTo } from '../arrival/queries';
import { record } from '../audit/record';
import { invitations, rounds, sittings } from '../db/schema';
import { conflict, notFound } from '../http/errors';
import { revokeLinks } from '../mail/links';
import type { NewLetter, Outbox } from '../mail/outbox';
import { countedOf } from '../results/operations';
import type { Services } from '../services';
import { paperOfVersion } from '../papers/papers';
import { findOrAddPerson } from '../people/people';
import type { Closing } from '../sittings/closing';
import { openDecisions } from './decisions';
import { findRound, invitedOf, listRounds } from './queries';

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

/** Invites one candidate, with a letter to them. */
export function invite(services: Services, outbox: Outbox, roundId: number, wanted: NewInvitation): Invited {
  const { db, clock } = services;
  const round = findRound(db, roundId);
  if (!round) throw notFound('noRound');
  if (clock.now() >= round.closesAt) throw conflict('round-over');
  const email = wanted.email.trim().toLowerCase();
  return db.transaction(() => {
    const person = findOrAddPerson(db, { name: wanted.name.trim(), email, reference: wanted.reference });
    const same = and(eq(invitations.roundId, roundId), eq(invitations.personId, person.id));
    if (db.select({ id: invitations.id }).from(invitations).where(same).get())
      throw conflict('already-invited', { values: { email } });
    const values = {
      roundId,
      personId: person.id,
      extraPercent: wanted.extraPercent,
      arrangements: wanted.arrangements,
      timeZone: wanted.timeZone,
      invitedAt: clock.now(),
    };
    const invitationId = Number(db.insert(invitations).values(values).run().lastInsertRowid);
    const row = { id: invitationId, ...values };
    return {
      invitation: invitationId,
      letter: outbox.put(letterTo(services, { round, person, invitation: row })),
    };
  });
}

type Invitee = Pick<InvitedTo, 'round' | 'person' | 'invitation'>;

function letterTo({ db, config }: Services, { round, person, invitation }: Invitee): NewLetter {
  const { opensAt, closesAt, timeZone, settings } = round;
  const { title, minutes } = paperOfVersion(db, round.paperVersionId);
  const facts = {
    kind: 'invitation' as const,
    organisation: config.organisation,
    name: person.name,
    reference: person.reference,
    title,
    opensAt,
    closesAt,
    timeZone: invitation.timeZone ?? timeZone,
    roundZone: timeZone,
    help: settings.help,
    minutes,
    camera: settings.checks.includes('camera'),
    extraPercent: invitation.extraPercent,
    breakMinutes: invitation.arrangements.breakMinutes,
  };
  return { invitationId: invitation.id, to: person.email, facts };
}

/** Ends a candidate's links and sessions, as when they fell into other hands, and writes them a new letter. */
export function renewLink(
  services: Services,
  outbox: Outbox,
  {
    round,
    invitation,
    staffId,
  }: { readonly round: number; readonly invitation: number; readonly staffId: number },
): { readonly letter: number } {
  const { db, sessions } = services;
  const invited = findInvited(db, invitation);
  if (invited?.round.id !== round) throw notFound('noCandidate');
  return db.transaction(() => {
    revokeLinks(db, invitation);
    sessions.revokeCandidate(invitation);
    record(services, { staffId, act: 'renewed-link', subject: `round ${round}`, invitationId: invitation });
    return { letter: outbox.put(letterTo(services, invited)) };
  });
}

function rowOf(
  services: Services,
  { invitation, person }: ReturnType<typeof invitedOf>[number],
  { paper, counts }: { readonly paper: FullPaper; readonly counts: AttemptRule },
): InvitedRow {
  const sitting = sittingsOf(services.db, invitation.id).find((s) => s.startedAt !== null);
  const { marks: given } = marksOfCounted(countedOf(services, invitation.id, counts));
  const arrival = arrivalsOf(services.db, invitation.id).at(-1);
  return {
    id: invitation.id,
    name: person.name,
    email: person.email,
    reference: person.reference,
    extraPercent: invitation.extraPercent,
    breakMinutes: invitation.arrangements.breakMinutes,
    startedAt: sitting?.startedAt ?? null,
    deadlineAt: sitting?.deadlineAt ?? null,
    handedInAt: sitting?.closedAt ?? null,
    notes: weakChecks(arrival?.checks ?? []),
    correction: arrival?.correctionSettledAt === null ? arrival.correction : null,
    total: isFullyMarked(componentsOf(paper), given) ? totalOf(plainForm(paper).paper, given) : null,
  };
}

/** Who looks at a round. */
export interface Looking {
  readonly closing: Closing;
  readonly staffId: number;
}

export function roundDetail(services: Services, id: number, { closing, staffId }: Looking): RoundDetail {
  const { db } = services;
  const round = findRound(db, id);
  const own = { staffId, roles: ['coordinator', 'invigilator'] as const };
  const row = listRounds(db, services.clock.now(), own).find((r) => r.id === id);
  if (!round || !row) throw notFound('noRound');
  const paper = paperOfVersion(db, round.paperVersionId);
  const invitedRows = invitedOf(db, id).map((found) =>
    rowOf(services, found, { paper, counts: round.settings.counts }),
  );
  const mayRelease = round.signedOffAt !== null && round.releasedAt === null;
  const decisions = openDecisions(services, closing, id);
  return { ...row, settings: round.settings, invitedRows, mayRelease, decisions };
}

/** Gives the results to the candidates. Only what a lead has signed off can be released. */
export function release(services: Services, staffId: number, id: number): void {
  const { db, clock } = services;
  const round = findRound(db, id);
  if (!round) throw notFound('noRound');
  if (round.signedOffAt === null) throw conflict('not-signed-off');
  const change = db
    .update(rounds)
    .set({ releasedAt: clock.now() })
    .where(and(eq(rounds.id, id), isNull(rounds.releasedAt)))
    .run();
  if (change.changes > 0) record(services, { staffId, act: 'released', subject: `round ${id}` });
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
