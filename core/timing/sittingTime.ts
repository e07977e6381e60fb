import type { ClosedBy, TimeView } from '../sittings/api';
import { allowedMs, GRACE_MS, LEAST_GRACE_MS } from './deadline';

/** What happened to the time of one sitting. `at` is the server's, in milliseconds since 1970. */
export type TimeEvent =
  | { readonly type: 'started'; readonly at: number }
  | { readonly type: 'paused'; readonly at: number }
  | { readonly type: 'went on'; readonly at: number }
  | { readonly type: 'break began'; readonly at: number }
  | { readonly type: 'break ended'; readonly at: number }
  | { readonly type: 'granted'; readonly at: number; readonly ms: number }
  | { readonly type: 'section entered'; readonly at: number; readonly section: string }
  | { readonly type: 'closed'; readonly at: number; readonly by: ClosedBy }
  /** Readmitted after closing: the time in between does not count, and `ms` are given on top. */
  | { readonly type: 'readmitted'; readonly at: number; readonly ms: number }
  /** A request named a server time (`heard`) after a start, an entering or the end of a stop. */
  | { readonly type: 'confirmed'; readonly at: number; readonly heard: number };

/** What was arranged before the start. */
export interface TimeTerms {
  readonly limitMs: number;
  /** Extra time by arrangement: 25 is a quarter more. It lengthens limits of sections alike. */
  readonly extraPercent: number;
  /** Rest breaks by arrangement, all together; 0 for none. */
  readonly breakMs: number;
  /** Sections with a limit of their own, from when they are first opened. */
  readonly sectionLimitsMs: Readonly<Record<string, number>>;
}

/** A time in which the clock stands still: a pause, a rest break, or the time between a closing and a readmission. */
interface Stop {
  readonly from: number;
  /** Open until it is ended; a break ends by itself when the allowance is used up. */
  readonly until: number | null;
  readonly why: 'pause' | 'break' | 'closed';
}

/** What a device may not have heard of yet: while it has not confirmed it, time is lost to the candidate. */
interface Unconfirmed {
  /** When it was recorded. */
  readonly at: number;
  /** From when the time until the confirmation is given back. */
  readonly from: number;
}

/** Time on top of the limit: granted by staff, or (with `backFrom`, since when it was lost) given back. */
interface Grant {
  readonly at: number;
  readonly ms: number;
  readonly backFrom?: number;
}

export interface SittingTime {
  readonly terms: TimeTerms;
  readonly startedAt: number | null;
  readonly grants: readonly Grant[];
  readonly unconfirmed: readonly Unconfirmed[];
  /** What was given back in all, in ms; never more than one grace. */
  readonly givenBackMs: number;
  readonly stops: readonly Stop[];
  readonly entered: Readonly<Record<string, number>>;
  readonly closed: { readonly at: number; readonly by: ClosedBy } | null;
}

export const newTime = (terms: TimeTerms): SittingTime => ({
  terms,
  startedAt: null,
  grants: [],
  unconfirmed: [],
  givenBackMs: 0,
  stops: [],
  entered: {},
  closed: null,
});

const sum = (values: readonly number[]) => values.reduce((a, b) => a + b, 0);

/** The stops with their ends as of `now`: what is open reaches to now, a break never beyond its allowance. */
function stopsBy(time: SittingTime, now: number): Required<Stop & { until: number }>[] {
  let breakLeft = time.terms.breakMs;
  return time.stops.map((stop) => {
    const open = Math.max(Math.min(stop.until ?? now, now), stop.from);
    const until = stop.why === 'break' ? Math.min(open, stop.from + breakLeft) : open;
    if (stop.why === 'break') breakLeft -= until - stop.from;
    return { ...stop, until };
  });
}

