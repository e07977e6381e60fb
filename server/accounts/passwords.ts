import { hash, verify } from '@node-rs/argon2';
import Joi from 'joi';
import { Gate } from '../http/limits';

/** Argon2id with the parameters of OWASP's password storage cheat sheet: 19 MiB, 2 passes, 1 lane. */
const ARGON = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };
/** Hashing a password takes 19 MiB and a processor for some ten milliseconds, by design. */
const [HASHES_AT_ONCE, HASHES_WAITING] = [2, 60];
/** Short passwords are guessed, whatever characters are in them. */
const SHORTEST_PASSWORD = 12;

export const newPassword = Joi.string().min(SHORTEST_PASSWORD).max(200).required();

export const hashOf = (password: string): Promise<string> => hash(password, ARGON);

/** Checks passwords, a few at once. */
export class PasswordCheck {
  private readonly gate = new Gate(HASHES_AT_ONCE, HASHES_WAITING);
  /** A sign-in to an unknown address takes as long as one to a known address. */
  private readonly decoy = hashOf('nobody has this password');

  async isRight(passwordHash: string | null, typed: string): Promise<boolean> {
    const known = passwordHash ?? (await this.decoy);
    const right = await this.gate.run(() => verify(known, typed));
    return passwordHash !== null && right;
  }
}
