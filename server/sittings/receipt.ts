import { foldJournal } from '../../core/journal/fold';
import { canonicalJson, receiptCode } from '../../core/journal/receipt';
import { kindOf } from '../../core/kinds/registry';
import { allParts } from '../../core/papers/paper';
import { answerToScore } from '../../core/scoring/scoreSitting';
import type { Receipt } from '../../core/sittings/api';
import { findInvited, paperOf } from '../arrival/queries';
import { sha256 } from '../http/secrets';
import type { Services } from '../services';
import { sittingQueries, type Sitting } from './queries';

/** The current answers of a sitting, from its whole journal. */
export const deskOf = ({ db }: Pick<Services, 'db'>, sittingId: number) =>
  foldJournal(sittingQueries(db).entriesOf(sittingId));

/** SHA-256 over the canonical JSON of all current answers: proves later that the marked script is this one. */
export const receiptHashOf = (services: Pick<Services, 'db'>, sittingId: number): string =>
  sha256(canonicalJson(deskOf(services, sittingId).answers));

export function receiptOf(services: Pick<Services, 'db'>, sitting: Sitting): Receipt {
  const { closedAt, closedBy, receiptHash, startedAt } = sitting;
  if (closedAt === null || closedBy === null || receiptHash === null || startedAt === null)
    throw new Error('a running sitting has no receipt');
  const { answers } = deskOf(services, sitting.id);
  const parts = allParts(paperOf(services.db, findInvited(services.db, sitting.invitationId)!));
  const answered = parts.filter((place) => {
    const kind = kindOf(place.part.kind);
    return kind.progress(kind.show(place.part.content), answerToScore(answers, place)).state !== 'empty';
  });
  return {
    code: receiptCode(receiptHash),
    handedInAt: closedAt,
    usedMs: closedAt - startedAt,
    closedBy,
    answered: answered.length,
    parts: parts.length,
  };
}