/** Time during which the clock ran, from `from` (a time while the sitting was open) to `now`. */
function runMs(time: SittingTime, from: number, now: number): number {
  const end = Math.min(now, time.closed?.at ?? now);
  // The stop of a readmission can begin before others: a sitting that was closed late ended when its time ran out.
  let [stoppedMs, counted] = [0, from];
  for (const stop of stopsBy(time, end).toSorted((a, b) => a.from - b.from)) {
    const begin = Math.max(stop.from, counted);
    const until = Math.min(stop.until, end);
    if (until <= begin) continue;
    stoppedMs += until - begin;
    counted = until;
  }
  return Math.max(0, end - from) - stoppedMs;
}

const totalMs = ({ terms, grants }: SittingTime) =>
  allowedMs(terms.limitMs, terms.extraPercent) + sum(grants.map((g) => g.ms));

/** Time left on the paper's clock; all of it before the start, negative never. */
export const leftMs = (time: SittingTime, now: number): number =>
  time.startedAt === null ? totalMs(time) : Math.max(0, totalMs(time) - runMs(time, time.startedAt, now));

/**
 * What would be given back, in ms, if the device confirmed at `now` all that it may not have heard of yet; together at
 * most one grace a sitting.
 */
function toGiveBackMs(time: SittingTime, now: number): number {
  if (time.unconfirmed.length === 0 || time.closed) return 0;
  const from = Math.min(...time.unconfirmed.map((u) => u.from));
  return Math.min(runMs(time, from, now), GRACE_MS - time.givenBackMs);
}

/** Is the paper's time over for good? Not while a device that has not heard of a start could still be given some back. */
export const isOver = (time: SittingTime, now: number): boolean =>
  time.startedAt !== null && totalMs(time) + toGiveBackMs(time, now) - runMs(time, time.startedAt, now) <= 0;

/** Time used so far: while the clock ran. */
export const usedMs = (time: SittingTime, now: number): number =>
  time.startedAt === null ? 0 : runMs(time, time.startedAt, now);

/** What of the arranged breaks is left. */
export const breakLeftMs = (time: SittingTime, now: number): number =>
  time.terms.breakMs - sum(stopsBy(time, now).map((s) => (s.why === 'break' ? s.until - s.from : 0)));

/** Why the clock stands still at `now`, since when, and (for a break) when it goes on by itself; null while it runs. */
export function stopAt(
  time: SittingTime,
  now: number,
): { readonly why: 'pause' | 'break'; readonly since: number; readonly until: number | null } | null {
  const last = time.stops.at(-1);
  if (!last || last.until !== null || last.why === 'closed' || time.closed) return null;
  if (last.why === 'pause') return { why: 'pause', since: last.from, until: null };
  const until = last.from + breakLeftMs(time, last.from);
  return now < until ? { why: 'break', since: last.from, until } : null;
}

/**
 * When the paper's time runs out, as things stand at `now`: `start + limit × (1 + extra) + granted + stopped`. A pause
 * has no end yet: null. A running break is taken to be used up.
 */
export function deadlineAt(time: SittingTime, now: number): number | null {
  if (time.startedAt === null) return null;
  const stop = stopAt(time, now);
  if (stop?.why === 'pause') return null;
  const goesOn = stop?.until ?? Math.min(now, time.closed?.at ?? now);
  return goesOn + totalMs(time) - runMs(time, time.startedAt, now);
}

/** Time left of a section's own limit, whatever the paper's; null where it has none or was not entered yet. */
function ownLeftMs(time: SittingTime, section: string, now: number): number | null {
  const limit = time.terms.sectionLimitsMs[section];
  const from = time.entered[section];
  if (limit === undefined || from === undefined) return null;
  // Minutes granted while the section runs lengthen it too; one that has ended stays closed. Time that is given back had
  // not run for the candidate.
  const total = time.grants.reduce(
    (all, { at, ms, backFrom }) => {
      const lost = backFrom === undefined ? 0 : Math.min(ms, runMs(time, Math.max(from, backFrom), at));
      return at >= from && runMs(time, from, at) - lost < all ? all + ms : all;
    },
    allowedMs(limit, time.terms.extraPercent),
  );
  return Math.max(0, total - runMs(time, from, now));
}

