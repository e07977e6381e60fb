import { and, eq, isNotNull } from 'drizzle-orm';
import { message } from '../../core/messages/message';
import type { NameChoice, PeopleReport, PersonRow } from '../../core/people/importApi';
import { noArrangements } from '../../core/rounds/api';
import { record } from '../audit/record';
import { invitations, people, sittings } from '../db/schema';
import { ApiError, conflict, notFound } from '../http/errors';
import type { Outbox } from '../mail/outbox';
import { findRound } from '../schedule/queries';
import { waiting } from '../machine/pause';
import { invite } from './operations';
import { peopleFileRead, type PeopleFile } from './peopleFile';
import type { HasConfig } from '../config';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasClock } from '../machine/clock';
import type { HasLoad } from '../machine/loadMeter';
import type { HasReader } from '../reading/reader';

/** What is needed here of the server. */
interface Needs extends HasConfig, HasClock, HasDb, HasCommits, HasLoad, HasReader {}

/** How long one piece of the rows is worked at, between the requests of those who sit a test. */
const PIECE_MS = 6;
const PIECE_WHEN_BUSY_MS = 2;
/** How long the next piece waits on a busy server. */
const APART_WHEN_BUSY_MS = 50;

interface At {
  readonly roundId: number;
  readonly staffId: number;
}

const wrong = (row: PersonRow, code: string): PersonRow => ({
  ...row,
  state: 'wrong',
  errors: [message(code)],
});

/** Changes what the list says of somebody who is invited; somebody may have started since the list was read. */
function change({ db }: HasDb, roundId: number, row: PersonRow): PersonRow {
  const { name, email, extraPercent, breakMinutes, timeZone } = row;
  const found = db
    .select({ invitation: invitations, startedAt: sittings.startedAt })
    .from(invitations)
    .innerJoin(people, eq(people.id, invitations.personId))
    .leftJoin(sittings, and(eq(sittings.invitationId, invitations.id), isNotNull(sittings.startedAt)))
    .where(and(eq(invitations.roundId, roundId), eq(people.email, email)))
    .get();
  if (!found) return wrong(row, 'import.notInvited');
  const { invitation, startedAt } = found;
  db.update(people).set({ name }).where(eq(people.id, invitation.personId)).run();
  const arrangements = { ...invitation.arrangements, breakMinutes };
  const same =
    invitation.extraPercent === extraPercent &&
    invitation.arrangements.breakMinutes === breakMinutes &&
    invitation.timeZone === timeZone;
  if (same) return row;
  if (startedAt !== null) return wrong(row, 'import.started');
  const own = eq(invitations.id, invitation.id);
  db.update(invitations).set({ extraPercent, arrangements, timeZone }).where(own).run();
  return row;
}

/** Does what a row says, part of a commit; what has come in between since the list was read is told as its error. */
function carryOut(
  services: HasConfig & HasClock & HasDb,
  outbox: Outbox,
  { roundId, names }: { readonly roundId: number; readonly names: NameChoice | null },
  listed: PersonRow,
): PersonRow {
  const { knownAs } = listed;
  const row = names === 'known' && knownAs !== null ? { ...listed, name: knownAs } : listed;
  if (row.state === 'changed') return change(services, roundId, row);
  const { name, email, reference, extraPercent, breakMinutes, timeZone } = row;
  if (knownAs !== null) services.db.update(people).set({ name }).where(eq(people.email, email)).run();
  const arrangements = { ...noArrangements, breakMinutes };
  try {
    invite(services, outbox, roundId, { name, email, reference, extraPercent, arrangements, timeZone });
    return row;
  } catch (error) {
    if (!(error instanceof ApiError)) throw error;
    if (error.code === 'already-invited') return { ...row, state: 'same' };
    return { ...row, state: 'wrong', errors: [error.body.message] };
  }
}

/**
 * Looks through a list of people for a round; without `dryRun` those who are new are invited, and what has changed of
 * others is changed. Rows that are wrong are told, one by one, and passed over; the others do not wait for them. The list
 * is read by another process, and what it says is done a few rows at a time: a server that stops in between has done
 * some of the rows, and the same list sent again does the others.
 */
export async function importPeople(
  services: Needs,
  outbox: Outbox,
  { roundId, staffId }: At,
  { dryRun, names, ...file }: PeopleFile & { readonly dryRun: boolean; readonly names: NameChoice | null },
): Promise<PeopleReport> {
  const { db, commits, load, reader, clock } = services;
  const round = findRound(db, roundId);
  if (!round) throw notFound('noRound');
  if (!dryRun && clock.now() >= round.closesAt) throw conflict('round-over');
  const checked = await reader.read(peopleFileRead, { roundId, ...file });
  if (dryRun || checked.problem) return { ...checked, done: null };
  const rows = [...checked.rows];
  const open = rows.flatMap((row, at) => (row.state === 'new' || row.state === 'changed' ? [at] : []));
  if (names === null && open.some((at) => rows[at]!.knownAs !== null)) throw conflict('names-differ');
  await commits.run(() => record(services, { staffId, act: 'imported-people', subject: `round ${roundId}` }));
  for (let next = 0; next < open.length;) {
    if (load.busy) await waiting.pause(APART_WHEN_BUSY_MS);
    const first = next;
    next = await commits.run(() => {
      const until = performance.now() + (load.busy ? PIECE_WHEN_BUSY_MS : PIECE_MS);
      let i = first;
      do rows[open[i]!] = carryOut(services, outbox, { roundId, names }, rows[open[i]!]!);
      while (++i < open.length && performance.now() < until);
      return i;
    });
  }
  const count = (state: PersonRow['state']) => open.filter((at) => rows[at]!.state === state).length;
  return { ...checked, rows, done: { invited: count('new'), changed: count('changed') } };
}
