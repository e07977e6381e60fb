import { arrivalPictures } from '../../core/files/purpose';
import { weakChecks } from '../../core/arrival/checks';
import { message, type Message } from '../../core/messages/message';
import { and, countDistinct, desc, eq, isNull, sql } from 'drizzle-orm';
import { MINUTE_MS } from '../../core/timing/deadline';
import { deadlineAt, leftMs, stopAt, usedMs } from '../../core/timing/sittingTime';
import type {
  UsedPlays,
  WatchAct,
  WatchChange,
  WatchRoundRow,
  WatchRow,
  WatchState,
  WatchView,
} from '../../core/watch/api';
import { arrivalStateOf, type ArrivalState } from '../candidates/state';
import { DOOR_CODE_SHOWN_MS, doorCodeOf } from '../arrival/doorCode';
import { findInvited, noteArrival } from '../candidates/queries';
import { perDatabase } from '../db/perDatabase';
import { audit, invitations, messages, sittings } from '../db/schema';
import { badRequest, conflict, notFound } from '../http/errors';
import { tellWaiting } from '../live/routes';
import { record } from '../audit/record';
import { findRound, listRounds } from '../schedule/queries';
import { paperOfVersion } from '../papers/papers';
import { countedOf, Plays } from '../sittings/plays';
import { sittingQueries, type FoundSitting } from '../sittings/queries';
import { marksDoneOf } from './marksDone';
import type { HasDb } from '../db/open';
import type { HasSecret } from '../db/serverSecret';
import type { HasFiles } from '../files/files';
import type { HasHub } from '../events/hub';
import type { HasClock } from '../machine/clock';
import type { HasScheduler } from '../machine/loopScheduler';
import type { HasTime } from '../sittings/timeKeeper';

/** What is needed here of the server. */
interface Needs extends HasClock, HasDb, HasTime, HasHub, HasScheduler, HasFiles, HasSecret {}

const NO_TIME = { startedAt: null, deadlineAt: null, usedMs: 0, leftMs: 0, stopped: null };

function timeOf({ time }: HasTime, found: FoundSitting | null, now: number) {
  if (!found) return NO_TIME;
  const state = time.of(found.sitting.id);
  return {
    startedAt: state.startedAt,
    deadlineAt: deadlineAt(state, now),
    usedMs: usedMs(state, now),
    leftMs: leftMs(state, now),
    stopped: stopAt(state, now)?.why ?? null,
  };
}

function stateOf({ stage, arrival }: ArrivalState, found: FoundSitting | null, stopped: unknown): WatchState {
  if (stage.at === 'running') return stopped ? 'stopped' : 'writing';
  if (stage.at !== 'arriving') return found ? 'handed in' : 'not here';
  if (stage.step === 'waiting') return 'waiting';
  return arrival ? 'arriving' : 'not here';
}

const queriesOf = perDatabase((db) => {
  const invitation = sql.placeholder('invitation');
  return {
    hand: db
      .select({ at: messages.at, text: messages.text })
      .from(messages)
      .where(and(eq(messages.invitationId, invitation), eq(messages.hand, true), isNull(messages.answeredAt)))
      .orderBy(desc(messages.id))
      .limit(1)
      .prepare(),
    hands: db
      .select({
        round: messages.roundId,
        hands: countDistinct(messages.invitationId),
        handSince: sql<number>`min(${messages.at})`,
      })
      .from(messages)
      .where(and(eq(messages.hand, true), isNull(messages.answeredAt)))
      .groupBy(messages.roundId)
      .prepare(),
    noted: db
      .select({ reason: audit.reason })
      .from(audit)
      .where(and(eq(audit.invitationId, invitation), eq(audit.act, 'note')))
      .orderBy(desc(audit.id))
      .limit(1)
      .prepare(),
    invitations: db
      .select({ id: invitations.id })
      .from(invitations)
      .where(eq(invitations.roundId, sql.placeholder('round')))
      .prepare(),
  };
});

export const invitationsOf = ({ db }: HasDb, round: number): number[] =>
  queriesOf(db)
    .invitations.all({ round })
    .map((row) => row.id);

function notesOf({ db }: HasDb, { arrival, invited }: ArrivalState): Message[] {
  const noted = queriesOf(db).noted.get({ invitation: invited.invitation.id });
  return [
    ...(arrival?.correction && arrival.correctionSettledAt === null
      ? [message('note.details', { text: arrival.correction })]
      : []),
    ...weakChecks(arrival?.checks ?? [], invited.invitation.arrangements.aids),
    ...(noted ? [message('author.text', { text: noted.reason })] : []),
  ];
}

