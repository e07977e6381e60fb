import { EventEmitter } from 'node:events';

/** Who wants to know: one invitation, or everybody who watches a round. */
export type Channel = `invitation ${number}` | `round ${number}`;

/** Tells those who listen that something of theirs has changed; what it is they look up themselves. */
export class Hub {
  private readonly emitter = new EventEmitter().setMaxListeners(0);
  /** When something was last heard of a candidate; not worth a row in the database. */
  private readonly heard = new Map<number, number>();

  listen(channel: Channel, changed: () => void): () => void {
    this.emitter.on(channel, changed);
    return () => this.emitter.off(channel, changed);
  }

  tell(channel: Channel): void {
    this.emitter.emit(channel);
  }

  /** Something of a candidate has changed that they and their invigilators should see. */
  tellOf(invitation: number, round: number): void {
    this.tell(`invitation ${invitation}`);
    this.tell(`round ${round}`);
  }

  hear(invitation: number, at: number): void {
    this.heard.set(invitation, at);
  }

  heardAt(invitation: number): number | null {
    return this.heard.get(invitation) ?? null;
  }
}
