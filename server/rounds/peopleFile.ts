import { eq } from 'drizzle-orm';
import { message, type Message } from '../../core/messages/message';
import type { ColumnMap, PeopleReport, PersonRow } from '../../core/people/importApi';
import { invitations, people, sittings } from '../db/schema';
import { readPeople, type ReadRow } from '../people/readPeople';
import type { Read, Reading } from '../reading/read';

type Invitation = typeof invitations.$inferSelect;

export interface PeopleFile {
  readonly bytes: Uint8Array;
  readonly columns: ColumnMap | null;
}

/** What a file means for a round, before anything is done. */
export type PeopleChecked = Omit<PeopleReport, 'done'>;

interface Known {
  readonly byEmail: ReadonlyMap<string, typeof people.$inferSelect>;
  readonly byReference: ReadonlyMap<string, typeof people.$inferSelect>;
  readonly invited: ReadonlyMap<number, { readonly invitation: Invitation; readonly started: boolean }>;
}

/** Everybody who is known, and who is invited to this round: read once, however many rows there are. */
function knownPeople({ db }: Reading, roundId: number): Known {
  const all = db.select().from(people).all();
  const invited = db
    .select({ invitation: invitations, startedAt: sittings.startedAt })
    .from(invitations)
    .leftJoin(sittings, eq(sittings.invitationId, invitations.id))
    .where(eq(invitations.roundId, roundId))
    .orderBy(sittings.startedAt)
    .all();
  return {
    byEmail: new Map(all.map((person) => [person.email, person])),
    byReference: new Map(all.map((person) => [person.reference, person])),
    invited: new Map(
      invited.map(({ invitation, startedAt }) => [
        invitation.personId,
        { invitation, started: startedAt !== null },
      ]),
    ),
  };
}

function place(row: ReadRow, known: Known): PersonRow {
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
  const knownAs = renamed ? person.name : null;
  return { ...row, reference: reference ?? person?.reference ?? null, knownAs, state, errors };
}

/** Reads a list of people for a round and says of each row what it would do. Heavy: in the reading process only. */
export const peopleFileRead: Read<PeopleFile & { readonly roundId: number }, PeopleChecked> = {
  name: 'people-file',
  run: (reading, { roundId, bytes, columns }) => {
    const read = readPeople(bytes, columns);
    const facts = { headings: read.headings, columns: read.columns };
    if ('problem' in read) return { ...facts, problem: read.problem, rows: [] };
    const known = knownPeople(reading, roundId);
    return { ...facts, problem: null, rows: read.rows.map((row) => place(row, known)) };
  },
};