const isClean = ({ arrival, invited }: ArrivalState): boolean =>
  weakChecks(arrival?.checks ?? [], invited.invitation.arrangements.aids).length === 0 &&
  (!arrival?.correction || arrival.correctionSettledAt !== null);

export function watchRow(services: Needs, invitation: number): WatchRow {
  const { db, hub, clock } = services;
  const here = arrivalStateOf(services, invitation);
  const { name, reference } = here.invited.person;
  const { extraPercent, arrangements } = here.invited.invitation;
  const found = sittingQueries(db).newestOf(invitation);
  const now = clock.now();
  const time = timeOf(services, found, now);
  return {
    invitation,
    name,
    reference,
    at: now,
    arrangements: [
      ...(extraPercent > 0 ? [message('note.extraTime', { percent: extraPercent })] : []),
      ...(arrangements.breakMinutes > 0
        ? [message('note.breaks', { minutes: arrangements.breakMinutes })]
        : []),
      ...(arrangements.transcripts ? [message('note.transcripts')] : []),
      ...arrangements.aids.map((name) => message(`aid.${name}`)),
    ],
    state: stateOf(here, found, time.stopped),
    ...time,
    marksDone: found ? marksDoneOf(services, found) : 0,
    heardAt: hub.heardAt(invitation),
    hand: queriesOf(db).hand.get({ invitation }) ?? null,
    clean: isClean(here),
    notes: notesOf(services, here),
    pictures: arrivalPictures.filter((of) => services.files.has(invitation, of, here.attempt)),
    plays: found ? playsOf(services, found) : [],
  };
}

function playsOf({ db }: HasDb, { sitting, paperVersionId }: FoundSitting): UsedPlays[] {
  const paper = paperOfVersion(db, paperVersionId);
  const counts = new Plays(db).countsOf(sitting.id, paper);
  return [...countedOf(paper)].flatMap(([file, { title }]) =>
    counts[file]!.granted > 0 ? [{ file, title, ...counts[file]! }] : [],
  );
}

/** Rows of candidates, a few at a time: thousands of them must not hold up those who write. */
export const watchRows = (services: Needs, of: readonly number[]): Promise<WatchRow[]> =>
  Promise.all(of.map((invitation) => services.scheduler.inBetween(() => watchRow(services, invitation))));

function roundOf({ db }: HasDb, roundId: number) {
  const round = findRound(db, roundId);
  if (!round) throw notFound('noRound');
  return round;
}

/** What changes in a room without anybody's doing: the time, and whether the door code is shown. */
export function momentOf(
  services: HasClock & HasDb & HasSecret,
  roundId: number,
): Pick<WatchView, 'now' | 'doorCode'> {
  const { opensAt, settings } = roundOf(services, roundId);
  const now = services.clock.now();
  const shown = settings.startRule === 'door code' && now >= opensAt - DOOR_CODE_SHOWN_MS;
  return { now, doorCode: shown ? doorCodeOf(services.secret, roundId) : null };
}

/** A round as those see it who watch over it. */
export async function watchView(services: Needs, roundId: number): Promise<WatchView> {
  const { title, opensAt, closesAt, timeZone, settings } = roundOf(services, roundId);
  const rows = await watchRows(services, invitationsOf(services, roundId));
  return {
    round: roundId,
    title,
    opensAt,
    closesAt,
    timeZone,
    startRule: settings.startRule,
    ...momentOf(services, roundId),
    rows,
  };
}

export const watchRounds = ({ db, clock }: HasClock & HasDb, staffId: number): WatchRoundRow[] => {
  const hands = new Map(
    queriesOf(db)
      .hands.all()
      .map(({ round, ...of }) => [round, of]),
  );
  return listRounds(db, clock.now(), { staffId, roles: ['invigilator', 'coordinator'] }).map(
    ({ id, title, opensAt, closesAt, timeZone, window }) => ({
      id,
      title,
      opensAt,
      closesAt,
      timeZone,
      window,
      ...(hands.get(id) ?? { hands: 0, handSince: null }),
    }),
  );
};

/** Signs that a reason has at least, as for every other act. */
const LEAST_REASON = 2;