/** Time left in a section with a limit of its own, inside the paper's; null where it has none or was not entered yet. */
export function sectionLeftMs(time: SittingTime, section: string, now: number): number | null {
  const own = ownLeftMs(time, section, now);
  return own === null ? null : Math.min(own, leftMs(time, now));
}

/** The first moment from `after` to `before` at which `over` holds; it holds at `before`, and ever after it began to. */
function firstMoment(after: number, before: number, over: (at: number) => boolean): number {
  if (over(after)) return after;
  let [low, high] = [after, before];
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (over(middle)) high = middle;
    else low = middle;
  }
  return high;
}

/** When the time of the paper ran out before `now`; null while some is left. */
export function ranOutAt(time: SittingTime, now: number): number | null {
  if (time.startedAt === null || leftMs(time, now) > 0) return null;
  return firstMoment(time.startedAt, Math.min(now, time.closed?.at ?? now), (at) => leftMs(time, at) <= 0);
}

/** When the sitting ended, as things stand at `now`: it was closed, or its time ran out. Null while it goes on. */
export const paperEndAt = (time: SittingTime, now: number): number | null =>
  time.closed?.at ?? ranOutAt(time, now);

/** When a section's own limit ran out before `now`; null where it has none, was not entered or goes on. */
export function sectionEndAt(time: SittingTime, section: string, now: number): number | null {
  const until = Math.min(now, time.closed?.at ?? now);
  if (ownLeftMs(time, section, until) !== 0) return null;
  return firstMoment(time.entered[section]!, until, (at) => ownLeftMs(time, section, at) === 0);
}

/** A stop with its end as of some moment, and who began it: the two are judged differently. */
export interface KnownStop {
  readonly from: number;
  readonly until: number;
  readonly by: 'staff' | 'candidate';
}

/** All stops up to `now`. The time between a closing and a readmission counts as a stop started by staff. */
export const stopsOf = (time: SittingTime, now: number): KnownStop[] =>
  stopsBy(time, now).map(({ from, until, why }) => ({
    from,
    until,
    by: why === 'break' ? 'candidate' : 'staff',
  }));

/** How long after an end heads still count: shorter by what was given back, and never below half a minute. */
export const graceMsOf = ({ givenBackMs }: SittingTime): number =>
  Math.max(LEAST_GRACE_MS, GRACE_MS - givenBackMs);

export type Refusal =
  | 'not started'
  | 'already started'
  | 'already closed'
  | 'time is over'
  | 'not closed'
  | 'stopped'
  | 'not stopped'
  | 'no break left'
  | 'nothing to confirm';

/** Why an event cannot happen now; null when it can. */
function refusalOf(time: SittingTime, event: TimeEvent): Refusal | null {
  const { at, type } = event;
  if (type === 'started') return time.startedAt === null ? null : 'already started';
  if (time.startedAt === null) return 'not started';
  if (type === 'readmitted')
    return !time.closed ? 'not closed' : leftMs(time, at) + event.ms <= 0 ? 'time is over' : null;
  if (time.closed) return 'already closed';
  if (type === 'closed') return null;
  if (isOver(time, at)) return 'time is over';
  const stop = stopAt(time, at);
  if (type === 'confirmed')
    return time.unconfirmed.some((u) => u.at <= event.heard) ? null : 'nothing to confirm';
  if (type === 'went on') return stop?.why === 'pause' ? null : 'not stopped';
  if (type === 'break ended') return stop?.why === 'break' ? null : 'not stopped';
  if (type === 'paused') return stop?.why === 'pause' ? 'stopped' : null;
  if (type === 'break began') return stop ? 'stopped' : breakLeftMs(time, at) <= 0 ? 'no break left' : null;
  return null;
}

const endStop = (time: SittingTime, at: number): readonly Stop[] =>
  time.stops.map((stop, i) =>
    i === time.stops.length - 1 && stop.until === null ? { ...stop, until: at } : stop,
  );

const toConfirm = (time: SittingTime, at: number): readonly Unconfirmed[] => [
  ...time.unconfirmed,
  { at, from: at },
];

