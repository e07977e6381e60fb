import { and, count, desc, eq, inArray, sql } from 'drizzle-orm';
import type { LetterRow } from '../../core/rounds/api';
import { say } from '../../core/messages/words';
import { invitations, letters, people, roundStaff } from '../db/schema';
import { likeOf, type Listing } from '../reading/read';
import { letterRow } from './letterRow';

/** The letters of the rounds that somebody coordinates, newest first. */
export const lettersList: Listing<{ readonly staffId: number }, LetterRow> = {
  name: 'letters',
  filters: () => ['sent', 'failed', 'waiting'],
  list: ({ db, config }, { staffId }, { search, filter, from, size }) => {
    const own = db
      .select({ id: roundStaff.roundId })
      .from(roundStaff)
      .where(and(eq(roundStaff.staffId, staffId), eq(roundStaff.role, 'coordinator')));
    const like = likeOf(search);
    const states = {
      sent: sql`${letters.sentAt} is not null`,
      failed: sql`${letters.sentAt} is null and ${letters.trouble} is not null`,
      waiting: sql`${letters.sentAt} is null and ${letters.trouble} is null`,
    };
    const where = and(
      inArray(invitations.roundId, own),
      search === ''
        ? undefined
        : sql`(${letters.to} like ${like} escape '\\' or ${people.name} like ${like} escape '\\')`,
      states[filter as keyof typeof states],
    );
    const rows = db
      .select({ letter: letters })
      .from(letters)
      .innerJoin(invitations, eq(invitations.id, letters.invitationId))
      .innerJoin(people, eq(people.id, invitations.personId))
      .where(where)
      .orderBy(desc(letters.id))
      .limit(size)
      .offset(from)
      .all();
    const { n } = db
      .select({ n: count() })
      .from(letters)
      .innerJoin(invitations, eq(invitations.id, letters.invitationId))
      .innerJoin(people, eq(people.id, invitations.personId))
      .where(where)
      .get()!;
    return { count: n, rows: rows.map(({ letter }) => letterRow(letter, config)) };
  },
  cells: {
    to: (row) => row.to,
    subject: (row) => say(row.subject),
    at: (row) => new Date(row.at),
    state: (row) => say({ code: `list.letter-${row.state.replace(' ', '-')}` }),
  },
};
