import { hash, verify } from '@node-rs/argon2';
import { eq } from 'drizzle-orm';
import { rateLimit } from 'express-rate-limit';
import Joi from 'joi';
import type { Role, StaffMember } from '../../core/rounds/api';
import type { Db } from '../db/open';
import { staff } from '../db/schema';
import { forAnyone, type Endpoint } from '../http/endpoint';
import { ApiError, notSignedIn } from '../http/errors';
import type { Services } from '../services';

/** Argon2id with the parameters of OWASP's password storage cheat sheet: 19 MiB, 2 passes, 1 lane. */
const ARGON = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export async function addStaff(
  db: Db,
  member: { email: string; name: string; password: string; roles: Role[] },
): Promise<void> {
  const passwordHash = await hash(member.password, ARGON);
  db.insert(staff)
    .values({ email: member.email, name: member.name, roles: member.roles, passwordHash })
    .run();
}

const wrong = () => new ApiError(401, 'wrong-sign-in');

/** However it was typed, it is one address: for finding somebody, and for counting who is guessed at. */
const addressOf = (typed: string) => typed.trim().toLowerCase();

export const signInLimit = rateLimit({
  windowMs: 15 * 60_000,
  limit: 20,
  keyGenerator: ({ body }: { body?: { email?: unknown } }) =>
    typeof body?.email === 'string' ? addressOf(body.email) : '',
  skipSuccessfulRequests: true,
  handler: () => {
    throw new ApiError(429, 'too-many-tries', { key: 'tooManySignIns' });
  },
});

interface SignIn {
  email: string;
  password: string;
}

const signInBody = Joi.object<SignIn>({
  email: Joi.string().max(200).required(),
  password: Joi.string().max(200).required(),
});

export function accountEndpoints({ db, sessions }: Services): Endpoint[] {
  // A sign-in to an unknown address takes as long as one to a known address.
  const decoy = hash('nobody has this password', ARGON);
  return [
    forAnyone(
      { method: 'post', path: '/sign-in', body: signInBody },
      async ({ body, response }): Promise<StaffMember> => {
        const member = db
          .select()
          .from(staff)
          .where(eq(staff.email, addressOf(body.email)))
          .get();
        const right = await verify(member?.passwordHash ?? (await decoy), body.password);
        if (!member || !right) throw wrong();
        sessions.openForStaff(response, member.id);
        return { name: member.name, roles: member.roles };
      },
    ),
    forAnyone({ method: 'post', path: '/sign-out', body: Joi.object({}) }, ({ request, response }) => {
      sessions.closeForStaff(request, response);
      return {};
    }),
    forAnyone({ method: 'get', path: '/me' }, ({ request }): StaffMember => {
      const who = sessions.staffOf(request);
      if (!who) throw notSignedIn();
      return { name: who.name, roles: who.roles };
    }),
  ];
}
