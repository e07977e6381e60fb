import { bandsSet } from '../marking/roundMarked';
import { and, asc, count, eq, isNotNull, isNull, lte, max, or, sql } from 'drizzle-orm';
import Joi from 'joi';
import { objectOf } from '../../core/validation/shapes';
import type { Stage } from '../../core/arrival/stage';
import type { LiveView, Message } from '../../core/live/api';
import { timeViewOf } from '../../core/timing/sittingTime';
import { DOOR_TRIES } from '../arrival/operations';
import { paperOf, sittingsOf, type InvitedCandidate } from '../candidates/queries';
import { arrivalStateOf } from '../candidates/state';
import { markingProgress } from '../marking/progress';
import { perDatabase } from '../db/perDatabase';
import { arrivals, invitations, keyCorrections, marks, messages } from '../db/schema';
import { forCandidates, type Endpoint } from '../http/endpoint';
import { ApiError } from '../http/errors';
import { perMinute } from '../http/limits';
import { paperOfVersion } from '../papers/papers';
import { livePages } from '../phones/phones';
import { Plays } from '../sittings/plays';
import { sittingQueries } from '../sittings/queries';
import { openLine, streamView } from './stream';
import type { HasDb } from '../db/open';
import type { HasSessions } from '../http/sessions';
import type { HasClock } from '../machine/clock';
import type { HasLog } from '../machine/log';
import type { HasScheduler } from '../machine/loopScheduler';
import type { HasTime } from '../sittings/timeKeeper';
import type { HasHub } from '../events/hub';

/** What is needed here of the server. */
interface Needs extends HasClock, HasDb, HasTime, HasHub, HasScheduler, HasLog, HasSessions {}

const sayBody = objectOf<{ text: string; hand: boolean }>({
  text: Joi.string().trim().min(1).max(500),
  hand: Joi.boolean(),
});

const queriesOf = perDatabase((db) => {
  const toAll = and(eq(messages.roundId, sql.placeholder('round')), isNull(messages.invitationId));
  const waiting = and(
    eq(invitations.roundId, sql.placeholder('round')),
    isNull(arrivals.admittedAt),
    isNotNull(arrivals.waitingAt),
  );
  return {
    before: db
      .select({ n: count() })
      .from(arrivals)
      .innerJoin(invitations, eq(invitations.id, arrivals.invitationId))
      .where(and(waiting, lte(arrivals.waitingAt, sql.placeholder('at'))))
      .prepare(),
    messages: db
      .select()
      .from(messages)
      .where(or(eq(messages.invitationId, sql.placeholder('invitation')), toAll))
      .orderBy(asc(messages.id))
      .prepare(),
    newestMark: db
      .select({ id: max(marks.id) })
      .from(marks)
      .where(eq(marks.sittingId, sql.placeholder('id')))
      .prepare(),
    corrected: db
      .select({ corrected: count(keyCorrections.finishedAt) })
      .from(keyCorrections)
      .prepare(),
    waiting: db
      .select({ invitation: arrivals.invitationId })
      .from(arrivals)
      .innerJoin(invitations, eq(invitations.id, arrivals.invitationId))
      .where(waiting)
      .prepare(),
  };
});

/** Everything said to or by a candidate, and to everybody in the round. */
const messagesFor = ({ db }: HasDb, invitation: number, round: number) =>
  queriesOf(db).messages.all({ invitation, round });

/** Place among those of the round who wait and are not admitted yet. */
const placeOf = ({ db }: HasDb, at: number, round: number): number =>
  queriesOf(db).before.get({ round, at })!.n;

/** Whoever still waits has moved up by one. */
export function tellWaiting({ db, hub }: HasDb & HasHub, round: number): void {
  for (const { invitation } of queriesOf(db).waiting.all({ round })) hub.tell(`invitation ${invitation}`);
}

