import type { Services } from '../services';
import { findRound } from '../schedule/queries';

/**
 * Whether somebody reads the results of a round without names: whoever marks in it, until it is signed off. Who also
 * coordinates the round knows its names from the list of those invited, and is not kept from them here.
 */
export function isBlind(
  { db, sessions }: Pick<Services, 'db' | 'sessions'>,
  staffId: number,
  roundId: number,
): boolean {
  const round = findRound(db, roundId);
  return (
    round?.signedOffAt === null &&
    sessions.hasRole(staffId, roundId, ['assessor', 'lead']) &&
    !sessions.hasRole(staffId, roundId, ['coordinator'])
  );
}
