import { and, eq } from 'drizzle-orm';
import { message, type Message } from '../../core/messages/message';
import type { ColumnMap, PeopleReport, PersonRow } from '../../core/people/importApi';
import { noArrangements } from '../../core/rounds/api';
import { record } from '../audit/record';
import { invitations, people, sittings } from '../db/schema';
import { notFound } from '../http/errors';
import type { Outbox } from '../mail/outbox';
import { readPeople, type ReadRow } from '../people/readPeople';
import type { Services } from '../services';
import { invite } from './operations';
import { findRound } from '../schedule/queries';

type Invitation = typeof invitations.$inferSelect;

interface Placed {
  readonly row: PersonRow;
  readonly invitation: Invitation | null;
  readonly personId: number | null;
}

interface Known {
  readonly byEmail: ReadonlyMap<string, typeof people.$inferSelect>;
  readonly byReference: ReadonlyMap<string, typeof people.$inferSelect>;
  readonly invited: ReadonlyMap<number, { readonly invitation: Invitation; readonly started: boolean }>;
}

/** Everybody who is known, and who is invited to this round: read once, however many rows there are. */
function knownPeople({ db }: Services, roundId: number): Known {
  const all = db.select().from(people).all();
  const invited = db
    .select({ invitation: invitations, startedAt: sittings.startedAt })
    .from(invitations)
    .leftJoin(sittings, eq(sittings.invitationId, invitations.id))
    .where(eq(invitations.roundId, roundId))
    .all();
  return {
    byEmail: new Map(all.map((person) => [person.email, person])),
    byReference: new Map(all.map((person) => [person.reference, person])),
    invited: new Map(
      invited.map(({ invitation, startedAt }) => [
        ...([invitation.personId, { invitation, started: startedAt !== null }] as const),
      ]),
    ),
  };
}

function place(row: ReadRow, known: Known): Placed {
  const errors: Message[] = [...row.errors];
  const { email, reference } = row;
  const byReference = reference === null ? undefined : known.byReference.get(reference);
  const person = byReference ?? known.byEmail.get(email);
  if (byReference && byReference.email !== email)
    errors.push(message('import.referenceTaken', { reference: reference! }));
  else if (person && reference !== null && person.reference !== reference)
    errors.push(message('import.addressKnown', { reference: person.reference }));
  const before = person && known.invited.get(person.id);
  const changes =
    before !== undefined &&
    (before.invitation.extraPercent !== row.extraPercent ||
      before.invitation.arrangements.breakMinutes !== row.breakMinutes ||
      before.invitation.timeZone !== row.timeZone);
  const renamed = person !== undefined && person.name !== row.name;
  if (changes && before.started) errors.push(message('import.started'));
  const state =
    errors.length > 0 ? 'wrong' : before === undefined ? 'new' : changes || renamed ? 'changed' : 'same';
  return {
    row: { ...row, reference: reference ?? person?.reference ?? null, state, errors },
    invitation: before?.invitation ?? null,
    personId: person?.id ?? null,
  };
}

function change(services: Services, { row, invitation, personId }: Placed): void {
  const { name, extraPercent, breakMinutes, timeZone } = row;
  services.db.update(people).set({ name }).where(eq(people.id, personId!)).run();
  const arrangements = { ...invitation!.arrangements, breakMinutes };
  const own = and(eq(invitations.id, invitation!.id));
  services.db.update(invitations).set({ extraPercent, arrangements, timeZone }).where(own).run();
}

export interface PeopleFile {
  readonly bytes: Uint8Array;
  readonly columns: ColumnMap | null;
}

/**
 * Looks through a list of people for a round; without `dryRun` those who are new are invited, and what has changed of
 * others is changed. Rows that are wrong are told, one by one, and passed over; the others do not wait for them.
 */
export function importPeople(
  services: Services,
  outbox: Outbox,
  at: { readonly roundId: number; readonly staffId: number },
  { bytes, columns, dryRun }: PeopleFile & { readonly dryRun: boolean },
): PeopleReport {
  const { db } = services;
  const { roundId, staffId } = at;
  if (!findRound(db, roundId)) throw notFound('noRound');
  const read = readPeople(bytes, columns);
  const facts = { headings: read.headings, columns: read.columns };
  if ('problem' in read) return { ...facts, problem: read.problem, rows: [], done: null };
  const known = knownPeople(services, roundId);
  const placed = read.rows.map((row) => place(row, known));
  const rows = placed.map((one) => one.row);
  if (dryRun) return { ...facts, problem: null, rows, done: null };
  const done = db.transaction(() => {
    for (const { row } of placed)
      if (row.state === 'new') {
        const { name, email, reference, extraPercent, breakMinutes, timeZone } = row;
        const arrangements = { ...noArrangements, breakMinutes };
        invite(services, outbox, roundId, { name, email, reference, extraPercent, arrangements, timeZone });
      }
    for (const one of placed) if (one.row.state === 'changed') change(services, one);
    record(services, { staffId, act: 'imported-people', subject: `round ${roundId}` });
    const count = (state: PersonRow['state']) => rows.filter((row) => row.state === state).length;
    return { invited: count('new'), changed: count('changed') };
  });
  return { ...facts, problem: null, rows, done };
}
