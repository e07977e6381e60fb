import type { WatchAct } from '../../core/watch/api';
import { audit } from '../db/schema';
import type { Db } from '../db/open';
import type { Clock } from '../machine/clock';

/** What is put on record, as a code. */
export type RecordedAct =
  | WatchAct
  | 'accepted-answer'
  | 'corrected-key'
  | 'took-back-correction'
  | 'set-bands'
  | 'agreed-marks'
  | 'agreed-to-void'
  | 'answered-check'
  | 'asked-candidate'
  | 'attached-file'
  | 'believed-clock'
  | 'changed-marking'
  | 'changed-password'
  | 'declared-interest'
  | 'disabled-account'
  | 'enabled-account'
  | 'ended-sessions'
  | 'made-link'
  | 'decided'
  | 'entered-by-door-code'
  | 'gave-wrong-door-code'
  | 'ended-hold'
  | 'held-marking'
  | 'imported-paper'
  | 'imported-people'
  | 'judged-sitting'
  | 'made-pack'
  | 'made-round'
  | 'messaged-everyone'
  | 'ran-job-again'
  | 'released'
  | 'released-practice'
  | 'closed-practice'
  | 'commented'
  | 'remarked'
  | 'renewed-link'
  | 'settled-correction'
  | 'took-file-away'
  | 'reopened-correction'
  | 'settled-gap'
  | 'signed-off'
  | 'signed-off-item'
  | 'viewed-picture'
  | 'weighed-observation';

export interface AuditEntry {
  readonly staffId?: number | null;
  readonly act: RecordedAct;
  readonly subject: string;
  readonly invitationId?: number | null;
  readonly reason?: string;
}

/**
 * Puts an act on record: who did what, to whom, and why. Part of the transaction of the act itself, so that neither is
 * there without the other; throws outside of one.
 */
export function record({ db, clock }: { readonly db: Db; readonly clock: Clock }, act: AuditEntry): void {
  if (!db.$client.inTransaction) throw new Error(`${act.act} is put on record apart from what it records`);
  db.insert(audit)
    .values({ staffId: null, invitationId: null, reason: '', ...act, at: clock.now() })
    .run();
}
