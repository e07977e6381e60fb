import { BYTES_MS, SILENCE_MS, STAFF_CLOSING_MS, STOP_ROOM_MS } from '../timing/deadline';
import {
  graceMsOf,
  paperEndAt,
  sectionEndAt,
  stopsOf,
  type KnownStop,
  type SittingTime,
} from '../timing/sittingTime';
import type { ClosedBy } from '../sittings/api';
import { isLater, slotOf, type EntryAbout, type EntryRef } from './entry';
import { isOutOfTurn, isVisit, type Before, type ForwardSections } from './forwardOnly';

/*
 * The one place where entries are judged: was an entry made in time, in a stop, or after an end? What a device says of
 * time is a claim; what counts is when the server received a head that covers the entry. Source: `2-domain.md`, “Time”.
 */

/** A head as the server keeps it: one for each number and chain, with its first arrival and the latest time it named. */
export interface HeadRecord {
  readonly number: number;
  readonly arrivedAt: number;
  /** The latest server time named, never later than the arrival of the head that named it. */
  readonly heard: number;
  /** Its chain hash was checked over all entries up to its number. One that was not covers nothing. */
  readonly checked: boolean;
}

/** An entry as the server keeps it. */
export interface EntryRecord extends EntryRef {
  readonly about: EntryAbout;
  readonly target: string;
  readonly claimedAt: number;
  readonly arrivedAt: number;
  /** The order of arrival. */
  readonly order: number;
  /** The entry that a patch builds on. */
  readonly base: EntryRef | null;
  readonly restored: EntryRef | null;
  /** Why it is kept without counting: it cannot belong to the paper, or has other bytes under a number that is taken. */
  readonly aside: string | null;
}

export interface HoldRecord {
  readonly number: number;
  readonly grantedAt: number;
  /** Two heads contradict each other, or one number came with two contents. */
  readonly broken: boolean;
  readonly heads: readonly HeadRecord[];
  readonly entries: readonly EntryRecord[];
}

/** What a coordinator decided; later decisions come later. */
export type Decided =
  /** Entries that wait, up to this order of arrival, count or do not. */
  | { readonly kind: 'late'; readonly upTo: number; readonly count: boolean }
  /** Writing in a stop: the value without it counts, or the one with it. */
  | { readonly kind: 'stop'; readonly target: string; readonly without: boolean }
  /** Of two versions, this one counts. */
  | { readonly kind: 'version'; readonly target: string; readonly choose: EntryRef };

export interface SittingRecord {
  readonly holds: readonly HoldRecord[];
  readonly time: SittingTime;
  readonly decided: readonly Decided[];
  /** The section of a target, where that has a limit of its own. */
  readonly limitedSection: (target: string) => string | null;
  /** Whether the value of an entry can be read: a patch needs its base and its check sum. */
  readonly readable: (entry: EntryRecord) => boolean;
  /** Sections through which one goes forward only, and how it is told what was complete; null where there are none. */
  readonly turns: { readonly of: ForwardSections; readonly doneBefore: Before['doneBefore'] } | null;
}

/**
 * `in time`; `late` (made in time, heard of after the end); `pending` (its hold is not complete yet); `waiting` (a
 * coordinator decides); `left out` (so decided); `after` the end; `aside` (kept, and never counts); `out of turn` (an
 * answer to a question that was passed, or whose turn had not come: kept as another version).
 */
export type Standing =
  | 'in time'
  | 'late'
  | 'pending'
  | 'waiting'
  | 'left out'
  | 'after'
  | 'aside'
  | 'out of turn';

export interface Verdict {
  readonly entry: EntryRecord;
  readonly standing: Standing;
  /** It was made no earlier than `from`, no later than `to`; `at` is the claim clamped between them. */
  readonly from: number;
  readonly to: number;
  readonly at: number;
  /** Counts as written while the clock stood still. */
  readonly inStop: boolean;
}

export const counts = ({ standing }: Pick<Verdict, 'standing'>): boolean =>
  standing === 'in time' || standing === 'late';

/** What is current for a slot of the desk. `without` is told where writing in a stop makes two versions. */
export interface Winner {
  readonly entry: EntryRecord;
  readonly without?: EntryRecord | null;
  /** A losing version that came after the closing and is claimed later than the winner. */
  readonly rival?: EntryRecord;
}

export interface Silence {
  readonly hold: number;
  readonly from: number;
  readonly to: number;
  readonly across: 'end' | 'stop';
}

