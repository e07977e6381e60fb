import { count } from 'drizzle-orm';
import Joi from 'joi';
import type { Db } from '../db/open';
import { staff } from '../db/schema';
import { forAnyone, type Endpoint } from '../http/endpoint';
import { ApiError, conflict } from '../http/errors';
import { perMinute } from '../http/limits';
import { newSecret, sha256 } from '../http/secrets';
import type { Services } from '../services';
import { addStaff } from './accounts';

interface FirstAccountBody {
  readonly secret: string;
  readonly name: string;
  readonly email: string;
  readonly password: string;
}

/** Short passwords are guessed, whatever signs are in them. */
export const SHORTEST_PASSWORD = 12;

const body = Joi.object<FirstAccountBody>({
  secret: Joi.string().max(100).required(),
  name: Joi.string().trim().min(2).max(100).required(),
  email: Joi.string().email({ tlds: false }).max(200).required(),
  password: Joi.string().min(SHORTEST_PASSWORD).max(200).required(),
});

const TRIES_A_MINUTE = 20;

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

export function firstAccountEndpoints({ db, firstAccount }: Services): Endpoint[] {
  const countTry = perMinute(TRIES_A_MINUTE, 'tooManyLinks');
  return [
    forAnyone({ method: 'post', path: '/first-account', body }, async ({ body: given, request }) => {
      await countTry(request.ip ?? '');
      if (!firstAccount.isRight(given.secret)) throw new ApiError(404, 'wrong-first-link');
      const { name, email, password } = given;
      await addStaff(db, { name, email: email.toLowerCase(), password, roles: ['coordinator'] }, () => {
        // Two at once: the first one has it.
        if (firstAccount.open() === null) throw conflict('account-taken');
      });
      return {};
    }),
  ];
}
