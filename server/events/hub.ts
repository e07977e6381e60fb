import { EventEmitter } from 'node:events';

/** Who wants to know: one invitation, or everybody who watches a round. */
export type Channel = `invitation ${number}` | `round ${number}`;

/** What has changed of a candidate: something that others must see at once, or only that they wrote on. */
export type News = 'change' | 'progress';

type Listener = (invitation: number | null, news: News) => void;

/** Tells those who listen that something of theirs has changed; what it is they look up themselves. */
export class Hub {
  private readonly emitter = new EventEmitter().setMaxListeners(0);
  /** When something was last heard of a candidate; not worth a row in the database. */
  private readonly heard = new Map<number, number>();

  listen(channel: Channel, changed: Listener): () => void {
    this.emitter.on(channel, changed);
    return () => this.emitter.off(channel, changed);
  }

  tell(channel: Channel, invitation: number | null = null, news: News = 'change'): void {
    this.emitter.emit(channel, invitation, news);
  }

  /** Something of a candidate has changed that they and their invigilators should see. */
  tellOf(invitation: number, round: number): void {
    this.tell(`invitation ${invitation}`, invitation);
    this.tell(`round ${round}`, invitation);
  }

  noteContact(invitation: number, at: number): void {
    this.heard.set(invitation, at);
  }

  heardAt(invitation: number): number | null {
    return this.heard.get(invitation) ?? null;
  }
}

export interface HasHub {
  readonly hub: Hub;
}