export interface Judged {
  readonly verdicts: readonly Verdict[];
  readonly winners: ReadonlyMap<string, Winner>;
  /** Versions out of turn that a coordinator may take, the latest of each answer. */
  readonly outOfTurn: readonly EntryRecord[];
  readonly silences: readonly Silence[];
  /** Numbers that were announced in time and never came, by hold. */
  readonly missing: readonly { readonly hold: number; readonly from: number; readonly to: number }[];
  /** All that was announced in time is here. */
  readonly complete: boolean;
  /** Every hold has shown, after the end, that nothing more can come from it that counts. */
  readonly final: boolean;
}

interface Interval {
  readonly from: number;
  readonly to: number;
}

/**
 * When each entry of a hold was made at the earliest and at the latest, by its checked heads. Where a hold contradicts
 * itself, what its checked heads cover stays as it was known; what follows the last of them is judged by its arrival.
 */
function intervalsOf(hold: HoldRecord): (entry: EntryRecord) => Interval {
  const heads = hold.heads.filter((h) => h.checked).sort((a, b) => a.number - b.number);
  // For each place in the row of heads: the latest time named before it, the first arrival from it on.
  const named = [hold.grantedAt];
  for (const head of heads) named.push(Math.max(named.at(-1)!, head.heard));
  const arrived = new Array<number>(heads.length + 1).fill(Infinity);
  for (let i = heads.length - 1; i >= 0; i--) arrived[i] = Math.min(arrived[i + 1]!, heads[i]!.arrivedAt);
  const followed = hold.broken ? (heads.at(-1)?.number ?? 0) : Infinity;
  return ({ number, arrivedAt }) => {
    if (number > followed) return { from: arrivedAt, to: arrivedAt };
    let [low, high] = [0, heads.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (heads[middle]!.number < number) low = middle + 1;
      else high = middle;
    }
    // What is here was made: a head that names a later time than that lies, and moves nothing beyond it.
    const to = Math.min(arrivedAt, arrived[low]!);
    return { from: Math.min(named[low]!, to), to };
  };
}

/** The number up to which a hold has no gap, by what had arrived until a moment. */
function wholeUpTo(hold: HoldRecord, until: number): number {
  const here = new Set<number>();
  for (const entry of hold.entries) if (entry.arrivedAt <= until) here.add(entry.number);
  let whole = 0;
  while (here.has(whole + 1)) whole++;
  return whole;
}

const announcedBy = (hold: Pick<HoldRecord, 'heads'>, until: number): number =>
  hold.heads.reduce((most, head) => (head.arrivedAt <= until ? Math.max(most, head.number) : most), 0);

interface End {
  readonly at: number;
  /** Null for the end of a section's own limit. */
  readonly by: ClosedBy | null;
}

/** Judges entries by one end: the closing, or that of a section's own limit. */
class EndJudge {
  readonly end: End;
  private readonly record: SittingRecord;
  private readonly grace: number;
  private readonly complete: boolean;
  /** Until when entries can be announced: a hand-in by the candidate has announced everything that it contains. */
  private readonly announcedUntil: number;

  /** Whether bytes can still complete what was announced. */
  private readonly open: boolean;

  constructor(record: SittingRecord, end: End, now: number) {
    this.record = record;
    this.end = end;
    this.grace = graceMsOf(record.time);
    this.announcedUntil = end.by === 'candidate' ? end.at : end.at + this.grace;
    this.complete = this.missing().length === 0;
    this.open = now <= end.at + BYTES_MS;
  }

  /** What was announced in time and had not come when bytes stopped to count. */
  missing(): Judged['missing'] {
    return this.record.holds.flatMap((hold) => {
      const announced = announcedBy(hold, this.announcedUntil);
      const whole = wholeUpTo(hold, this.end.at + BYTES_MS);
      return whole < announced ? [{ hold: hold.number, from: whole + 1, to: announced }] : [];
    });
  }

  standing(entry: EntryRecord, { from, to }: Interval, at: number, hold: HoldRecord): Standing {
    const { at: end, by } = this.end;
    if (entry.arrivedAt <= end) return 'in time';
    if (hold.broken) return 'waiting';
    if (to > end) {
      if (from >= end || at > end + (by === 'staff' ? STAFF_CLOSING_MS : 0)) return 'after';
      if (to > end + this.grace) return 'waiting';
    }
    // What the hand-in did not name may have been written since, whatever time it claims.
    if (by === 'candidate' && entry.number > announcedBy(hold, end)) return 'waiting';
    if (entry.arrivedAt > end + BYTES_MS) return 'waiting';
    return this.complete ? 'late' : this.open ? 'pending' : 'waiting';
  }
}

/** Was an entry written in a stop? A stop by staff leaves room for a device that did not know of it yet. */
function writtenIn(stop: KnownStop, { from, to }: Interval, claimedAt: number): boolean {
  if (to <= stop.from || from >= stop.until) return false;
  if (stop.by === 'candidate') return true;
  const room = stop.from + STOP_ROOM_MS;
  if (to <= room) return false;
  return !(claimedAt <= room && from < stop.from && to - from <= SILENCE_MS);
}

