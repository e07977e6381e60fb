import { and, desc, eq, isNull, sql } from 'drizzle-orm';
import type { Db } from '../db/open';
import { perDatabase } from '../db/perDatabase';
import { arrivals, invitations, people, rounds, sittings } from '../db/schema';
import { paperOfVersion } from '../papers/papers';

export interface InvitedCandidate {
  readonly invitation: typeof invitations.$inferSelect;
  readonly person: typeof people.$inferSelect;
  readonly round: typeof rounds.$inferSelect;
}

/** Asked at every step of every candidate. */
const queriesOf = perDatabase((db) => {
  const p = sql.placeholder;
  return {
    invited: db
      .select({ invitation: invitations, person: people, round: rounds })
      .from(invitations)
      .innerJoin(people, eq(people.id, invitations.personId))
      .innerJoin(rounds, eq(rounds.id, invitations.roundId))
      .where(eq(invitations.id, p('invitation')))
      .prepare(),
    sittings: db
      .select()
      .from(sittings)
      .where(eq(sittings.invitationId, p('invitation')))
      .orderBy(desc(sittings.attempt))
      .prepare(),
    arrival: db
      .select()
      .from(arrivals)
      .where(and(eq(arrivals.invitationId, p('invitation')), eq(arrivals.attempt, p('attempt'))))
      .prepare(),
    open: db
      .select()
      .from(sittings)
      .where(and(eq(sittings.invitationId, p('invitation')), isNull(sittings.closedAt)))
      .orderBy(desc(sittings.attempt))
      .limit(1)
      .prepare(),
  };
});

export const findInvited = (db: Db, invitation: number): InvitedCandidate | null =>
  queriesOf(db).invited.get({ invitation }) ?? null;

export const paperOf = (db: Db, invited: InvitedCandidate) =>
  paperOfVersion(db, invited.round.paperVersionId);

export const sittingsOf = (db: Db, invitation: number) => queriesOf(db).sittings.all({ invitation });

/** Whether a sitting is scored by the machine and nothing that counts can still arrive: before, nobody is shown marks. */
export const isScored = ({ scoredAt, settledAt }: Pick<Sitting, 'scoredAt' | 'settledAt'>): boolean =>
  scoredAt !== null && settledAt !== null;

type Sitting = typeof sittings.$inferSelect;

export type Arrival = typeof arrivals.$inferSelect;

export const findArrival = (db: Db, invitation: number, attempt: number): Arrival | null =>
  queriesOf(db).arrival.get({ invitation, attempt }) ?? null;

/** The statement that notes some columns of an arrival, made once for each set of columns. */
const noting = perDatabase((db) => {
  const made = new Map<string, ReturnType<typeof prepare>>();
  const prepare = (names: readonly (keyof Arrival)[]) => {
    const given = (name: string) => [name, sql.placeholder(name)] as const;
    const set = Object.fromEntries(names.map(given)) as Partial<Arrival>;
    const values = { ...set, ...Object.fromEntries(['invitationId', 'attempt'].map(given)) };
    return db
      .insert(arrivals)
      .values(values as typeof arrivals.$inferInsert)
      .onConflictDoUpdate({ target: [arrivals.invitationId, arrivals.attempt], set })
      .prepare();
  };
  return (names: readonly (keyof Arrival)[]) => {
    const key = names.join();
    const known = made.get(key) ?? prepare(names);
    made.set(key, known);
    return known;
  };
});

/** Notes one step of the arrival; steps done before stay. */
export function noteArrival(db: Db, invitationId: number, attempt: number, change: Partial<Arrival>): void {
  const names = Object.keys(change) as (keyof Arrival)[];
  noting(db)(names).run({ ...change, invitationId, attempt });
}

/** The sitting that can be worked on: prepared or running. */
export const openSitting = (db: Db, invitation: number) => queriesOf(db).open.get({ invitation }) ?? null;
