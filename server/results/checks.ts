import { and, asc, eq, isNull } from 'drizzle-orm';
import type { CheckRow, ChecksView, ResultCheck } from '../../core/results/api';
import { record } from '../audit/record';
import { findInvited } from '../candidates/queries';
import type { Db } from '../db/open';
import { invitations, people, resultChecks } from '../db/schema';
import { conflict, notFound } from '../http/errors';
import type { Reading } from '../reading/read';
import type { Outbox } from '../mail/outbox';
import { notify } from '../mail/notices';
import type { HasConfig } from '../config';
import type { HasDb } from '../db/open';
import type { HasClock } from '../machine/clock';

const DAY_MS = 24 * 3_600_000;
/** More is no check but a conversation. */
const MOST_CHECKS = 3;

type Row = typeof resultChecks.$inferSelect;

const shown = ({ id, reason, askedAt, answer, changed, answeredAt }: Row): ResultCheck => ({
  id,
  reason,
  askedAt,
  answer,
  changed,
  answeredAt,
});

const rowsOf = (db: Db, invitation: number): Row[] =>
  db
    .select()
    .from(resultChecks)
    .where(eq(resultChecks.invitationId, invitation))
    .orderBy(asc(resultChecks.id))
    .all();

/** A candidate's requests, and until when another one can be made. */
export function checksOf({ db, clock }: Pick<Reading, 'db' | 'clock'>, invitation: number): ChecksView {
  const { releasedAt, settings } = findInvited(db, invitation)!.round;
  const rows = rowsOf(db, invitation);
  const until = releasedAt === null ? 0 : releasedAt + settings.checkDays * DAY_MS;
  const open =
    clock.now() < until && rows.length < MOST_CHECKS && rows.every((row) => row.answeredAt !== null);
  return { checks: rows.map(shown), until: open ? until : null };
}

/** Asks for a check of a result, with the reason. Refused before the release, after the deadline, and while one is open. */
export function askForCheck(services: HasClock & HasDb, invitation: number, reason: string): ChecksView {
  const { db, clock } = services;
  if (checksOf(services, invitation).until === null) throw conflict('no-check-now');
  db.insert(resultChecks).values({ invitationId: invitation, reason, askedAt: clock.now() }).run();
  return checksOf(services, invitation);
}

/** The requests of a round, those that wait first. */
export function checksIn(db: Db, round: number): CheckRow[] {
  return db
    .select({ check: resultChecks, person: people, invitation: invitations.id })
    .from(resultChecks)
    .innerJoin(invitations, eq(invitations.id, resultChecks.invitationId))
    .innerJoin(people, eq(people.id, invitations.personId))
    .where(eq(invitations.roundId, round))
    .orderBy(asc(resultChecks.answeredAt), asc(resultChecks.id))
    .all()
    .map(({ check, person, invitation }) => ({
      ...shown(check),
      invitation,
      name: person.name,
      reference: person.reference,
    }));
}

export interface CheckAnswer {
  readonly id: number;
  readonly answer: string;
  readonly changed: boolean;
}

/** Answers a request; the candidate reads the answer on their page and in a letter. */
export function answerCheck(
  services: HasConfig & HasClock & HasDb,
  outbox: Outbox,
  { staffId, round }: { readonly staffId: number; readonly round: number },
  { id, answer, changed }: CheckAnswer,
): void {
  const { db, clock } = services;
  const found = checksIn(db, round).find((one) => one.id === id);
  if (!found) throw notFound('noCheck');
  const answered = { answer, changed, answeredBy: staffId, answeredAt: clock.now() };
  const open = and(eq(resultChecks.id, id), isNull(resultChecks.answeredAt));
  const act = { staffId, act: 'answered-check', subject: `round ${round}`, reason: answer } as const;
  db.transaction(() => {
    if (db.update(resultChecks).set(answered).where(open).run().changes === 0)
      throw conflict('answered-already');
    record(services, { ...act, invitationId: found.invitation });
    notify(services, outbox, findInvited(db, found.invitation)!, { topic: 'check answered', says: answer });
  });
}
