import { and, asc, eq, isNull, or } from 'drizzle-orm';
import Joi from 'joi';
import type { LiveView, Message } from '../../core/live/api';
import { timeViewOf } from '../../core/timing/sittingTime';
import { DOOR_TRIES, whereIs } from '../arrival/operations';
import { arrivals, invitations, messages } from '../db/schema';
import { forCandidates, type Endpoint } from '../http/endpoint';
import type { Services } from '../services';
import { sittingQueries } from '../sittings/queries';
import { streamView } from './stream';

const sayBody = Joi.object<{ text: string; hand: boolean }>({
  text: Joi.string().trim().min(1).max(500).required(),
  hand: Joi.boolean().required(),
});

/** Everything said to or by a candidate, and to everybody in the round. */
const messagesFor = ({ db }: Services, invitation: number, round: number) =>
  db
    .select()
    .from(messages)
    .where(
      or(
        eq(messages.invitationId, invitation),
        and(eq(messages.roundId, round), isNull(messages.invitationId)),
      ),
    )
    .orderBy(asc(messages.id))
    .all();

/** Place among those of the round who wait and are not admitted yet. */
function placeOf({ db }: Services, invitation: number, round: number): number | null {
  const waiting = db
    .select({ invitation: arrivals.invitationId, at: arrivals.waitingAt })
    .from(arrivals)
    .innerJoin(invitations, eq(invitations.id, arrivals.invitationId))
    .where(and(eq(invitations.roundId, round), isNull(arrivals.admittedAt)))
    .all()
    .filter((a) => a.at !== null)
    .sort((a, b) => a.at! - b.at!);
  const index = waiting.findIndex((a) => a.invitation === invitation);
  return index < 0 ? null : index + 1;
}

export function liveView(services: Services, invitation: number): LiveView {
  const { clock, db, time } = services;
  const now = clock.now();
  const { invited, arrival, stage } = whereIs(services, invitation);
  const said = messagesFor(services, invitation, invited.round.id);
  const hand = said.findLast((m) => m.hand && m.answeredAt === null);
  const running = stage.at === 'running' ? sittingQueries(db).newestOf(invitation)!.sitting : null;
  const waits = stage.at === 'arriving' && stage.step === 'waiting';
  return {
    now,
    stage,
    opensAt: invited.round.opensAt,
    time: running && timeViewOf(time.of(running.id), now),
    messages: said.map(({ id, at, staffId, text }): Message => ({
      id,
      at,
      from: staffId === null ? 'you' : 'invigilator',
      text,
    })),
    hand: hand ? { at: hand.at, text: hand.text } : null,
    place: waits ? placeOf(services, invitation, invited.round.id) : null,
    triesLeft: Math.max(0, DOOR_TRIES - (arrival?.doorTries ?? 0)),
    holder: running?.holder ?? null,
  };
}

/** A candidate says something; a raised hand stands until it is answered. */
function say(services: Services, invitation: number, { text, hand }: { text: string; hand: boolean }): void {
  const { db, clock, hub } = services;
  const round = whereIs(services, invitation).invited.round.id;
  db.insert(messages)
    .values({ roundId: round, invitationId: invitation, staffId: null, at: clock.now(), text, hand })
    .run();
  hub.tellOf(invitation, round);
}

export function liveEndpoints(services: Services): Endpoint[] {
  const { hub, clock, time, db } = services;
  /** Rest breaks by arrangement, taken when the candidate wants. */
  const rest = (invitation: number, type: 'break began' | 'break ended') => {
    const { invited } = whereIs(services, invitation);
    const found = sittingQueries(db).newestOf(invitation);
    if (found) time.record(found.sitting.id, { type, at: clock.now() });
    hub.tellOf(invitation, invited.round.id);
    return liveView(services, invitation);
  };
  return [
    forCandidates({ method: 'get', path: '/live' }, (who) => {
      hub.hear(who.invitation, clock.now());
      return liveView(services, who.invitation);
    }),
    forCandidates({ method: 'get', path: '/live/stream' }, (who, { request, response }) =>
      streamView({ request, response }, hub, `invitation ${who.invitation}`, () =>
        liveView(services, who.invitation),
      ),
    ),
    forCandidates({ method: 'post', path: '/live/say', body: sayBody }, (who, { body }) => {
      say(services, who.invitation, body);
      return liveView(services, who.invitation);
    }),
    forCandidates({ method: 'post', path: '/live/break', body: Joi.object({}) }, (who) =>
      rest(who.invitation, 'break began'),
    ),
    forCandidates({ method: 'post', path: '/live/break-over', body: Joi.object({}) }, (who) =>
      rest(who.invitation, 'break ended'),
    ),
  ];
}
