import { Helper } from '../helpers/helper';

const LIMIT_MS = 10_000;
/** Five thousand people who arrive within a minute may have to wait for half a minute; a camera's picture is some 50 kB. */
const MOST_WAITING = 2500;

/** A page of an answer: what it is, and what people see of it; null where that is the file itself (PDF, drawn by pdf.js). */
export interface ReadPage {
  readonly type: string;
  readonly view: Uint8Array | null;
}

/** Makes what a browser sent as a picture into one: decoded and written anew, in a process of its own. */
export class Pictures {
  private readonly helper = new Helper({
    script: new URL('./pictureHelper.ts', import.meta.url),
    limitMs: LIMIT_MS,
    mostWaiting: MOST_WAITING,
  });

  /** Refuses what is no picture; what breaks the decoder counts as none too. */
  clean(bytes: Uint8Array): Promise<Uint8Array> {
    return this.helper.ask('clean', bytes);
  }

  /** Null for what is no page: no picture and no PDF, too large once it is opened, cut off, or a decoder ended by it. */
  async page(bytes: Uint8Array): Promise<ReadPage | null> {
    return this.helper.ask<ReadPage | null>('page', bytes);
  }

  warmUp(): Promise<void> {
    return this.helper.warmUp();
  }

  close(): void {
    this.helper.close();
  }
}
