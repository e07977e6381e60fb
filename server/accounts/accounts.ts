import { hash, verify } from '@node-rs/argon2';
import { eq } from 'drizzle-orm';
import Joi from 'joi';
import type { Role, StaffMember } from '../../core/rounds/api';
import type { Db } from '../db/open';
import { staff } from '../db/schema';
import { forAnyone, type Endpoint } from '../http/endpoint';
import { ApiError, notSignedIn } from '../http/errors';
import { FailureLimit, Gate } from '../http/limits';
import type { Services } from '../services';

/** Argon2id with the parameters of OWASP's password storage cheat sheet: 19 MiB, 2 passes, 1 lane. */
const ARGON = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export async function addStaff(
  db: Db,
  member: { email: string; name: string; password: string; roles: Role[] },
  /** Looked at when the account is made: hashing takes a moment. */
  stillRight: () => void = () => undefined,
): Promise<void> {
  const passwordHash = await hash(member.password, ARGON);
  stillRight();
  db.insert(staff)
    .values({ email: member.email, name: member.name, roles: member.roles, passwordHash })
    .run();
}

const wrong = () => new ApiError(401, 'wrong-sign-in');

/** However it was typed, it is one address: for finding somebody, and for counting who is guessed at. */
const addressOf = (typed: string) => typed.trim().toLowerCase();

/** Ten wrong passwords at one account, or thirty in all, in a quarter of an hour from one address. */
const TRIES = { atOne: 10, inAll: 30, windowMs: 15 * 60_000 };
/** Hashing a password takes 19 MiB and a processor for some ten milliseconds, by design. */
const [HASHES_AT_ONCE, HASHES_WAITING] = [2, 60];

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
  const tries = new FailureLimit(TRIES, 'tooManySignIns');
  const hashing = new Gate(HASHES_AT_ONCE, HASHES_WAITING);
  return [
    forAnyone(
      { method: 'post', path: '/sign-in', body: signInBody },
      async ({ body, request, response }): Promise<StaffMember> => {
        const [caller, email] = [request.ip ?? '', addressOf(body.email)];
        await tries.count(caller, email);
        const member = db.select().from(staff).where(eq(staff.email, email)).get();
        const known = member?.passwordHash ?? (await decoy);
        const right = await hashing.run(() => verify(known, body.password));
        if (!member || !right) throw wrong();
        await tries.succeeded(caller, email);
        sessions.openForStaff(request, response, member.id);
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
