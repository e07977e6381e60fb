import { and, eq, isNotNull } from 'drizzle-orm';
import type { FullPaper } from '../../core/papers/paper';
import { partsOfScript, type ScriptPart } from '../../core/scoring/script';
import type { Db } from '../db/open';
import { invitations, sittings, type rounds } from '../db/schema';
import { formById } from '../forms/forms';
import type { Sitting } from './queries';
import { answersOfReceipt, newestReceipt } from './receipts';

/** The scripts of a round that are handed in. */
export const scriptsOf = (db: Db, roundId: number): Sitting[] =>
  db
    .select({ sitting: sittings })
    .from(sittings)
    .innerJoin(invitations, eq(invitations.id, sittings.invitationId))
    .where(and(eq(invitations.roundId, roundId), isNotNull(sittings.closedAt)))
    .all()
    .map((row) => row.sitting);

interface ItemJudged {
  /** As it judges. */
  readonly paper: FullPaper;
  readonly round: Pick<typeof rounds.$inferSelect, 'settings'>;
  /** The key of the item. */
  readonly item: string;
}

/** The parts of one item in a script that is handed in, in the order of the paper. */
export function partsOfItem(db: Db, sitting: Sitting, { paper, round, item }: ItemJudged): ScriptPart[] {
  const receipt = newestReceipt(db, sitting.id);
  if (!receipt) return [];
  const answers = answersOfReceipt(db, receipt);
  const script = { paper, form: formById(db, sitting.formId), answers, locale: round.settings.locale };
  return partsOfScript(script).filter((part) => part.item.key === item);
}
