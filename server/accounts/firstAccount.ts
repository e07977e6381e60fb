import { count } from 'drizzle-orm';
import type { Db } from '../db/open';
import { staff } from '../db/schema';
import { newSecret, sha256 } from '../secrets';

/**
 * The way in where nobody has an account yet: a link that stands in the server's log, so that only whoever runs the
 * server can use it. It works until there is an account, and each start makes another.
 */
export class FirstAccount {
  private readonly db: Db;
  private readonly secret = newSecret();

  constructor(db: Db) {
    this.db = db;
  }

  /** The secret of the link; null once there is an account. */
  open(): string | null {
    return this.db.select({ n: count() }).from(staff).get()!.n === 0 ? this.secret : null;
  }

  isRight(given: string): boolean {
    const secret = this.open();
    // Compared as hashes, so that the time it takes tells nothing.
    return secret !== null && sha256(given) === sha256(secret);
  }
}

export interface HasFirstAccount {
  readonly firstAccount: FirstAccount;
}