export interface WatchRequest {
  readonly act: WatchAct;
  readonly invitation: number;
  /** The reason on record; for a message and an answer, what is said. Empty where somebody clean is admitted. */
  readonly text: string;
  readonly minutes: number;
  /** The recording of which a play is given back. */
  readonly file?: string;
}

type Action = (services: Needs, staffId: number, act: WatchRequest, found: FoundSitting | null) => void;

const needSitting = (found: FoundSitting | null): FoundSitting => {
  if (!found) throw conflict('not-started');
  return found;
};

const tellCandidate: Action = ({ db, clock }, staffId, { invitation, text }) => {
  const roundId = db.query.invitations
    .findFirst({ where: (t, { eq: is }) => is(t.id, invitation) })
    .sync()!.roundId;
  db.insert(messages)
    .values({ roundId, invitationId: invitation, staffId, at: clock.now(), text, hand: false })
    .run();
};

const ACTIONS: Record<WatchAct, Action> = {
  admit(services, staffId, { invitation, text }) {
    const here = arrivalStateOf(services, invitation);
    const { stage, attempt, invited } = here;
    if (stage.at !== 'arriving' || stage.step !== 'waiting') throw conflict('not-waiting');
    if (text.length < LEAST_REASON && !isClean(here)) throw conflict('needs-reason');
    noteArrival(services.db, invitation, attempt, { admittedAt: services.clock.now(), admittedBy: staffId });
    tellWaiting(services, invited.round.id);
  },
  message: tellCandidate,
  'answer hand'(services, staffId, act, found) {
    const raised = and(eq(messages.invitationId, act.invitation), isNull(messages.answeredAt));
    services.db.update(messages).set({ answeredAt: services.clock.now() }).where(raised).run();
    tellCandidate(services, staffId, act, found);
  },
  grant({ time, clock }, staffId, { minutes, text }, found) {
    if (minutes <= 0) throw badRequest('noMinutes');
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
      throw conflict('signed-off', { key: 'signedOffReadmit' });
    const event = { type: 'readmitted', at: services.clock.now(), ms: minutes * MINUTE_MS } as const;
    services.time.record(sitting.id, event, { staffId, reason: text });
    // The next hand-in is settled, scored and receipted again.
    services.db
      .update(sittings)
      .set({ claimedHandInAt: null, settledAt: null, scoredAt: null })
      .where(eq(sittings.id, sitting.id))
      .run();
  },
  'give play back'({ db, clock }, _, { file = '' }, found) {
    const { sitting, paperVersionId } = needSitting(found);
    if (!countedOf(paperOfVersion(db, paperVersionId)).has(file)) throw notFound('noRecording');
    new Plays(db).giveBack(sitting.id, file, clock.now());
  },
  note: () => undefined,
};

/** Does one act of an invigilator; whatever it is, it is on record with its reason, and reaches the candidate at once. */
export function doAct(services: Needs, staffId: number, roundId: number, act: WatchRequest): WatchChange {
  const { db, hub, time } = services;
  const { invitation } = act;
  if (findInvited(db, invitation)?.round.id !== roundId) throw notFound('noCandidate');
  const found = sittingQueries(db).newestOf(invitation);
  try {
    db.transaction(() => {
      ACTIONS[act.act](services, staffId, act, found);
      const subject = act.minutes > 0 ? `${act.minutes} min` : `round ${roundId}`;
      record(services, { staffId, act: act.act, subject, invitationId: invitation, reason: act.text });
    });
  } catch (error) {
    // What is remembered of the time may be of an event that was taken back.
    time.forget();
    throw error;
  }
  hub.tellOf(invitation, roundId);
  return { ...momentOf(services, roundId), rows: [watchRow(services, invitation)], heard: [] };
}

/** Says something to everybody in a round. */
export function tellAll(
  services: HasClock & HasDb & HasHub,
  staffId: number,
  roundId: number,
  text: string,
): void {
  const { db, clock, hub } = services;
  roundOf(services, roundId);
  db.transaction(() => {
    db.insert(messages)
      .values({ roundId, invitationId: null, staffId, at: clock.now(), text, hand: false })
      .run();
    record(services, { staffId, act: 'messaged-everyone', subject: `round ${roundId}`, reason: text });
  });
  for (const invitation of invitationsOf(services, roundId)) hub.tell(`invitation ${invitation}`);
}
