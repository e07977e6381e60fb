import { findRound } from '../schedule/queries';
import type { HasDb } from '../db/open';
import type { HasSessions } from '../http/sessions';

/**
 * Whether somebody reads the results of a round without names: whoever marks in it, until it is signed off. Who also
 * coordinates the round knows its names from the list of those invited, and is not kept from them here.
 */
export function isBlind({ db, sessions }: HasDb & HasSessions, staffId: number, roundId: number): boolean {
  const round = findRound(db, roundId);
  return (
    round?.signedOffAt === null &&
    sessions.hasRole(staffId, roundId, ['assessor', 'lead']) &&
    !sessions.hasRole(staffId, roundId, ['coordinator'])
  );
}
