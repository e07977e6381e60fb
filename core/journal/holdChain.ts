import { chainAfter, chainStart, type Digest, type Head } from './chain';

/** What is known of a head when it comes: its chain is right, cannot be told yet, or is wrong. */
export type HeadState = 'checked' | 'unknown' | 'wrong';

interface Announced {
  readonly number: number;
  readonly chain: string;
}

/** What is kept of a hold between requests; everything else is in its rows. */
export interface ChainStart {
  readonly token: string;
  /** The entries 1 to `whole` are here without a gap, and this is their chain. */
  readonly whole: number;
  readonly chain: string;
  readonly broken: boolean;
}

/** Chains of the last entries are kept at hand: requests that overtook one another still find theirs. */
const RECENT = 64;
/** An honest device has a handful of heads on their way; with more than this a hold is taken to be broken. */
const MOST_ANNOUNCED = 500;

/**
 * The chain of one hold as the server follows it: entries may come in any order and more than once, heads before the
 * entries that they cover. A head covers nothing until its chain has been checked over all entries up to its number.
 */
export class HoldChain {
  readonly token: string;
  whole: number;
  chain: string;
  /** Two heads contradict each other, or one number came with two contents. */
  broken: boolean;
  private readonly digest: Digest;
  /** Digests of entries that came before those below them. */
  private readonly ahead = new Map<number, string>();
  private announced: Announced[] = [];
  private readonly recent = new Map<number, string>();

  constructor({ token, whole, chain, broken }: ChainStart, digest: Digest) {
    [this.token, this.whole, this.chain, this.broken, this.digest] = [token, whole, chain, broken, digest];
    this.recent.set(whole, chain);
  }

  static begin(token: string, digest: Digest): HoldChain {
    return new HoldChain({ token, whole: 0, chain: chainStart(token, digest), broken: false }, digest);
  }

  /** Takes an entry that was not here before; gives the heads whose chains could be checked with it. */
  takeEntry(number: number, text: string): Announced[] {
    if (number > this.whole) this.ahead.set(number, this.digest(text));
    const checked: Announced[] = [];
    for (let next = this.ahead.get(this.whole + 1); next !== undefined;) {
      this.ahead.delete(++this.whole);
      this.chain = chainAfter(this.chain, next, this.digest);
      this.recent.set(this.whole, this.chain);
      this.recent.delete(this.whole - RECENT);
      checked.push(...this.checkAnnounced());
      next = this.ahead.get(this.whole + 1);
    }
    return checked;
  }

  takeHead({ number, chain }: Pick<Head, 'number' | 'chain'>): HeadState {
    const known = this.recent.get(number);
    if (known !== undefined) return this.judge(known === chain);
    if (number < this.whole) return 'unknown';
    const other = this.announced.find((a) => a.number === number);
    if (other) return other.chain === chain ? 'unknown' : this.judge(false);
    if (this.announced.length >= MOST_ANNOUNCED) return this.judge(false);
    this.announced.push({ number, chain });
    return 'unknown';
  }

  private judge(right: boolean): HeadState {
    this.broken ||= !right;
    return right ? 'checked' : 'wrong';
  }

  private checkAnnounced(): Announced[] {
    const due = this.announced.filter((a) => a.number === this.whole);
    if (due.length === 0) return [];
    this.announced = this.announced.filter((a) => a.number !== this.whole);
    return due.filter((a) => this.judge(a.chain === this.chain) === 'checked');
  }
}
