import { randomBytes } from 'node:crypto';
import { chainStart, type Head } from '../../core/journal/chain';
import type { Amount } from '../../core/journal/allowance';
import { HoldChain, type HeadState } from '../../core/journal/holdChain';
import type { GrantedHold } from '../../core/sittings/api';
import type { Db } from '../db/open';
import { sha256 } from '../secrets';
import { sittingQueries, type HoldRow, type SittingQueries } from './queries';
import { textOfRow } from './values';

/** What is kept at hand of a hold between requests; all of it can be read again from its rows. */
export interface HoldState {
  readonly sitting: number;
  readonly number: number;
  readonly grantedAt: number;
  readonly agent: string;
  readonly store: string;
  readonly chain: HoldChain;
  opening: string;
  /** The highest number there is. */
  last: number;
  lastEntryAt: number;
  /** The highest number that a head named. */
  announced: number;
  /** The latest server time that a checked head named. */
  heard: number;
  /** When something was last heard of it; null after a restart of the server. */
  seenAt: number | null;
  /** How much was written through it. */
  rows: number;
  bytes: number;
}

const KEPT = 50_000;

/** The holds of sittings: granted one after the other, and the latest one may write. */
export class Holds {
  private readonly find: SittingQueries;
  private readonly known = new Map<number, HoldState[]>();

  constructor(db: Db) {
    this.find = sittingQueries(db);
  }

  /** All holds of a sitting, in the order in which they were granted. */
  of(sitting: number): readonly HoldState[] {
    const cached = this.known.get(sitting);
    if (cached) return cached;
    const states = this.find.holdsOf(sitting).map((row) => this.load(row));
    if (this.known.size >= KEPT) this.known.clear();
    this.known.set(sitting, states);
    return states;
  }

  /** The hold that a head speaks of; null where this server did not grant it. */
  named(sitting: number, { hold, token }: Pick<Head, 'hold' | 'token'>): HoldState | null {
    const state = this.of(sitting)[hold - 1];
    return state?.chain.token === token ? state : null;
  }

  current(sitting: number): HoldState | null {
    return this.of(sitting).at(-1) ?? null;
  }

  /** How much was written in a sitting, through all its holds. */
  written(sitting: number): Amount {
    const sum = { rows: 0, bytes: 0 };
    for (const { rows, bytes } of this.of(sitting))
      [sum.rows, sum.bytes] = [sum.rows + rows, sum.bytes + bytes];
    return sum;
  }

  /** Grants the right to write to a browser store; part of a commit. */
  grant(sitting: number, who: Pick<HoldRow, 'agent' | 'opening' | 'store'>, grantedAt: number): HoldState {
    const token = randomBytes(12).toString('base64url');
    const number = this.of(sitting).length + 1;
    const chain = chainStart(token, sha256);
    const row = {
      sittingId: sitting,
      number,
      token,
      grantedAt,
      ...who,
      chain,
      whole: 0,
      broken: false,
      rows: 0,
      bytes: 0,
    };
    this.find.addHold(row);
    const state = { ...this.load(row), seenAt: grantedAt };
    this.known.get(sitting)!.push(state);
    return state;
  }

  /** Takes a head: durable before the reply, covering nothing until its chain is checked. */
  takeHead(state: HoldState, { number, chain, heard }: Head, now: number): HeadState {
    const { sitting, number: hold } = state;
    const known = state.chain.takeHead({ number, chain });
    const named = Math.min(heard, now);
    const checked = known === 'checked';
    const row = { sittingId: sitting, hold, number, chain, arrivedAt: now, heard: named, checked };
    this.find.addHead(row);
    state.rows += 1;
    state.announced = Math.max(state.announced, number);
    if (checked) state.heard = Math.max(state.heard, named);
    return known;
  }

  /** Keeps how far a hold is followed, beside its rows. */
  keep({ sitting, number, chain: { whole, chain, broken }, opening, rows, bytes }: HoldState): void {
    this.find.followHold({ sitting, hold: number }, { whole, chain, broken, opening, rows, bytes });
  }

  /**
   * Checks heads that came when their number was long passed: their chains are computed again. Only where entries are
   * judged, since it reads the whole hold.
   */
  checkOldHeads(state: HoldState): void {
    const key = { sitting: state.sitting, hold: state.number };
    const open = this.find.headsOf(key).filter((h) => !h.checked && h.number <= state.chain.whole);
    if (open.length === 0) return;
    const chain = HoldChain.begin(state.chain.token, sha256);
    const due = new Map(open.map((head) => [head.number, head]));
    for (const row of this.find.entriesOf(key)) {
      if (row.variant > 0) continue;
      const head = due.get(chain.whole);
      if (head && chain.takeHead(head) === 'checked') this.find.headChecked(key, head.number, head.chain);
      chain.takeEntry(row.number, textOfRow(row));
    }
    state.chain.broken ||= chain.broken;
    this.keep(state);
  }

  /** Forgets what is at hand; the rows are read again. */
  forget(): void {
    this.known.clear();
  }

  private load(row: HoldRow): HoldState {
    const key = { sitting: row.sittingId, hold: row.number };
    const { token, whole, broken, agent, store, opening, grantedAt } = row;
    const chain = new HoldChain({ token, whole, broken, chain: row.chain }, sha256);
    let last = whole;
    for (const entry of this.find.entriesAfter(key, whole)) {
      last = entry.number;
      chain.takeEntry(entry.number, textOfRow(entry));
    }
    const heads = this.find.headsOf(key);
    for (const head of heads) if (!head.checked && head.number > whole) chain.takeHead(head);
    return {
      sitting: row.sittingId,
      number: row.number,
      grantedAt,
      agent,
      store,
      opening,
      chain,
      last,
      lastEntryAt: this.find.lastArrivalOf(key),
      announced: heads.reduce((most, head) => Math.max(most, head.number), 0),
      heard: heads.reduce((latest, head) => (head.checked ? Math.max(latest, head.heard) : latest), 0),
      seenAt: null,
      rows: row.rows,
      bytes: row.bytes,
    };
  }
}

export const grantOf = ({ number, chain }: HoldState): GrantedHold => ({ hold: number, token: chain.token });