const clamp = (value: number, { from, to }: Interval) => Math.min(Math.max(value, from), to);

/** Counts, or may still count: a silence in which it was made is observed. */
const isHeard = (standing: Standing) =>
  counts({ standing }) || standing === 'waiting' || standing === 'left out';

const WORST: readonly Standing[] = ['in time', 'late', 'pending', 'waiting', 'after'];
const worse = (a: Standing, b: Standing): Standing => (WORST.indexOf(b) > WORST.indexOf(a) ? b : a);

/** Judges all entries of a sitting as things stand at `now` (the server's time). Pure; the same record, the same result. */
export function judgeSitting(record: SittingRecord, now: number): Judged {
  const { holds, time } = record;
  const endAt = paperEndAt(time, now);
  const paper =
    endAt === null
      ? null
      : new EndJudge(record, { at: endAt, by: time.closed?.at === endAt ? time.closed.by : null }, now);
  const sections = new Map(
    Object.keys(time.terms.sectionLimitsMs).map((section) => {
      const at = sectionEndAt(time, section, now);
      return [section, at === null ? null : new EndJudge(record, { at, by: null }, now)];
    }),
  );
  const stops = stopsOf(time, now);
  const isOutside = outOfTurn(record);
  const silences = new Map<string, Silence>();

  const judge = (hold: HoldRecord, intervalOf: (entry: EntryRecord) => Interval) => (entry: EntryRecord) => {
    const interval = intervalOf(entry);
    const at = clamp(entry.claimedAt, interval);
    const verdict = { entry, ...interval, at, inStop: false };
    const section = record.limitedSection(entry.target);
    if (entry.aside !== null) return { ...verdict, standing: 'aside' as const };
    // Nobody can answer what is still sealed.
    if (section !== null && !(section in time.entered)) return { ...verdict, standing: 'aside' as const };
    const ends = [paper, section === null ? null : sections.get(section)!].filter((end) => end !== null);
    const standing = ends.map((end) => end.standing(entry, interval, at, hold)).reduce(worse, 'in time');
    const decided = decidedStanding(standing, entry, record.decided);
    const counting = decided === 'in time' || decided === 'late';
    const made = { ...verdict, standing: counting && isOutside(entry) ? ('out of turn' as const) : decided };
    const inStop = stops.some((stop) => writtenIn(stop, interval, at));
    if (isHeard(made.standing) && interval.to - interval.from > SILENCE_MS) {
      const note = (across: Silence['across']) => {
        const name = `${hold.number} ${interval.from} ${across}`;
        const to = Math.max(interval.to, silences.get(name)?.to ?? 0);
        silences.set(name, { hold: hold.number, from: interval.from, to, across });
      };
      if (ends.some((end) => interval.from < end.end.at && interval.to > end.end.at)) note('end');
      if (stops.some((stop) => interval.from < stop.until && interval.to > stop.from)) note('stop');
    }
    return { ...made, inStop };
  };

  const verdicts = holds.flatMap((hold) => hold.entries.map(judge(hold, intervalsOf(hold))));
  const missing = paper?.missing() ?? [];
  return {
    verdicts,
    winners: winnersOf(record, verdicts, endAt),
    outOfTurn: versionsOutOfTurn(record, verdicts),
    silences: [...silences.values()],
    missing,
    complete: missing.length === 0,
    final: isFinal(holds, endAt),
  };
}

/** Which entries were written out of their turn. What a coordinator has taken counts all the same. */
function outOfTurn({ holds, turns, decided }: SittingRecord): (entry: EntryRecord) => boolean {
  if (!turns) return () => false;
  const grants = new Map(holds.map((hold) => [hold.number, hold.grantedAt]));
  const visits = holds.flatMap(({ entries }) =>
    entries.filter((entry) => isVisit(entry) && entry.aside === null),
  );
  const before = { visits, grantedAt: (hold: number) => grants.get(hold)!, doneBefore: turns.doneBefore };
  const taken = (entry: EntryRecord) =>
    decided.some(
      (d) => d.kind === 'version' && d.choose.hold === entry.hold && d.choose.number === entry.number,
    );
  return (entry) => !taken(entry) && isOutOfTurn(turns.of, entry, before);
}

function versionsOutOfTurn(record: SittingRecord, verdicts: readonly Verdict[]): EntryRecord[] {
  const latest = new Map<string, EntryRecord>();
  for (const { entry, standing } of verdicts) {
    if (standing !== 'out of turn' || entry.about !== 'answer' || !record.readable(entry)) continue;
    const known = latest.get(entry.target);
    if (!known || isLater(entry, known)) latest.set(entry.target, entry);
  }
  return [...latest.values()];
}

