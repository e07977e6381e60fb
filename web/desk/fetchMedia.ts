import type { MediaListing } from '../../core/sittings/api';
import { ApiProblem, getBytes, problem } from '../api/client';
import { forgetMedia, keepMediaPart, mediaParts, storedMedia } from './journal/deviceStore';
import { orOnline } from '../api/orOnline';

/** So much is asked for at a time: what a cut line has brought before is not fetched again. */
const PART_BYTES = 512 * 1024;
/** A part that takes longer is asked for again. */
const PATIENCE_MS = 60_000;
const LONGEST_WAIT_MS = 15_000;

export interface MediaProgress {
  readonly doneBytes: number;
  readonly allBytes: number;
  /** The connection is gone; it goes on by itself. */
  readonly waiting: boolean;
}

export const partsOf = ({ bytes }: MediaListing): number => Math.max(1, Math.ceil(bytes / PART_BYTES));

const hexOf = (bytes: ArrayBuffer) =>
  Array.from(new Uint8Array(bytes), (byte) => byte.toString(16).padStart(2, '0')).join('');

/** Is all of a file here, as the server has it? */
async function isWhole(listing: MediaListing): Promise<boolean> {
  const bytes = await storedMedia(listing.hash, partsOf(listing));
  return bytes !== null && hexOf(await crypto.subtle.digest('SHA-256', bytes)) === listing.hash;
}

const passes = (error: unknown) =>
  !(error instanceof ApiProblem) || error.status === 0 || error.status === 429 || error.status >= 500;

/** Longer and longer, with chance in it. */
const waitMs = (failures: number) =>
  Math.min(LONGEST_WAIT_MS, 500 * 2 ** failures) * (0.5 + Math.random() / 2);

/** One preparing of the media of a sitting: each part is kept as it comes, and asked for until it has come. */
class Fetching {
  private doneBytes = 0;
  private readonly allBytes: number;
  private readonly onProgress: (progress: MediaProgress) => void;
  private readonly signal: AbortSignal;

  constructor(
    listings: readonly MediaListing[],
    onProgress: (progress: MediaProgress) => void,
    signal: AbortSignal,
  ) {
    this.allBytes = listings.reduce((sum, one) => sum + one.bytes, 0);
    [this.onProgress, this.signal] = [onProgress, signal];
  }

  async file(listing: MediaListing): Promise<void> {
    // Told by its hash; one that came damaged is fetched once more, from its beginning.
    for (const last of [false, true]) {
      const before = this.doneBytes;
      await this.parts(listing);
      if (await isWhole(listing)) return;
      await forgetMedia([listing.hash]);
      this.doneBytes = before;
      if (last) throw problem('paperBroken');
    }
  }

  private async parts(listing: MediaListing): Promise<void> {
    const here = await mediaParts(listing.hash);
    for (let part = 0; part < partsOf(listing); part++) {
      const from = part * PART_BYTES;
      const size = Math.min(PART_BYTES, listing.bytes - from);
      if (!here.has(part)) {
        const bytes = await this.part(listing, from, size);
        // Handed in meanwhile: nothing is left behind.
        this.signal.throwIfAborted();
        await keepMediaPart(listing.hash, part, bytes);
      }
      this.doneBytes += size;
      this.tell(false);
    }
  }

  private async part({ hash }: MediaListing, from: number, size: number): Promise<Uint8Array<ArrayBuffer>> {
    for (let failures = 0; ; failures += 1) {
      this.signal.throwIfAborted();
      try {
        const bytes = await getBytes(`/sitting/media/${hash}`, {
          headers: { Range: `bytes=${from}-${from + size - 1}` },
          signal: AbortSignal.any([this.signal, AbortSignal.timeout(PATIENCE_MS)]),
        });
        if (bytes.length === size) return bytes;
        if (bytes.length > size) return bytes.slice(from, from + size);
      } catch (error) {
        this.signal.throwIfAborted();
        if (!passes(error)) throw error;
      }
      this.tell(true);
      await orOnline(waitMs(failures));
    }
  }

  private tell(waiting: boolean): void {
    this.onProgress({ doneBytes: this.doneBytes, allBytes: this.allBytes, waiting });
  }
}

/** Brings the sealed media of a sitting onto the device; what was brought before, also by an earlier page, stays. */
export async function fetchMedia(
  listings: readonly MediaListing[],
  onProgress: (progress: MediaProgress) => void,
  signal: AbortSignal,
): Promise<void> {
  const fetching = new Fetching(listings, onProgress, signal);
  for (const listing of listings) await fetching.file(listing);
}
