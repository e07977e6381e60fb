/** What staff who run the server have to know of; where one `stops` the service, nothing can be saved until it is gone. */
export const troubleCodes = [
  'disk-full',
  'disk-low',
  'database-locked',
  'read-only',
  'database-broken',
  'checkpoint-failed',
  'jobs-failed',
  'clock',
] as const;
export type TroubleCode = (typeof troubleCodes)[number];

export interface Trouble {
  readonly code: TroubleCode;
  /** Since when it is known; server time, ms. */
  readonly since: number;
  /** How many jobs failed. */
  readonly count?: number;
  /** By how much the machine's clock is ahead of the server's time; ms, negative where it is behind. */
  readonly aheadMs?: number;
}

const STOPS: readonly TroubleCode[] = ['disk-full', 'database-locked', 'read-only', 'database-broken'];

/** Can nobody be served while this lasts? */
export const stopsService = ({ code }: Pick<Trouble, 'code'>): boolean => STOPS.includes(code);

/** What coordinators see: the troubles there are, and what time it is by the server and by its machine. */
export interface OperationsView {
  readonly troubles: readonly Trouble[];
  readonly serverNow: number;
}
