import { canonicalJson } from './canonicalJson';
import { chainAfter, chainStart, type Digest, type Head } from './chain';
import { entryText, type Entry } from './entry';

/** How far a hold was written. */
export interface Written {
  readonly number: number;
  readonly chain: string;
}

/** The writing side of a hold: numbers entries, follows their chain, and says with a head how far it has come. */
export class HoldWriter {
  readonly hold: number;
  readonly token: string;
  number: number;
  chain: string;
  private readonly digest: Digest;

  constructor(
    { hold, token }: { readonly hold: number; readonly token: string },
    digest: Digest,
    written: Written = { number: 0, chain: chainStart(token, digest) },
  ) {
    [this.hold, this.token, this.digest] = [hold, token, digest];
    [this.number, this.chain] = [written.number, written.chain];
  }

  /** Appends an entry under the next number. */
  append(entry: Omit<Entry, 'number'>): Entry {
    const numbered = { ...entry, number: ++this.number };
    const text = entryText(numbered, canonicalJson(entry.value ?? null));
    this.chain = chainAfter(this.chain, this.digest(text), this.digest);
    return numbered;
  }

  head(heard: number): Head {
    const { hold, token, number, chain } = this;
    return { hold, token, number, chain, heard };
  }
}