/** A text that changes with what the page behind the link shows of marking and result. */
function markedOf({ db }: HasDb, invited: InvitedCandidate, stage: Stage): string | null {
  const { invitation, round } = invited;
  if (stage.at !== 'being marked' && stage.at !== 'between' && stage.at !== 'result') return null;
  const own = sittingsOf(db, invitation.id).filter((one) => one.closedAt !== null);
  if (stage.at === 'being marked')
    return JSON.stringify(own.map((one) => markingProgress(db, one, paperOf(db, invited))));
  const newest = own.map(
    ({ id, scoredAt }) => `${scoredAt ?? 0} ${queriesOf(db).newestMark.get({ id })?.id ?? 0}`,
  );
  const { corrected } = queriesOf(db).corrected.get()!;
  const bands = bandsSet(db, round.id)?.id ?? 0;
  return [round.releasedAt ?? 0, round.signedOffAt ?? 0, corrected, bands, ...newest].join(' ');
}

export function liveView(services: HasClock & HasDb & HasTime, invitation: number): LiveView {
  const { clock, db, time } = services;
  const now = clock.now();
  const { invited, arrival, stage } = arrivalStateOf(services, invitation);
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
    place:
      waits && arrival?.waitingAt != null ? placeOf(services, arrival.waitingAt, invited.round.id) : null,
    triesLeft: Math.max(0, DOOR_TRIES - (arrival?.doorTries ?? 0)),
    hold: running ? (sittingQueries(db).holdsOf(running.id).at(-1)?.number ?? null) : null,
    plays: running
      ? new Plays(db).countsOf(running.id, paperOfVersion(db, invited.round.paperVersionId))
      : {},
    pages: running ? livePages(services, running.id, invited.round.settings.joinedPhones) : null,
    marked: markedOf(services, invited, stage),
  };
}

/** A candidate says something; a raised hand stands until it is answered. */
function say(
  services: HasClock & HasDb & HasHub,
  invitation: number,
  { text, hand }: { text: string; hand: boolean },
): void {
  const { db, clock, hub } = services;
  const round = arrivalStateOf(services, invitation).invited.round.id;
  db.insert(messages)
    .values({ roundId: round, invitationId: invitation, staffId: null, at: clock.now(), text, hand })
    .run();
  hub.tellOf(invitation, round);
}

/** Streams of one candidate at a time: a device or two, with some tabs. */
const MOST_LINES = 4;
/** More than anybody in trouble writes. */
const SAID_A_MINUTE = 12;

export function liveEndpoints(services: Needs): Endpoint[] {
  const { hub, clock, time, db } = services;
  /** A rest break is ended early; it begins with the journal, which says how far the device had written. */
  const endBreak = (invitation: number) => {
    const { invited } = arrivalStateOf(services, invitation);
    const found = sittingQueries(db).newestOf(invitation);
    if (found) time.record(found.sitting.id, { type: 'break ended', at: clock.now() });
    hub.tellOf(invitation, invited.round.id);
    return liveView(services, invitation);
  };
  const lines = new Map<number, number>();
  const countSaid = perMinute(SAID_A_MINUTE, 'tooManyMessages');
  return [
    forCandidates({ method: 'get', path: '/live' }, (who) => {
      hub.noteContact(who.invitation, clock.now());
      return liveView(services, who.invitation);
    }),
    forCandidates({ method: 'get', path: '/live/stream' }, ({ invitation }, { request, response }) => {
      const open = lines.get(invitation) ?? 0;
      // Who gets none asks again and again, as one whose line was cut.
      if (open >= MOST_LINES) throw new ApiError(429, 'too-many-tries', { key: 'tooManyLines' });
      lines.set(invitation, open + 1);
      const line = openLine({ request, response, of: 'candidate' }, services);
      line.whenOver(() => {
        const left = lines.get(invitation)! - 1;
        if (left > 0) lines.set(invitation, left);
        else lines.delete(invitation);
      });
      streamView(services, line, `invitation ${invitation}`, () => liveView(services, invitation));
    }),
    forCandidates({ method: 'post', path: '/live/say', body: sayBody }, async (who, { body }) => {
      await countSaid(String(who.invitation));
      say(services, who.invitation, body);
      return liveView(services, who.invitation);
    }),
    forCandidates({ method: 'post', path: '/live/break-over', body: Joi.object({}) }, (who) =>
      endBreak(who.invitation),
    ),
  ];
}
