import { and, eq, isNull } from 'drizzle-orm';
import type { SittingVerdict, Weight } from '../../core/observations/review';
import { record } from '../audit/record';
import { findInvited } from '../candidates/queries';
import { explanations, observations, sittings, verdicts, weighings } from '../db/schema';
import { conflict, notFound } from '../http/errors';
import type { Outbox } from '../mail/outbox';
import { notify } from '../mail/notices';
import { explanationsOf, reviewedSitting } from './reads';
import type { HasConfig } from '../config';
import type { HasDb } from '../db/open';
import type { HasClock } from '../machine/clock';

/** Who reviews which sitting. */
export interface Reviewing {
  readonly staffId: number;
  readonly round: number;
  readonly invitation: number;
  readonly attempt: number | null;
}

/** Weighs an observation, with a reason; the newest weighing stands. */
export function weigh(
  services: HasClock & HasDb,
  reviewing: Reviewing,
  {
    observation,
    weight,
    reason,
  }: { readonly observation: number; readonly weight: Weight; readonly reason: string },
): void {
  const { db, clock } = services;
  const sitting = reviewedSitting(db, reviewing);
  const own = and(eq(observations.id, observation), eq(observations.sittingId, sitting.id));
  if (!db.select({ id: observations.id }).from(observations).where(own).get())
    throw notFound('noObservation');
  const { staffId, round, invitation } = reviewing;
  const subject = `round ${round}, observation ${observation}: ${weight}`;
  db.transaction(() => {
    db.insert(weighings)
      .values({ observationId: observation, weight, reason, staffId, at: clock.now() })
      .run();
    record(services, { staffId, act: 'weighed-observation', subject, invitationId: invitation, reason });
  });
}

/** Asks the candidate; they read it on their page and in a letter. */
export function ask(
  services: HasConfig & HasClock & HasDb,
  outbox: Outbox,
  reviewing: Reviewing,
  { observation, question }: { readonly observation: number | null; readonly question: string },
): void {
  const { db, clock } = services;
  const sitting = reviewedSitting(db, reviewing);
  const { staffId, round, invitation } = reviewing;
  if (observation !== null) {
    const own = and(eq(observations.id, observation), eq(observations.sittingId, sitting.id));
    if (!db.select({ id: observations.id }).from(observations).where(own).get())
      throw notFound('noObservation');
  }
  const values = {
    sittingId: sitting.id,
    observationId: observation,
    question,
    staffId,
    askedAt: clock.now(),
  };
  const act = { staffId, act: 'asked-candidate', subject: `round ${round}`, reason: question } as const;
  db.transaction(() => {
    db.insert(explanations).values(values).run();
    record(services, { ...act, invitationId: invitation });
    notify(services, outbox, findInvited(db, invitation)!, { topic: 'question' });
  });
}

/** What a candidate is asked about their sittings. */
export const askedOf = ({ db }: HasDb, invitation: number) =>
  db
    .select({ id: sittings.id })
    .from(sittings)
    .where(eq(sittings.invitationId, invitation))
    .all()
    .flatMap(({ id }) => explanationsOf(db, id))
    .map(({ id, question, askedAt, answer, answeredAt }) => ({ id, question, askedAt, answer, answeredAt }));

/** A candidate answers, once. */
export function explain(services: HasClock & HasDb, invitation: number, id: number, answer: string): void {
  const { db, clock } = services;
  if (!askedOf(services, invitation).some((one) => one.id === id)) throw notFound('noQuestion');
  const open = and(eq(explanations.id, id), isNull(explanations.answeredAt));
  const change = db.update(explanations).set({ answer, answeredAt: clock.now() }).where(open).run();
  if (change.changes === 0) throw conflict('no-question-open');
}

/** Decides on a sitting. `void` takes effect once a second person agrees; anything else at once, with a letter. */
export function judge(
  services: HasConfig & HasClock & HasDb,
  outbox: Outbox,
  reviewing: Reviewing,
  { verdict, reason }: { readonly verdict: SittingVerdict; readonly reason: string },
): void {
  const { db, clock } = services;
  const sitting = reviewedSitting(db, reviewing);
  const { staffId, round, invitation } = reviewing;
  const at = clock.now();
  db.transaction(() => {
    db.update(verdicts)
      .set({ endedAt: at })
      .where(and(eq(verdicts.sittingId, sitting.id), isNull(verdicts.endedAt)))
      .run();
    db.insert(verdicts).values({ sittingId: sitting.id, verdict, reason, staffId, at }).run();
    const subject = `round ${round}: ${verdict}`;
    record(services, { staffId, act: 'judged-sitting', subject, invitationId: invitation, reason });
    if (verdict !== 'void')
      notify(services, outbox, findInvited(db, invitation)!, { topic: 'verdict', says: reason });
  });
}

/** A second person agrees that a sitting is void; then the candidate is told. */
export function agree(
  services: HasConfig & HasClock & HasDb,
  outbox: Outbox,
  reviewing: Reviewing,
  id: number,
): void {
  const { db, clock } = services;
  const sitting = reviewedSitting(db, reviewing);
  const { staffId, round, invitation } = reviewing;
  const found = db
    .select()
    .from(verdicts)
    .where(and(eq(verdicts.id, id), eq(verdicts.sittingId, sitting.id), isNull(verdicts.endedAt)))
    .get();
  if (found?.verdict !== 'void' || found.agreedAt !== null) throw notFound('noVerdict');
  if (found.staffId === staffId) throw conflict('same-person');
  db.transaction(() => {
    db.update(verdicts).set({ agreedBy: staffId, agreedAt: clock.now() }).where(eq(verdicts.id, id)).run();
    record(services, { staffId, act: 'agreed-to-void', subject: `round ${round}`, invitationId: invitation });
    notify(services, outbox, findInvited(db, invitation)!, { topic: 'verdict', says: found.reason });
  });
}