function decidedStanding(standing: Standing, { order }: EntryRecord, decided: readonly Decided[]): Standing {
  if (standing !== 'waiting') return standing;
  const found = decided.find((d) => d.kind === 'late' && order <= d.upTo);
  if (found?.kind !== 'late') return standing;
  return found.count ? 'late' : 'left out';
}

/**
 * Whether nothing that counts can come any more: there is an end (server time, ms; null where there is none yet), and
 * every hold has named a time not before it, with all its entries here up to that head.
 */
export const isFinal = (holds: readonly Pick<HoldRecord, 'heads'>[], endAt: number | null): boolean =>
  endAt !== null &&
  holds.every((hold) => {
    const announced = announcedBy(hold, Infinity);
    return hold.heads.some((head) => head.checked && head.heard >= endAt && head.number >= announced);
  });

function winnersOf(
  record: SittingRecord,
  verdicts: readonly Verdict[],
  endAt: number | null,
): ReadonlyMap<string, Winner> {
  const slots = new Map<string, Verdict[]>();
  for (const verdict of verdicts) {
    if (!counts(verdict)) continue;
    const slot = slotOf(verdict.entry);
    const known = slots.get(slot);
    if (known) known.push(verdict);
    else slots.set(slot, [verdict]);
  }
  const winners = new Map<string, Winner>();
  for (const [slot, all] of slots) {
    const winner = winnerOf(record, all, endAt);
    if (winner) winners.set(slot, winner);
  }
  return winners;
}

const latestReadable = ({ readable }: SittingRecord, verdicts: readonly Verdict[]): Verdict | undefined =>
  [...verdicts].sort((a, b) => (isLater(a.entry, b.entry) ? -1 : 1)).find((one) => readable(one.entry));

function winnerOf(record: SittingRecord, all: readonly Verdict[], endAt: number | null): Winner | null {
  const latest = latestReadable(record, all);
  if (!latest) return null;
  const { target } = latest.entry;
  const chosen = record.decided.findLast((d) => d.kind === 'version' && d.target === target);
  const named = chosen?.kind === 'version' ? chosen.choose : null;
  const top = all.find((v) => v.entry.hold === named?.hold && v.entry.number === named.number) ?? latest;
  const stained = stainedBy(record, all);
  const rival =
    named || endAt === null
      ? undefined
      : all.find((v) => v.entry.hold !== top.entry.hold && v.entry.arrivedAt > endAt && v.at > top.at)?.entry;
  if (!stained(top)) return { entry: top.entry, ...(rival ? { rival } : {}) };
  const without =
    latestReadable(
      record,
      all.filter((v) => !stained(v)),
    )?.entry ?? null;
  const decision = record.decided.findLast((d) => d.kind === 'stop' && d.target === target);
  if (decision?.kind === 'stop') {
    const entry = decision.without ? without : top.entry;
    return entry ? { entry } : null;
  }
  return { entry: top.entry, without, ...(rival ? { rival } : {}) };
}

/**
 * Whether a value rests on writing in a stop: it is such an entry, follows one in its hold, builds on or restores one,
 * or its hold was granted after one had arrived.
 */
function stainedBy({ holds }: SittingRecord, all: readonly Verdict[]): (verdict: Verdict) => boolean {
  const written = all.filter((v) => v.inStop).map((v) => v.entry);
  if (written.length === 0) return () => false;
  const grantedAt = new Map(holds.map((hold) => [hold.number, hold.grantedAt]));
  const nameOf = ({ hold, number }: EntryRef) => `${hold}.${number}`;
  const byName = new Map(all.map((v) => [nameOf(v.entry), v.entry]));
  const follows = (entry: EntryRef) =>
    written.some((w) =>
      w.hold === entry.hold
        ? w.number <= entry.number
        : w.hold < entry.hold && grantedAt.get(entry.hold)! >= w.arrivedAt,
    );
  return ({ entry }) => {
    // What an entry rests on is followed back; a circle of references ends where it began.
    const seen = new Set<string>();
    for (let open: EntryRecord[] = [entry]; open.length > 0;) {
      const next: EntryRecord[] = [];
      for (const one of open) {
        if (seen.has(nameOf(one))) continue;
        seen.add(nameOf(one));
        if (follows(one)) return true;
        for (const ref of [one.base, one.restored]) {
          const known = ref && byName.get(nameOf(ref));
          if (known) next.push(known);
        }
      }
      open = next;
    }
    return false;
  };
}
