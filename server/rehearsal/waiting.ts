import { randomBytes } from 'node:crypto';
import type { RehearsalScore } from '../../core/rehearsal/api';
import { ApiError, notFound } from '../http/errors';

/** Rehearsals that may wait to be scored: more are told to try again. */
const MOST = 200;
/** How long a sheet waits for whoever asked for it; nothing of a rehearsal is written anywhere. */
const KEPT_MS = 10 * 60_000;

type State =
  | { readonly is: 'waiting' }
  | { readonly is: 'done' /** As JSON. */; readonly sheet: string }
  | { readonly is: 'failed' };

/** Rehearsals that are being scored, in memory only: their programs wait for the sandbox like everybody's. */
export class WaitingRehearsals {
  private readonly known = new Map<string, State>();
  private readonly before: (owner: string) => number;

  constructor(before: (owner: string) => number) {
    this.before = before;
  }

  /** Refuses, to be tried again, where too many wait already. */
  hasRoom(): void {
    const waiting = [...this.known.values()].filter((state) => state.is === 'waiting').length;
    if (waiting >= MOST) throw new ApiError(503, 'busy', { key: 'busyRuns' });
  }

  /** Begins to score; what it gives back is asked for by the ticket. The owner of the runs is `rehearsal` and the ticket. */
  add(score: (owner: string) => Promise<string>): string {
    this.hasRoom();
    const ticket = randomBytes(18).toString('base64url');
    this.known.set(ticket, { is: 'waiting' });
    const settle = (state: State) => {
      this.known.set(ticket, state);
      setTimeout(() => this.known.delete(ticket), KEPT_MS).unref();
    };
    score(`rehearsal ${ticket}`).then(
      (sheet) => settle({ is: 'done', sheet }),
      () => settle({ is: 'failed' }),
    );
    return ticket;
  }

  /** As JSON of a `RehearsalScore`. */
  stateOf(ticket: string): string {
    const state = this.known.get(ticket);
    if (!state) throw notFound('noScore');
    if (state.is === 'failed') throw new ApiError(503, 'not-scored');
    if (state.is === 'done') return `{"sheet":${state.sheet}}`;
    return JSON.stringify({ before: this.before(`rehearsal ${ticket}`) } satisfies RehearsalScore);
  }
}
