import { attemptsTold } from '../../core/arrival/attemptsTold';
import { recordedOf } from '../../core/rounds/recorded';
import { runsPrograms } from '../../core/scoring/script';
import { allItems } from '../../core/papers/paper';
import { askedStill } from '../papers/askedStill';
import { and, eq } from 'drizzle-orm';
import type { Arrangements, RoundDetail } from '../../core/rounds/api';
import { findInvited, type InvitedCandidate } from '../candidates/queries';
import { record } from '../audit/record';
import { invitations, rounds } from '../db/schema';
import { conflict, notFound } from '../http/errors';
import { revokeLinks } from '../mail/links';
import type { NewLetter, Outbox } from '../mail/outbox';
import { paperOfVersion } from '../papers/papers';
import { findOrAddPerson } from '../people/people';
import type { Closing } from '../sittings/closing';
import { openDecisions } from './decisions';
import { findRound } from '../schedule/queries';
import { roundRow } from './reads';
import type { HasConfig } from '../config';
import type { HasDb } from '../db/open';
import type { HasSessions } from '../http/sessions';
import type { HasClock } from '../machine/clock';
import type { HasReader } from '../reading/reader';

/** What is needed here of the server. */
interface Needs extends HasConfig, HasClock, HasDb, HasSessions {}

export interface NewInvitation {
  readonly name: string;
  readonly email: string;
  readonly reference: string | null;
  readonly extraPercent: number;
  readonly arrangements: Arrangements;
  readonly timeZone: string | null;
}

export interface InvitationMade {
  readonly invitation: number;
  readonly letter: number;
}

/** Invites one candidate, with a letter to them. */
export function invite(
  services: HasConfig & HasClock & HasDb,
  outbox: Outbox,
  roundId: number,
  wanted: NewInvitation,
): InvitationMade {
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
      questionnaireAt: null,
    };
    const invitationId = Number(db.insert(invitations).values(values).run().lastInsertRowid);
    const row = { id: invitationId, ...values };
    return {
      invitation: invitationId,
      letter: outbox.put(letterTo(services, { round, person, invitation: row })),
    };
  });
}

type Invitee = Pick<InvitedCandidate, 'round' | 'person' | 'invitation'>;

function letterTo({ db, config }: HasConfig & HasDb, { round, person, invitation }: Invitee): NewLetter {
  const { opensAt, closesAt, timeZone, settings } = round;
  const paper = paperOfVersion(db, round.paperVersionId);
  const { title, minutes } = paper;
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
    recorded: recordedOf(settings, runsPrograms(paper)),
    attempts: attemptsTold(settings, null),
  };
  return { invitationId: invitation.id, to: person.email, facts };
}

/** Ends a candidate's links and sessions, as when they fell into other hands, and writes them a new letter. */
export function renewLink(
  services: Needs,
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

/** Who looks at a round. */
export interface Looking {
  readonly closing: Closing;
  readonly staffId: number;
}

export async function roundDetail(
  services: HasClock & HasDb & HasReader,
  id: number,
  { closing, staffId }: Looking,
): Promise<RoundDetail> {
  const round = findRound(services.db, id);
  const owner = { staffId, roles: ['coordinator', 'invigilator'] as const };
  const row = await services.reader.read(roundRow, { ...owner, round: id });
  if (!round || !row) throw notFound('noRound');
  const mayRelease = round.signedOffAt !== null && round.releasedAt === null;
  const decisions = openDecisions(services, closing, id);
  const { practiceAt } = round;
  return { ...row, settings: round.settings, mayRelease, practiceAt, decisions };
}

/**
 * Lets the candidates of a round practise with its questions, or takes that back. Not before the results are out, nor while
 * a question is asked in another round.
 */
export function releasePractice(
  services: HasClock & HasDb,
  staffId: number,
  { id, released }: { readonly id: number; readonly released: boolean },
): void {
  const { db, clock } = services;
  const round = findRound(db, id);
  if (!round) throw notFound('noRound');
  if (released) {
    if (round.releasedAt === null || clock.now() < round.closesAt) throw conflict('not-over');
    const asked = askedStill(services);
    if (allItems(paperOfVersion(db, round.paperVersionId)).some((item) => asked.has(item.key)))
      throw conflict('asked-elsewhere');
  }
  if ((round.practiceAt !== null) === released) return;
  const act = released ? 'released-practice' : 'closed-practice';
  db.transaction(() => {
    db.update(rounds)
      .set({ practiceAt: released ? clock.now() : null })
      .where(eq(rounds.id, id))
      .run();
    record(services, { staffId, act, subject: `round ${id}` });
  });
}
