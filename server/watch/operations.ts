import { and, desc, eq, isNull } from 'drizzle-orm';
import { MINUTE_MS } from '../../core/timing/deadline';
import { deadlineAt, leftMs, stopAt, usedMs } from '../../core/timing/sittingTime';
import {
  OUT_OF_REACH_MS,
  urgencyOf,
  type WatchAct,
  type WatchRow,
  type WatchState,
  type WatchView,
} from '../../core/watch/api';
import { whereIs } from '../arrival/operations';
import { DOOR_CODE_SHOWN_MS, doorCodeOf } from '../arrival/doorCode';
import { noteArrival } from '../arrival/queries';
import { actsOnRecord, messages, sittings } from '../db/schema';
import { badRequest, conflict, notFound } from '../http/errors';
import { record } from '../rounds/record';
import { findRound, invitedOf, listRounds } from '../rounds/queries';
import type { Services } from '../services';
import { sittingQueries, type FoundSitting } from '../sittings/queries';
import { marksDoneOf } from './marksDone';

const runningState = (services: Services, found: FoundSitting, heardAt: number | null): WatchState => {
  const now = services.clock.now();
  if (stopAt(services.time.of(found.sitting.id), now)) return 'stopped';
  return heardAt === null || now - heardAt > OUT_OF_REACH_MS ? 'out of reach' : 'writing';
};

function timeOf(services: Services, found: FoundSitting | null) {
  if (!found) return { startedAt: null, deadlineAt: null, timeGone: 0, stopped: null };
  const now = services.clock.now();
  const time = services.time.of(found.sitting.id);
  const used = usedMs(time, now);
  return {
    startedAt: time.startedAt,
    deadlineAt: deadlineAt(time, now),
    timeGone: used / Math.max(1, used + leftMs(time, now)),
    stopped: stopAt(time, now)?.why ?? null,
  };
}

function rowOf(
  services: Services,
  { invitation, candidate }: ReturnType<typeof invitedOf>[number],
): WatchRow {
  const { db, hub } = services;
  const { stage, arrival } = whereIs(services, invitation.id);
  const found = sittingQueries(db).newestOf(invitation.id);
  const heardAt = hub.heardAt(invitation.id);
  const hand = db
    .select()
    .from(messages)
    .where(
      and(eq(messages.invitationId, invitation.id), eq(messages.hand, true), isNull(messages.answeredAt)),
    )
    .orderBy(desc(messages.id))
    .limit(1)
    .get();
  const noted = db
    .select({ reason: actsOnRecord.reason })
    .from(actsOnRecord)
    .where(and(eq(actsOnRecord.invitationId, invitation.id), eq(actsOnRecord.act, 'note')))
    .orderBy(desc(actsOnRecord.id))
    .limit(1)
    .get();
  const weak = (arrival?.checks ?? [])
    .filter((c) => c.outcome !== 'good')
    .map((c) => `${c.name}: ${c.outcome}`);
  const { breakMinutes } = invitation.arrangements;
  const state: WatchState =
    stage.at === 'running'
      ? runningState(services, found!, heardAt)
      : stage.at === 'arriving'
        ? stage.step === 'waiting'
          ? 'waiting'
          : arrival
            ? 'arriving'
            : 'not here'
        : found
          ? 'handed in'
          : 'not here';
  return {
    invitation: invitation.id,
    name: candidate.name,
    reference: candidate.reference,
    arrangements: [
      ...(invitation.extraPercent > 0 ? [`extra time ${invitation.extraPercent} %`] : []),
      ...(breakMinutes > 0 ? [`rest breaks ${breakMinutes} min`] : []),
    ],
    state,
    ...timeOf(services, found),
    marksDone: found ? marksDoneOf(services, found) : 0,
    heardAt,
    hand: hand ? { at: hand.at, text: hand.text } : null,
    notes: [
      ...(arrival?.correction && arrival.correctionSettledAt === null
        ? [`details: “${arrival.correction}”`]
        : []),
      ...weak,
      ...(noted ? [noted.reason] : []),
    ],
    picture: arrival?.pictureFile != null,
  };
}

/** A round as those see it who watch over it: who needs someone comes first. */
export function watchView(services: Services, roundId: number): WatchView {
  const { db, clock, secret } = services;
  const round = findRound(db, roundId);
  if (!round) throw notFound('This round');
  const now = clock.now();
  const { title, opensAt, closesAt, timeZone, settings } = round;
  const rows = invitedOf(db, roundId).map((invited) => rowOf(services, invited));
  const codeShown = settings.startRule === 'door code' && now >= opensAt - DOOR_CODE_SHOWN_MS;
  return {
    ...{ round: roundId, title, now, opensAt, closesAt, timeZone, startRule: settings.startRule },
    doorCode: codeShown ? doorCodeOf(secret, roundId) : null,
    rows: rows.sort((a, b) => urgencyOf(a) - urgencyOf(b) || a.name.localeCompare(b.name)),
  };
}

