import { audit } from '../db/schema';
import type { Services } from '../services';

export interface Act {
  readonly staffId?: number | null;
  readonly act: string;
  readonly subject: string;
  readonly invitationId?: number | null;
  readonly reason?: string;
}

/** Puts an act on record: who did what, to whom, and why. */
export function record({ db, clock }: Pick<Services, 'db' | 'clock'>, act: Act): void {
  db.insert(audit)
    .values({ staffId: null, invitationId: null, reason: '', ...act, at: clock.now() })
    .run();
}
