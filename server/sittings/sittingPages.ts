import type { PagePartReply } from '../../core/files/pages';
import { PAGES_MS } from '../../core/timing/deadline';
import { notFound } from '../http/errors';
import type { PagePart } from '../uploads/uploads';
import type { Closing } from './closing';
import { filesOfSitting } from './pages';
import type { Sitting } from './queries';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasHub } from '../events/hub';
import type { HasUploads } from '../uploads/uploads';

/** What is needed here of the server. */
interface Needs extends HasDb, HasCommits, HasHub, HasUploads {}

export interface PartOfPage extends PagePart {
  readonly hash: string;
  /** How large the whole file is said to be. */
  readonly of: number;
}

/** Takes bytes of pages from a candidate's devices, while they work and after the end. */
export class SittingPages {
  private readonly services: Needs;
  private readonly closing: Closing;

  constructor(services: Needs, closing: Closing) {
    [this.services, this.closing] = [services, closing];
  }

  /** While the paper is open any page may come before the answer that names it; afterwards only what an answer names. */
  async take(sitting: Sitting, { hash, of, ...part }: PartOfPage): Promise<PagePartReply> {
    const { db, uploads, commits, hub } = this.services;
    const { id, invitationId: invitation, attempt, closedAt } = sitting;
    if (closedAt !== null && !filesOfSitting(db, id).some((file) => file.hash === hash))
      throw notFound('noPage');
    const lateAfter = closedAt === null ? null : closedAt + PAGES_MS;
    const reply = await uploads.take({ sitting: id, invitation, attempt, hash, bytes: of, lateAfter }, part);
    if (reply.state !== 'partly') {
      await commits.run(() => this.closing.pagesChanged(id));
      hub.tell(`invitation ${invitation}`, invitation);
    }
    return reply;
  }
}
