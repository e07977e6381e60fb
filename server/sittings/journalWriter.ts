import type { Head } from '../../core/journal/chain';
import { byteLength, ENTRY_LIMIT, isLater, type Entry } from '../../core/journal/entry';
import { parseEntry } from '../../core/journal/parseEntry';
import { applyPatch, DEPTH_LIMIT } from '../../core/journal/patch';
import type { FullPaper } from '../../core/papers/paper';
import type { RefusedEntry } from '../../core/sittings/api';
import { leftMs, sectionEndAt, stopsOf, type SittingTime } from '../../core/timing/sittingTime';
import type { Db } from '../db/open';
import { observe } from '../observations/observations';
import { checkSum } from './checkSum';
import type { Holds, HoldState } from './holds';
import { belongs, fits, sectionOfTarget } from './placing';
import { Plays } from './plays';
import { sittingQueries, type CurrentAnswer, type NewEntry, type SittingQueries } from './queries';
import { cameOutOfTurn } from './forwardOnly';
import { slotOfRow, storedPatch, storedValue, textOfRow, valueOf, type Value } from './values';

export interface Batch {
  readonly head: Head;
  readonly entries: readonly unknown[];
}

/** A sitting in the state in which a batch meets it. */
export interface Meeting {
  readonly sitting: number;
  readonly formId: number;
  readonly paper: FullPaper;
  readonly time: SittingTime;
  readonly hold: HoldState;
  readonly now: number;
}

export interface Written {
  readonly refused: readonly RefusedEntry[];
  /** What came in plainly counts and is current already; otherwise the sitting has to be judged. */
  readonly plain: boolean;
  /** Entries contradict each other, or a patch does not fit: a fresh hold with whole values is to follow. */
  readonly renew: boolean;
}

/** A value that is to be current, unless it cannot be read as an answer. */
interface Draft {
  readonly entry: Entry;
  readonly row: CurrentAnswer;
}

interface Course {
  plain: boolean;
  renew: boolean;
  readonly refused: RefusedEntry[];
  /** What the batch makes current so far, in its order, by where it is kept. */
  readonly drafts: Map<string, Draft[]>;
}

const numberOf = (raw: unknown): number | null => {
  const { number } = (raw ?? {}) as { number?: unknown };
  return typeof number === 'number' && Number.isSafeInteger(number) ? number : null;
};

/**
 * Writes what a device sent, as part of a commit. Nothing of it is refused for being late, doubled or contradictory:
 * it is kept, and judged where judging is done.
 */
export class JournalWriter {
  private readonly db: Db;
  private readonly holds: Holds;
  private readonly find: SittingQueries;
  private readonly plays: Plays;

  constructor(db: Db, holds: Holds) {
    [this.db, this.holds, this.find, this.plays] = [db, holds, sittingQueries(db), new Plays(db)];
  }

  write(meeting: Meeting, { head, entries }: Batch): Written {
    const { hold } = meeting;
    const course: Course = { plain: true, renew: false, refused: [], drafts: new Map() };
    const wasBroken = hold.chain.broken;
    for (const raw of entries) this.take(meeting, raw, course);
    for (const drafts of course.drafts.values()) this.keepLast(meeting.paper, drafts, course);
    this.holds.takeHead(hold, head, meeting.now);
    if (hold.chain.broken && !wasBroken) {
      const { now } = meeting;
      const facts = { hold: hold.number };
      observe(this.db, meeting.sitting, { kind: 'mismatch', from: now, to: now, facts });
    }
    this.holds.keep(hold);
    return { plain: course.plain, refused: course.refused, renew: course.renew || hold.chain.broken };
  }

  private take(meeting: Meeting, raw: unknown, course: Course): void {
    const { hold, sitting, paper, now } = meeting;
    const parsed = parseEntry(raw);
    if ('refusal' in parsed) {
      course.refused.push({ number: numberOf(raw), code: parsed.refusal });
      return;
    }
    const { entry, text, body } = parsed;
    const mayBeKnown = entry.number <= hold.last;
    const known = mayBeKnown ? this.find.variantsOf({ sitting, hold: hold.number }, entry.number) : [];
    if (known.some((row) => textOfRow(row) === text)) return;
    const foreign =
      !belongs(paper, entry.about, entry.target) || (!entry.patch && !fits(paper, entry, entry.value));
    const aside = known.length > 0 ? 'other-bytes' : foreign ? 'foreign' : null;
    if (foreign) course.refused.push({ number: entry.number, code: 'foreign' });
    // Fills a gap: what was written after it may have waited for it.
    if (mayBeKnown) course.plain = false;
    const row = rowOf(meeting, entry, { body, variant: known.length, aside });
    this.find.addEntry(row);
    hold.rows += 1;
    hold.bytes += byteLength(text);
    hold.last = Math.max(hold.last, entry.number);
    hold.lastEntryAt = now;
    if (known.length > 0) hold.chain.broken = true;
    else
      for (const { number, chain } of hold.chain.takeEntry(entry.number, text))
        this.find.headChecked({ sitting, hold: hold.number }, number, chain);
    if (entry.about === 'play' && aside !== 'foreign' && typeof entry.value === 'number')
      this.plays.use({ sitting, paper, file: entry.target, hold: hold.number, now }, entry.value);
    if (entry.restored)
      observe(this.db, sitting, {
        kind: 'restored writing',
        from: now,
        to: now,
        facts: { target: entry.target, hold: entry.restored.hold, number: entry.restored.number },
      });
    if (aside === null && course.plain) this.draft(meeting, entry, body, course);
  }

