import Joi from 'joi';
import { forAnyone, type Endpoint } from '../http/endpoint';
import { ApiError, conflict } from '../http/errors';
import { perMinute } from '../http/limits';
import type { Services } from '../services';
import { addStaff } from './accounts';

interface FirstAccountBody {
  readonly secret: string;
  readonly name: string;
  readonly email: string;
  readonly password: string;
}

/** Short passwords are guessed, whatever signs are in them. */
const SHORTEST_PASSWORD = 12;

const body = Joi.object<FirstAccountBody>({
  secret: Joi.string().max(100).required(),
  name: Joi.string().trim().min(2).max(100).required(),
  email: Joi.string().email({ tlds: false }).max(200).required(),
  password: Joi.string().min(SHORTEST_PASSWORD).max(200).required(),
});

const TRIES_A_MINUTE = 20;

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
