import { createHmac, timingSafeEqual } from 'node:crypto';
import { newSecret } from '../secrets';

/** Who a device signed in as, and the hash of the password that was right then. */
export interface DeviceOwner {
  readonly id: number;
  readonly passwordHash: string;
}

const signatureOf = (secret: string, { id, passwordHash }: DeviceOwner, name: string): Buffer =>
  createHmac('sha256', secret)
    .update(JSON.stringify(['device', id, passwordHash, name]))
    .digest();

/** What a device is given at a sign-in, to be known again. It holds until the password changes. */
export function deviceToken(secret: string, owner: DeviceOwner): string {
  const name = newSecret();
  return `${owner.id}.${name}.${signatureOf(secret, owner, name).toString('base64url')}`;
}

/** Whose device it claims to be; null where it is no such token. */
export function claimedOwner(token: string | undefined): number | null {
  const id = token?.split('.')[0];
  return id !== undefined && /^\d{1,9}$/.test(id) ? Number(id) : null;
}

/** The name of a device that has signed in as this owner before; null where the token is not of ours, or of another time. */
export function knownDevice(secret: string, owner: DeviceOwner, token: string | undefined): string | null {
  const [id, name, signature, ...more] = (token ?? '').slice(0, 200).split('.');
  if (Number(id) !== owner.id || !name || !signature || more.length > 0) return null;
  const given = Buffer.from(signature, 'base64url');
  const right = signatureOf(secret, owner, name);
  return given.length === right.length && timingSafeEqual(given, right) ? name : null;
}