  /** Works out the value of an entry that plainly counts; anything else is left to the judge. */
  private draft(meeting: Meeting, entry: Entry, body: string, course: Course): void {
    const { sitting, hold, paper, formId } = meeting;
    if (!plainlyCounts(meeting, entry.target)) {
      course.plain = false;
      return;
    }
    const ref = { hold: hold.number, number: entry.number };
    const of = { db: this.db, holds: this.holds, sitting, formId, paper };
    if (cameOutOfTurn(of, { ...ref, about: entry.about, target: entry.target, arrivedAt: meeting.now })) {
      course.plain = false;
      return;
    }
    const slot = slotOfRow(entry);
    const key = `${slot.about} ${slot.target}`;
    const drafts = course.drafts.get(key) ?? [];
    const before = drafts.at(-1)?.row ?? this.find.currentAt(sitting, slot.about, slot.target);
    if (before && !isLater(ref, before)) return;
    // Its base has yet to come: as soon as the gap is filled the sitting is judged.
    if (entry.patch?.base.hold === hold.number && entry.patch.base.number > hold.chain.whole) return;
    const value = this.valueAfter(sitting, entry, body, before);
    if (value === null) {
      // A value that cannot be made out stands in nobody's way; the device is asked for a whole one.
      course.renew = true;
      return;
    }
    const { text, depth } = value;
    drafts.push({
      entry,
      row: { sittingId: sitting, ...slot, ...ref, depth, value: storedValue(entry, text) },
    });
    course.drafts.set(key, drafts);
  }

  /** Makes the last value current that reads as an answer: of a long answer, each is as much work as the others. */
  private keepLast(paper: FullPaper, drafts: readonly Draft[], course: Course): void {
    const kept = drafts.findLast(({ entry, row }) => !entry.patch || fitsText(paper, entry, row.value));
    if (kept !== drafts.at(-1)) course.renew = true;
    if (kept) this.find.setCurrent(kept.row);
  }

  private valueAfter(
    sitting: number,
    { patch }: Entry,
    body: string,
    before: CurrentAnswer | null,
  ): Value | null {
    if (!patch) return { text: body, depth: 0 };
    const known =
      before?.hold === patch.base.hold && before.number === patch.base.number
        ? { text: before.value, depth: before.depth }
        : valueOf(this.find, sitting, patch.base);
    if (!known || known.depth >= DEPTH_LIMIT) return null;
    const text = applyPatch(known.text, patch, checkSum);
    return text === null || text.length > ENTRY_LIMIT ? null : { text, depth: known.depth + 1 };
  }
}

/** Does the text of a patched value read as JSON, and as an answer to this question? */
export function fitsText(paper: FullPaper, place: Pick<NewEntry, 'about' | 'target'>, text: string): boolean {
  try {
    return fits(paper, place, JSON.parse(text) as unknown);
  } catch {
    return false;
  }
}

/**
 * Whether what comes in now counts without any doubt: nothing has ended, its section is open, and the hold has named a
 * time after every stop.
 */
function plainlyCounts({ time, hold, paper, now }: Meeting, target: string): boolean {
  if (time.closed !== null || leftMs(time, now) === 0) return false;
  const section = sectionOfTarget(paper, target);
  if (section !== null && (!(section in time.entered) || sectionEndAt(time, section, now) !== null))
    return false;
  // A broken hold is judged by the arrival of its entries alone.
  const since = hold.chain.broken ? now : Math.max(hold.heard, hold.grantedAt);
  return time.stops.length === 0 || stopsOf(time, now).every((stop) => stop.until <= since);
}

const rowOf = (
  { sitting, hold, now }: Meeting,
  { number, about, target, at, patch, restored }: Entry,
  {
    body,
    variant,
    aside,
  }: { readonly body: string; readonly variant: number; readonly aside: string | null },
): NewEntry => ({
  sittingId: sitting,
  hold: hold.number,
  number,
  variant,
  about,
  target,
  value: patch ? null : body,
  patch: patch ? storedPatch(patch) : null,
  restored: restored ? JSON.stringify(restored) : null,
  claimedAt: at,
  arrivedAt: now,
  aside,
});
