import { mediaName } from '../../core/sittings/mediaName';
import type { MediaListing } from '../../core/sittings/api';
import type { FileSource } from '../media/fileSource';
import { fetchMedia, partsOf } from './fetchMedia';
import { digest } from './journal/digest';
import { mediaParts, storedMedia } from './journal/deviceStore';
import { unsealBytes } from './unseal';

/** The files of a sitting: sealed on the device, and opened when they are first shown. */
export class DeskFiles implements FileSource {
  private readonly listings: ReadonlyMap<string, MediaListing>;
  private keys: readonly string[];
  private readonly opened = new Map<string, Promise<string | null>>();
  private readonly addresses = new Map<string, string>();
  private readonly leaving = new AbortController();

  constructor(listings: readonly MediaListing[], keys: Readonly<Record<string, string>>) {
    this.listings = new Map(listings.map((one) => [one.name, one]));
    this.keys = Object.values(keys);
  }

  /** A section was entered: its key opens its media. */
  takeKeys(keys: Readonly<Record<string, string>>): void {
    this.keys = Object.values(keys);
  }

  address(file: string): string | null {
    return this.addresses.get(file) ?? null;
  }

  open(file: string, type = ''): Promise<string | null> {
    const known = this.opened.get(file);
    if (known) return known;
    const opening = this.bytes(file).then((bytes) => {
      if (bytes === null) {
        // Its key may come with a section.
        this.opened.delete(file);
        return null;
      }
      const address = URL.createObjectURL(new Blob([bytes], { type }));
      this.addresses.set(file, address);
      return address;
    });
    this.opened.set(file, opening);
    return opening;
  }

  async bytes(file: string): Promise<Uint8Array<ArrayBuffer> | null> {
    for (const key of this.keys) {
      const listing = this.listings.get(mediaName(key, file, digest));
      if (!listing) continue;
      const sealed = await this.sealed(listing).catch(() => null);
      return sealed && unsealBytes(sealed, key).catch(() => null);
    }
    return null;
  }

  /** Brings what is not here: a device that took the desk over has fetched nothing before the start. */
  complete(): void {
    const missing = async () => {
      for (const listing of this.listings.values())
        if ((await mediaParts(listing.hash)).size < partsOf(listing)) await this.fetch(listing);
    };
    // What cannot be brought now is brought when it is wanted.
    missing().catch(() => undefined);
  }

  private async sealed(listing: MediaListing): Promise<Uint8Array<ArrayBuffer> | null> {
    const here = await storedMedia(listing.hash, partsOf(listing));
    if (here) return here;
    await this.fetch(listing);
    return storedMedia(listing.hash, partsOf(listing));
  }

  private fetch(listing: MediaListing): Promise<void> {
    return fetchMedia([listing], () => undefined, this.leaving.signal);
  }

  /** Nothing of it stays in this page, and nothing more comes. */
  close(): void {
    this.leaving.abort();
    for (const address of this.addresses.values()) URL.revokeObjectURL(address);
    this.addresses.clear();
    this.opened.clear();
    this.keys = [];
  }
}
