import { objectOf } from '../../core/validation/shapes';
import Joi from 'joi';
import { forAnyone, type Endpoint } from '../http/endpoint';
import { ApiError, conflict } from '../http/errors';
import { networkOf, perMinute } from '../http/limits';
import { addStaff } from './operations';
import { newPassword } from './passwords';
import type { HasDb } from '../db/open';
import type { HasFirstAccount } from './firstAccount';

interface FirstAccountBody {
  readonly secret: string;
  readonly name: string;
  readonly email: string;
  readonly password: string;
}

const body = objectOf<FirstAccountBody>({
  secret: Joi.string().max(100),
  name: Joi.string().trim().min(2).max(100),
  email: Joi.string().email({ tlds: false }).max(200),
  password: newPassword,
});

const TRIES_A_MINUTE = 20;

export function firstAccountEndpoints({ db, firstAccount }: HasDb & HasFirstAccount): Endpoint[] {
  const countTry = perMinute(TRIES_A_MINUTE, 'tooManyLinks');
  return [
    forAnyone({ method: 'post', path: '/first-account', body }, async ({ body: given, request }) => {
      await countTry(networkOf(request));
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
