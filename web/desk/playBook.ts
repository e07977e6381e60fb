import type { PlayCounts, PlayReply } from '../../core/sittings/api';
import type { PlayKeeper, PlaysState } from '../media/plays';
import { orOnline } from '../api/orOnline';
import { keepPlay, type StoredPlay } from './journal/deviceStore';
import { retryAtEndMs } from './journal/sender';

/** Then the sitting is over, or somebody has to give it back. */
const MOST_TRIES = 100;

export interface PlayBookParts {
  readonly sitting: string;
  readonly counts: PlayCounts;
  readonly stored: readonly StoredPlay[];
  /** Sends what was written, uses among it, and asks for a play. */
  readonly ask: (file: string) => Promise<Pick<PlayReply, 'number' | 'plays'>>;
  /** Gives back a play that was not used, when another device has the desk. */
  readonly giveBack: (file: string) => Promise<unknown>;
}

/**
 * The plays of a sitting on this device. The server grants one at a time; one is held ready ahead, so that it can be used
 * without a connection. Its use is in the browser's database before the sound starts, and then an entry of the journal.
 */
export class PlayBook implements PlayKeeper {
  /** Puts the use of a play into the journal. */
  onUse: (file: string, number: number) => void = () => undefined;
  private readonly parts: PlayBookParts;
  private counts: PlayCounts;
  private readonly own: Map<string, StoredPlay>;
  private readonly playing = new Set<string>();
  private readonly asking = new Set<string>();
  private readonly listeners = new Set<() => void>();
  private closed = false;

  constructor(parts: PlayBookParts) {
    this.parts = parts;
    this.counts = parts.counts;
    this.own = new Map(parts.stored.map((play) => [play.file, play]));
  }

  /** Holds a play of each recording ready. */
  begin(): void {
    for (const file of Object.keys(this.counts)) void this.reserve(file);
  }

  /** Another device has the desk: what is held ready here is of no use any more, and is given back for that one. */
  lose(): void {
    this.closed = true;
    for (const play of this.own.values())
      if (!play.used)
        void this.keep({ ...play, used: true, begun: false }).then(() => this.giveBack(play.file));
  }

  close(): void {
    this.closed = true;
  }

  /** As the server has them now: an invigilator may have given one back. */
  takeCounts(counts: PlayCounts): void {
    if (JSON.stringify(counts) === JSON.stringify(this.counts)) return;
    this.counts = counts;
    this.tell();
    this.begin();
  }

  stateOf(file: string, plays: number): PlaysState {
    const { allowed, granted, unused } = this.counts[file] ?? { allowed: plays, granted: 0, unused: [] };
    const own = this.own.get(file);
    const ready = own !== undefined && !own.used;
    const gone = Math.max(granted, own?.number ?? 0);
    return {
      allowed,
      left: Math.max(0, allowed - gone) + (ready ? 1 : 0),
      ready,
      elsewhere: unused.filter((number) => number !== own?.number).length,
      broken: own?.begun === true && !this.playing.has(file),
    };
  }

  async use(file: string): Promise<boolean> {
    const own = this.own.get(file);
    if (!own || own.used) return false;
    await this.keep({ ...own, used: true, begun: true });
    this.playing.add(file);
    this.onUse(file, own.number);
    void this.reserve(file);
    return true;
  }

  finish(file: string, heard: boolean): void {
    this.playing.delete(file);
    const own = this.own.get(file);
    if (own && heard) void this.keep({ ...own, begun: false });
    else this.tell();
  }

  subscribe(listener: () => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  private async keep(play: StoredPlay): Promise<void> {
    this.own.set(play.file, play);
    await keepPlay(play);
    this.tell();
  }

  private tell(): void {
    for (const listener of this.listeners) listener();
  }

  /** Asks for the next play until there is an answer, later and later. */
  private async reserve(file: string): Promise<void> {
    if (this.asking.has(file)) return;
    this.asking.add(file);
    for (let failures = 0; this.wants(file); failures += 1) {
      const reply = await this.parts.ask(file).catch(() => null);
      if (reply) {
        this.counts = { ...this.counts, ...reply.plays };
        const known = this.own.get(file)?.number ?? 0;
        if (reply.number === null) break;
        // The use of the one before has yet to arrive: asked again.
        if (reply.number > known) {
          const begun = this.own.get(file)?.begun ?? false;
          const { sitting } = this.parts;
          await this.keep({ sitting, file, number: reply.number, used: false, begun });
        }
      }
      if (this.wants(file)) await orOnline(retryAtEndMs(failures + 1, Math.random()));
    }
    this.asking.delete(file);
    this.tell();
  }

  /** Until it is heard: without a connection it waits for one. */
  private async giveBack(file: string): Promise<void> {
    for (let failures = 1; ; failures += 1) {
      const given = await this.parts.giveBack(file).then(
        () => true,
        () => false,
      );
      if (given || failures > MOST_TRIES) return;
      await orOnline(retryAtEndMs(failures, Math.random()));
    }
  }

  private wants(file: string): boolean {
    const { left, ready } = this.stateOf(file, 0);
    return !this.closed && !ready && left > 0;
  }
}
