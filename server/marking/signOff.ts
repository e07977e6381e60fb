import { and, eq, isNull } from 'drizzle-orm';
import { message, type Message } from '../../core/messages/message';
import { record } from '../audit/record';
import { rounds } from '../db/schema';
import { tellCandidates } from '../candidates/tellCandidates';
import { conflict, notFound } from '../http/errors';
import { changeMarking, itemOf, markingOf, type ItemRef } from './items';
import { signOffStates } from './reads';
import type { HasDb } from '../db/open';
import type { HasJobs } from '../jobs/jobQueue';
import type { HasHub } from '../events/hub';
import type { HasClock } from '../machine/clock';

/** What is needed here of the server. */
interface Needs extends HasClock, HasDb, HasHub, HasJobs {}

const reasonsOf = (open: Readonly<Record<string, number>>): Message[] =>
  Object.entries(open).flatMap(([key, count]) => (count > 0 ? [message(`error.${key}`, { count })] : []));

/** What stands in the way of the sign-off of a round, or of one of its items. */
export function openOf(services: HasDb & HasJobs, round: number, target?: string): Message[] {
  const state = signOffStates(services, [round])[0];
  if (!state) throw notFound('noRound');
  const piles = state.piles.filter((pile) => target === undefined || pile.target === target);
  const sum = (of: (pile: (typeof piles)[number]) => number) =>
    piles.reduce((all, pile) => all + of(pile), 0);
  return reasonsOf({
    openRunning: state.running,
    openDecisions: state.toDecide,
    openScoring: state.beingScored,
    openMarking: sum((pile) => pile.left),
    openGaps: sum((pile) => pile.gaps),
    openAsides: sum((pile) => pile.asides),
    openNothing: state.handedIn === 0 ? 1 : 0,
    // An answer that was accepted holds for all scripts: their marks are not frozen before it is so.
    openRescore: services.jobs.pending('rescore'),
    // Of one question nobody is told a band.
    openBands: target === undefined && state.bandsOpen ? 1 : 0,
  });
}

/** The newest judgement of an item. */
export const newestIn = (services: HasDb, { round, target }: ItemRef): number =>
  signOffStates(services, [round])[0]?.piles.find((pile) => pile.target === target)?.newest ?? 0;

/** Refuses a sign-off that did not see the newest mark; without a look at it there is nothing to compare. */
function refuseUnseen(newest: number, seen: number | undefined): void {
  if (seen !== undefined && seen !== newest) throw conflict('marks-changed');
}

/**
 * Freezes the marks of a round. Refused while anything is running, being scored or unmarked, and where a mark was given
 * after `seen`, the newest judgement that was looked at.
 */
export function signOff(services: Needs, staffId: number, roundId: number, seen?: number): void {
  const { db, clock } = services;
  const reasons = openOf(services, roundId);
  if (reasons.length > 0) throw conflict('not-finished', { reasons });
  refuseUnseen(signOffStates(services, [roundId])[0]!.newest, seen);
  db.transaction(() => {
    const change = db
      .update(rounds)
      .set({ signedOffAt: clock.now(), signedOffBy: staffId })
      .where(and(eq(rounds.id, roundId), isNull(rounds.signedOffAt)))
      .run();
    if (change.changes > 0) record(services, { staffId, act: 'signed-off', subject: `round ${roundId}` });
  });
  tellCandidates(services, roundId);
}

/** Freezes the marks of one item, as the whole round's are. */
export function signOffItem(
  services: HasClock & HasDb & HasJobs,
  staffId: number,
  ref: ItemRef,
  seen?: number,
): void {
  const { db, clock } = services;
  const { judged } = itemOf(db, ref);
  const reasons = openOf(services, ref.round, ref.target);
  if (reasons.length > 0) throw conflict('not-finished', { reasons });
  if (markingOf(db, ref, judged).signedOffAt !== null) return;
  refuseUnseen(newestIn(services, ref), seen);
  db.transaction(() => {
    changeMarking(db, ref, { marks: judged, signedOffAt: clock.now(), signedOffBy: staffId });
    record(services, { staffId, act: 'signed-off-item', subject: `round ${ref.round}, ${ref.target}` });
  });
}
