import { takesPicture } from '../../core/arrival/picture';
import { stageOf, type Stage } from '../../core/arrival/stage';
import { MINUTE_MS } from '../../core/timing/deadline';
import { linkNeeded } from '../http/errors';
import type { Reading } from '../reading/read';
import {
  findArrival,
  findInvited,
  isScored,
  sittingsOf,
  type Arrival,
  type InvitedCandidate,
} from './queries';

export const doorsAt = ({ opensAt, settings }: InvitedCandidate['round']) =>
  opensAt - settings.doorsMinutes * MINUTE_MS;

export interface ArrivalState {
  readonly invited: InvitedCandidate;
  readonly attempt: number;
  readonly arrival: Arrival | null;
  readonly stage: Stage;
  /** Whether the candidate may see what is marked. */
  readonly released: boolean;
}

/** Where the candidate of an invitation stands, from what is on record. */
export function arrivalStateOf(
  { db, clock }: Pick<Reading, 'db' | 'clock'>,
  invitationId: number,
): ArrivalState {
  const invited = findInvited(db, invitationId);
  if (!invited) throw linkNeeded();
  const own = sittingsOf(db, invitationId);
  const closed = own.filter((s) => s.closedAt !== null).length;
  const attempt = Math.min(closed + 1, invited.round.settings.attemptsAllowed);
  const arrival = findArrival(db, invitationId, attempt);
  const demanded = invited.round.settings.checks;
  // Where results are shown at once, as provisional: as soon as the machine has scored and nothing is outstanding.
  const released =
    invited.round.releasedAt !== null ||
    (invited.round.settings.release === 'at once' &&
      own.some((s) => s.closedAt !== null) &&
      own.every((s) => s.closedAt === null || isScored(s)));
  const stage = stageOf({
    now: clock.now(),
    doorsAt: doorsAt(invited.round),
    opensAt: invited.round.opensAt,
    closesAt: invited.round.closesAt,
    startRule: invited.round.settings.startRule,
    admitted: arrival?.admittedAt != null,
    attemptsAllowed: invited.round.settings.attemptsAllowed,
    pauseMs: invited.round.settings.pauseMinutes * MINUTE_MS,
    requested: arrival?.begunAt != null,
    sittings: own,
    done: {
      details:
        arrival?.detailsAt != null &&
        (!invited.round.settings.correctionsFirst ||
          arrival.correction === null ||
          arrival.correctionSettledAt !== null),
      checks: demanded.length === 0 || arrival?.checksAt != null,
      picture:
        !takesPicture(invited.round.settings) ||
        (arrival?.pictureAt != null &&
          (!invited.round.settings.identityPicture || arrival.identityAt !== null)),
      rules: arrival?.rulesAt != null,
    },
    released,
  });
  return { invited, attempt, arrival, stage, released };
}
