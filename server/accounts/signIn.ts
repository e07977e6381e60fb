import { eq } from 'drizzle-orm';
import type { Request } from 'express';
import { staff } from '../db/schema';
import { ApiError } from '../http/errors';
import { networkOf, perMinute } from '../http/limits';
import { LONGEST_DELAY_MS, SlowDown } from '../http/slowDown';
import { waiting } from '../machine/pause';
import { claimedOwner, deviceToken, knownDevice } from './knownDevice';
import type { PasswordCheck } from './passwords';
import type { HasDb } from '../db/open';
import type { HasSecret } from '../db/serverSecret';

export type StaffMemberRow = typeof staff.$inferSelect;

/** Failures that cost nothing: of one account, of one network, of one device that has signed in before. */
const FREE = { account: 5, network: 20, device: 10 };
/** Requests of one network in a minute, read at all. */
const MOST_A_MINUTE = 300;

const wrong = () => new ApiError(401, 'wrong-sign-in');

/** However it was typed, it is one address: for finding somebody, and for counting who is guessed at. */
const addressOf = (typed: string) => typed.trim().toLowerCase();

/**
 * Signs staff in. Failures are counted by account and by network, and slow the next tries down; a device that has signed in
 * to the account before is counted by itself, so that nobody is kept from their account by what others do.
 */
export class SignIn {
  private readonly parts: HasDb & HasSecret;
  private readonly passwords: PasswordCheck;
  private readonly accounts = new SlowDown(FREE.account);
  private readonly networks = new SlowDown(FREE.network);
  private readonly devices = new SlowDown(FREE.device);
  private readonly countRequest = perMinute(MOST_A_MINUTE, 'tooManySignIns');

  constructor(parts: HasDb & HasSecret, passwords: PasswordCheck) {
    [this.parts, this.passwords] = [parts, passwords];
  }

  private find(by: { readonly email: string } | { readonly id: number }): StaffMemberRow | undefined {
    const where = 'email' in by ? eq(staff.email, by.email) : eq(staff.id, by.id);
    return this.parts.db.select().from(staff).where(where).get();
  }

  private nameOfDevice(member: StaffMemberRow | undefined, token: string | undefined): string | null {
    return member ? knownDevice(this.parts.secret, member, token) : null;
  }

  /** Before anything of a request is read. */
  async countRequestOf(request: Request, token: string | undefined): Promise<void> {
    const id = claimedOwner(token);
    if (id !== null && this.nameOfDevice(this.find({ id }), token) !== null) return;
    await this.countRequest(networkOf(request));
  }

  /** Waits as long as a try has to; throws where it would wait too long. Gives how to take it back. */
  private async slowDown(email: string, network: string, device: string | null): Promise<() => void> {
    const now = performance.now();
    // An account's tries may come from many networks: they do not wait for each other.
    const counted =
      device === null
        ? [
            { slow: this.accounts, key: email, wait: this.accounts.delay(email, now) },
            { slow: this.networks, key: network, wait: this.networks.queued(network, now) },
          ]
        : [{ slow: this.devices, key: device, wait: this.devices.queued(device, now) }];
    const wait = Math.max(...counted.map((one) => one.wait));
    if (wait > LONGEST_DELAY_MS) throw new ApiError(429, 'too-many-tries', { key: 'tooManySignIns' });
    for (const one of counted) one.slow.count(one.key, now, one.wait);
    if (wait > 0) await waiting.pause(wait);
    return () => {
      for (const { slow, key } of counted) slow.takeBack(key, performance.now());
    };
  }

  /** Who signs in, and what their device is given to be known again. Throws where somebody may not. */
  async check(
    request: Request,
    typed: { readonly email: string; readonly password: string },
    token: string | undefined,
  ): Promise<{ readonly member: StaffMemberRow; readonly device: string }> {
    const email = addressOf(typed.email);
    const member = this.find({ email });
    const takeBack = await this.slowDown(email, networkOf(request), this.nameOfDevice(member, token));
    const right = await this.passwords.isRight(member?.passwordHash ?? null, typed.password);
    if (!member || !right) throw wrong();
    takeBack();
    if (member.disabledAt !== null) throw new ApiError(403, 'account-disabled');
    return { member, device: deviceToken(this.parts.secret, member) };
  }
}
