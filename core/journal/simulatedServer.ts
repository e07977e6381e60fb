import { step, newTime, type SittingTime, type TimeEvent, type TimeTerms } from '../timing/sittingTime';
import { BYTES_MS } from '../timing/deadline';
import { isOver, paperEndAt } from '../timing/sittingTime';
import type { Digest, Head } from './chain';
import { entryText, type Entry } from './entry';
import { HoldChain } from './holdChain';
import { isFinal, judgeSitting, type EntryRecord, type HoldRecord, type Judged } from './judge';

export interface SimulatedRequest {
  readonly head: Head;
  readonly entries: readonly Entry[];
  readonly handIn?: 'candidate' | 'time';
}

export interface SimulatedReply {
  readonly now: number;
  /** The number up to which the hold is held without a gap. */
  readonly held: number;
  readonly closed: boolean;
  readonly time: SittingTime;
}

const texts = new WeakMap<Entry, string>();

/** The canonical text of an entry with a plain value; worked out once, since walks send entries again and again. */
export function textOf(entry: Entry): string {
  const text = texts.get(entry) ?? entryText(entry, JSON.stringify(entry.value));
  texts.set(entry, text);
  return text;
}

interface Held {
  readonly number: number;
  readonly grantedAt: number;
  readonly chain: HoldChain;
  readonly entries: EntryRecord[];
  readonly texts: Map<number, string>;
  readonly heads: Map<string, { number: number; arrivedAt: number; heard: number; checked: boolean }>;
}

/**
 * The server's rules without a server: what it keeps of holds, heads and entries, in memory, with the same chain, the
 * same state machine and the same judge. For walking through thousands of schedules.
 */
export class SimulatedServer {
  time: SittingTime;
  readonly holds: Held[] = [];
  private readonly digest: Digest;
  private order = 0;

  constructor(terms: TimeTerms, digest: Digest) {
    this.time = newTime(terms);
    this.digest = digest;
  }

  try(event: TimeEvent): boolean {
    const next = step(this.time, event);
    if (next.done) this.time = next.time;
    return next.done;
  }

  grant(now: number): { readonly hold: number; readonly token: string } {
    const number = this.holds.length + 1;
    const chain = HoldChain.begin(`token ${number}`, this.digest);
    this.holds.push({
      number,
      grantedAt: now,
      chain,
      entries: [],
      texts: new Map<number, string>(),
      heads: new Map(),
    });
    return { hold: number, token: chain.token };
  }

  /** Closes a sitting whose time is over and of which nothing was heard. */
  sweep(now: number): void {
    if (this.time.closed === null && isOver(this.time, now))
      this.try({ type: 'closed', at: now, by: 'server' });
  }

  take({ head, entries, handIn }: SimulatedRequest, now: number): SimulatedReply {
    const held = this.holds[head.hold - 1]!;
    this.try({ type: 'confirmed', at: now, heard: Math.min(head.heard, now) });
    for (const entry of entries) this.takeEntry(held, entry, now);
    this.takeHead(held, head, now);
    if (handIn === 'candidate' || (handIn === 'time' && isOver(this.time, now)))
      this.try({ type: 'closed', at: now, by: handIn });
    const { whole } = held.chain;
    return { now, held: whole, closed: this.time.closed !== null, time: this.time };
  }

  private takeEntry(held: Held, entry: Entry, now: number): void {
    const text = textOf(entry);
    const known = held.texts.get(entry.number);
    if (known === text) return;
    held.entries.push({
      hold: held.number,
      number: entry.number,
      about: entry.about,
      target: entry.target,
      claimedAt: entry.at,
      arrivedAt: now,
      order: ++this.order,
      base: null,
      restored: null,
      aside: known === undefined ? null : 'other bytes',
    });
    if (known !== undefined) {
      held.chain.broken = true;
      return;
    }
    held.texts.set(entry.number, text);
    for (const { number, chain } of held.chain.takeEntry(entry.number, text))
      held.heads.get(`${number} ${chain}`)!.checked = true;
  }

  private takeHead(held: Held, { number, chain, heard }: Head, now: number): void {
    const checked = held.chain.takeHead({ number, chain }) === 'checked';
    const key = `${number} ${chain}`;
    const known = held.heads.get(key) ?? { number, arrivedAt: now, heard: 0, checked };
    held.heads.set(key, { ...known, heard: Math.max(known.heard, Math.min(heard, now)) });
  }

  private get records(): HoldRecord[] {
    return this.holds.map((h) => ({
      number: h.number,
      grantedAt: h.grantedAt,
      entries: h.entries,
      broken: h.chain.broken,
      heads: [...h.heads.values()],
    }));
  }

  judge(now: number): Judged {
    const { time, records: holds } = this;
    return judgeSitting(
      { holds, time, decided: [], limitedSection: () => null, turns: null, readable: () => true },
      now,
    );
  }

  /** Whether a result may be shown now: nothing that counts can come any more. */
  mayShow(now: number): boolean {
    const { time, records } = this;
    if (time.closed === null) return false;
    return now > time.closed.at + BYTES_MS || isFinal(records, paperEndAt(time, now));
  }
}
