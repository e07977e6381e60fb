import { badRequest } from '../http/errors';
import { Helper, TookTooLong } from '../helpers/helper';

/** What a picture or a document may cost: far more than an honest one, and little enough for those who wait behind it. */
const LIMIT_PROCESSOR_MS = 10_000;
/** Where the machine gives the helper next to nothing. */
const LIMIT_MS = 60_000;
/** Five thousand people who arrive within a minute may have to wait for half a minute; a camera's picture is some 50 kB. */
const MOST_WAITING = 2500;

/** A page of an answer: what it is, and what people see of it; null where that is a PDF, whose pages are drawn when people look. */
export interface ReadPage {
  readonly type: string;
  readonly view: Uint8Array | null;
}

/** A file that lies on the disk, by the hash that its sender named. */
export interface SentFile {
  readonly path: string;
  readonly hash: string;
}

const helper = () =>
  new Helper({
    script: new URL('./pictureHelper.ts', import.meta.url),
    limitMs: LIMIT_MS,
    limitProcessorMs: LIMIT_PROCESSOR_MS,
    mostWaiting: MOST_WAITING,
  });

/**
 * Makes what a browser sent as a picture into one: Decoded and re-encoded, in processes of their own. Those who arrive
 * do not wait behind pages of answers.
 */
export class Pictures {
  private readonly arrivals = helper();
  private readonly pages = helper();

  /** Refuses what is no picture; what breaks the decoder, or keeps it busy, counts as none too. */
  async clean(bytes: Uint8Array, owner: string): Promise<Uint8Array> {
    try {
      return await this.arrivals.ask<Uint8Array>('clean', bytes, owner);
    } catch (error) {
      if (error instanceof TookTooLong) throw badRequest('pictureBroken');
      throw error;
    }
  }

  /**
   * Null for what is no page: no picture and no PDF, too large once it is opened, cut off, or one that keeps a decoder busy;
   * 'other bytes' where the file is not what its hash says.
   */
  async page(file: SentFile, owner: string): Promise<ReadPage | 'other bytes' | null> {
    try {
      return await this.pages.ask<ReadPage | 'other bytes' | null>('page', file, owner);
    } catch (error) {
      if (error instanceof TookTooLong) return null;
      throw error;
    }
  }

  /** How many pictures of people who arrive wait to be decoded. */
  get arrivalsQueued(): number {
    return this.arrivals.queued;
  }

  warmUp(): Promise<void> {
    return this.arrivals.warmUp();
  }

  close(): void {
    this.arrivals.close();
    this.pages.close();
  }
}

export interface HasPictures {
  readonly pictures: Pictures;
}
