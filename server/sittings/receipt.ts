import { foldJournal, type Desk } from '../../core/journal/fold';
import { canonicalJson, receiptCode } from '../../core/journal/receipt';
import { kindOf } from '../../core/kinds/registry';
import { allParts } from '../../core/papers/paper';
import { answerToScore } from '../../core/scoring/scoreSitting';
import type { Receipt } from '../../core/sittings/api';
import { usedMs } from '../../core/timing/sittingTime';
import { findInvited, paperOf } from '../arrival/queries';
import { sha256 } from '../http/secrets';
import type { Services } from '../services';
import { sittingQueries, type Sitting } from './queries';

/** A hand-in that took longer to arrive than this was made without a connection. */
const ARRIVED_LATER_MS = 10_000;

/** The current answers of a sitting, from its whole journal. */
export const deskOf = ({ db }: Pick<Services, 'db'>, sittingId: number) =>
  foldJournal(sittingQueries(db).entriesOf(sittingId));

/** SHA-256 over the canonical JSON of all current answers: proves later that the marked script is this one. */
export const receiptHashOf = (
  services: Pick<Services, 'db'>,
  sittingId: number,
  { answers }: Pick<Desk, 'answers'> = deskOf(services, sittingId),
): string => sha256(canonicalJson(answers));

export function receiptOf(
  services: Pick<Services, 'db' | 'time'>,
  sitting: Sitting,
  { answers }: Pick<Desk, 'answers'> = deskOf(services, sitting.id),
): Receipt {
  const { closedAt, closedBy, receiptHash, startedAt, handedInAt, receivedAt } = sitting;
  if (closedAt === null || closedBy === null || receiptHash === null || startedAt === null)
    throw new Error('a running sitting has no receipt');
  const parts = allParts(paperOf(services.db, findInvited(services.db, sitting.invitationId)!));
  const answered = parts.filter((place) => {
    const kind = kindOf(place.part.kind);
    return kind.progress(kind.show(place.part.content), answerToScore(answers, place)).state !== 'empty';
  });
  return {
    code: receiptCode(receiptHash),
    handedInAt: handedInAt ?? closedAt,
    arrivedAt:
      receivedAt !== null && receivedAt - (handedInAt ?? closedAt) > ARRIVED_LATER_MS ? receivedAt : null,
    usedMs: usedMs(services.time.of(sitting.id), handedInAt ?? closedAt),
    closedBy,
    answered: answered.length,
    parts: parts.length,
  };
}