export const watchRounds = ({ db, clock }: Services) =>
  listRounds(db, clock.now()).map(({ id, title, opensAt, closesAt, timeZone, window }) => ({
    ...{ id, title, opensAt, closesAt, timeZone },
    open: window === 'open',
  }));

export interface Act {
  readonly act: WatchAct;
  readonly invitation: number;
  /** The reason on record; for a message and an answer, what is said. */
  readonly text: string;
  readonly minutes: number;
}

type Doing = (services: Services, staffId: number, act: Act, found: FoundSitting | null) => void;

const needSitting = (found: FoundSitting | null): FoundSitting => {
  if (!found) throw conflict('not-started', 'This candidate has not started yet.');
  return found;
};

const tellCandidate: Doing = ({ db, clock }, staffId, { invitation, text }) => {
  const roundId = db.query.invitations.findFirst({ where: (t, { eq: is }) => is(t.id, invitation) }).sync()!
    .roundId;
  db.insert(messages)
    .values({ roundId, invitationId: invitation, staffId, at: clock.now(), text, hand: false })
    .run();
};

const DOINGS: Record<WatchAct, Doing> = {
  admit(services, staffId, { invitation }) {
    const { stage, attempt } = whereIs(services, invitation);
    if (stage.at !== 'arriving' || stage.step !== 'waiting')
      throw conflict('not-waiting', 'This candidate does not wait at the door now.');
    noteArrival(services.db, invitation, attempt, { admittedAt: services.clock.now(), admittedBy: staffId });
  },
  message: tellCandidate,
  'answer hand'(services, staffId, act, found) {
    const raised = and(eq(messages.invitationId, act.invitation), isNull(messages.answeredAt));
    services.db.update(messages).set({ answeredAt: services.clock.now() }).where(raised).run();
    tellCandidate(services, staffId, act, found);
  },
  grant({ time, clock }, staffId, { minutes, text }, found) {
    if (minutes <= 0) throw badRequest('Say how many minutes are granted.');
    const event = { type: 'granted', at: clock.now(), ms: minutes * MINUTE_MS } as const;
    time.record(needSitting(found).sitting.id, event, { staffId, reason: text });
  },
  pause({ time, clock }, staffId, { text }, found) {
    time.record(
      needSitting(found).sitting.id,
      { type: 'paused', at: clock.now() },
      { staffId, reason: text },
    );
  },
  'go on'({ time, clock }, staffId, { text }, found) {
    time.record(
      needSitting(found).sitting.id,
      { type: 'went on', at: clock.now() },
      { staffId, reason: text },
    );
  },
  readmit(services, staffId, { minutes, text }, found) {
    const { sitting, roundId } = needSitting(found);
    if (findRound(services.db, roundId)!.signedOffAt !== null)
      throw conflict('signed-off', 'The marks of this round are signed off; nobody can be let in again.');
    const event = { type: 'readmitted', at: services.clock.now(), ms: minutes * MINUTE_MS } as const;
    services.time.record(sitting.id, event, { staffId, reason: text });
    // The next hand-in has a time and a receipt of its own.
    services.db
      .update(sittings)
      .set({ handedInAt: null, receivedAt: null, receiptHash: null })
      .where(eq(sittings.id, sitting.id))
      .run();
  },
  note: () => undefined,
};

/** Does one act of an invigilator; whatever it is, it is on record with its reason, and reaches the candidate at once. */
export function doAct(services: Services, staffId: number, roundId: number, act: Act): void {
  const invited = invitedOf(services.db, roundId).find((row) => row.invitation.id === act.invitation);
  if (!invited) throw notFound('This candidate');
  const found = sittingQueries(services.db).newestOf(act.invitation);
  services.db.transaction(() => {
    DOINGS[act.act](services, staffId, act, found);
    const subject = act.minutes > 0 ? `${act.minutes} min` : `round ${roundId}`;
    record(services, { staffId, act: act.act, subject, invitationId: act.invitation, reason: act.text });
  });
  services.hub.tellOf(act.invitation, roundId);
}

/** Says something to everybody in a round. */
export function tellAll(services: Services, staffId: number, roundId: number, text: string): void {
  const { db, clock, hub } = services;
  if (!findRound(db, roundId)) throw notFound('This round');
  db.insert(messages)
    .values({ roundId, invitationId: null, staffId, at: clock.now(), text, hand: false })
    .run();
  record(services, { staffId, act: 'told all', subject: `round ${roundId}`, reason: text });
  for (const { invitation } of invitedOf(db, roundId)) hub.tell(`invitation ${invitation.id}`);
  hub.tell(`round ${roundId}`);
}