/** Gives back the time that ran until a device showed that it had heard, together at most one grace a sitting. */
function confirm(time: SittingTime, at: number, heard: number): SittingTime {
  const confirmed = time.unconfirmed.filter((u) => u.at <= heard);
  const from = Math.min(...confirmed.map((u) => u.from));
  const ms = Math.min(runMs(time, from, at), GRACE_MS - time.givenBackMs);
  // What is still to be confirmed is given back from now on only: no time is given back twice.
  const rest = time.unconfirmed.filter((u) => u.at > heard).map((u) => ({ ...u, from: at }));
  return {
    ...time,
    unconfirmed: rest,
    grants: ms > 0 ? [...time.grants, { at, ms, backFrom: from }] : time.grants,
    givenBackMs: time.givenBackMs + ms,
  };
}

function apply(time: SittingTime, event: TimeEvent): SittingTime {
  const { at } = event;
  switch (event.type) {
    case 'started':
      return { ...time, startedAt: at, unconfirmed: toConfirm(time, at) };
    case 'paused':
      return { ...time, stops: [...endStop(time, at), { from: at, until: null, why: 'pause' }] };
    case 'break began':
      return { ...time, stops: [...endStop(time, at), { from: at, until: null, why: 'break' }] };
    case 'went on':
    case 'break ended':
      return { ...time, stops: endStop(time, at), unconfirmed: toConfirm(time, at) };
    case 'granted':
      return { ...time, grants: [...time.grants, { at, ms: event.ms }] };
    case 'section entered':
      return event.section in time.entered
        ? time
        : {
            ...time,
            entered: { ...time.entered, [event.section]: at },
            unconfirmed: toConfirm(time, at),
          };
    case 'confirmed':
      return confirm(time, at, event.heard);
    case 'closed':
      // A closing after the time has run out counts from the moment it ran out.
      return {
        ...time,
        stops: endStop(time, at),
        unconfirmed: [],
        closed: { at: ranOutAt(time, at) ?? at, by: event.by },
      };
    case 'readmitted': {
      const from = time.closed!.at;
      const stops: Stop[] = [...time.stops, { from, until: at, why: 'closed' }];
      const grants = event.ms > 0 ? [...time.grants, { at, ms: event.ms }] : time.grants;
      return { ...time, stops, grants, closed: null, unconfirmed: toConfirm(time, at) };
    }
  }
}

export type Step =
  | { readonly done: true; readonly time: SittingTime }
  | { readonly done: false; readonly refusal: Refusal };

/** The one transition: the next state, or why the event cannot happen. Pure; nothing is thrown. */
export function step(time: SittingTime, event: TimeEvent): Step {
  const refusal = refusalOf(time, event);
  return refusal ? { done: false, refusal } : { done: true, time: apply(time, event) };
}

/** The state that a record of events led to. Events were checked when they were recorded. */
export const foldTime = (terms: TimeTerms, events: readonly TimeEvent[]): SittingTime =>
  events.reduce(apply, newTime(terms));

/** Time left on a device at `now`, by what the server said last: a break goes on by itself, a pause does not. */
export function shownLeftMs(view: TimeView, now: number): number {
  const { stopped } = view;
  const still = stopped !== null && (stopped.until === null || now < stopped.until);
  return still ? view.leftMs : view.deadlineAt - now;
}

/** The time of a started sitting as its device shows it. Throws before the start. */
export function timeViewOf(time: SittingTime, now: number): TimeView {
  if (time.startedAt === null) throw new Error('a sitting that has not started has no time to show');
  const sectionEnds = Object.keys(time.terms.sectionLimitsMs).flatMap((section) => {
    const left = sectionLeftMs(time, section, now);
    return left === null ? [] : [[section, now + left] as const];
  });
  return {
    startedAt: time.startedAt,
    leftMs: leftMs(time, now),
    deadlineAt: deadlineAt(time, now) ?? now + leftMs(time, now),
    stopped: stopAt(time, now),
    breakLeftMs: breakLeftMs(time, now),
    extraPercent: time.terms.extraPercent,
    sectionEnds: Object.fromEntries(sectionEnds),
  };
}
