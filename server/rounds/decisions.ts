import { and, asc, eq, isNull } from 'drizzle-orm';
import type { Decided, Judged } from '../../core/journal/judge';
import { wholeForm } from '../../core/forms/drawForm';
import { candidateKindOf } from '../../core/kinds/candidateKindOf';
import { responseOrEmpty } from '../../core/kinds/stored';
import { say } from '../../core/messages/words';
import { allParts, type FullPaper } from '../../core/papers/paper';
import type { DecisionChoice, OpenDecision } from '../../core/rounds/decisions';
import { record } from '../audit/record';
import { decisions, invitations, people, rounds, sittings, staff } from '../db/schema';
import { conflict, notFound } from '../http/errors';
import type { Closing } from '../sittings/closing';
import { judge } from '../sittings/judging';
import { sittingQueries } from '../sittings/queries';
import { valueOf } from '../sittings/values';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasClock } from '../machine/clock';

type Row = typeof decisions.$inferSelect;

/** What the judge would be told if it were decided so. */
const asDecided = ({ kind, target, facts }: Row, take: boolean): Decided[] => {
  if (kind === 'late-entries') return [{ kind: 'late', upTo: facts.upTo!, count: take }];
  if (kind === 'writing-in-stop') return [{ kind: 'stop', target, without: !take }];
  if ((kind === 'two-versions' || kind === 'out-of-turn') && take)
    return [{ kind: 'version', target, choose: facts.other! }];
  return [];
};

function textsOf({ db }: HasDb, sitting: number, paper: FullPaper, { winners }: Judged): Map<string, string> {
  const find = sittingQueries(db);
  const answers: Record<string, unknown> = {};
  for (const { entry } of winners.values()) {
    const value = entry.about === 'answer' ? valueOf(find, sitting, entry) : null;
    if (value) answers[entry.target] = JSON.parse(value.text) as unknown;
  }
  return new Map(
    wholeForm(paper).paper.questions.flatMap((question) =>
      question.parts.map(({ target, kind, shown }) => {
        const response = responseOrEmpty(kind, shown, answers[target]);
        return [target, candidateKindOf(kind).describe(shown, response, say).text.slice(0, 400)] as const;
      }),
    ),
  );
}

function changesOf(
  services: HasClock & HasDb,
  closing: Closing,
  row: Row,
  sitting: typeof sittings.$inferSelect,
) {
  const judging = closing.judging(sitting);
  const now = services.clock.now();
  const by = (take: boolean) =>
    textsOf(services, sitting.id, judging.paper, judge(judging, now, asDecided(row, take)));
  const [leave, take] = [by(false), by(true)];
  return allParts(judging.paper).flatMap(({ target, item, part }) =>
    leave.get(target) === take.get(target)
      ? []
      : [
          {
            question: item.parts.length > 1 ? `${item.title}, part ${part.key}` : item.title,
            leave: leave.get(target)!,
            take: take.get(target)!,
          },
        ],
  );
}

const openIn = ({ db }: HasDb, roundId: number) =>
  db
    .select({ decision: decisions, sitting: sittings, person: people })
    .from(decisions)
    .innerJoin(sittings, eq(sittings.id, decisions.sittingId))
    .innerJoin(invitations, eq(invitations.id, sittings.invitationId))
    .innerJoin(people, eq(people.id, invitations.personId))
    .where(and(eq(invitations.roundId, roundId), isNull(decisions.decidedAt)))
    .orderBy(asc(decisions.id))
    .all();

/** What waits for a coordinator in a round: what it is about, and what the answers are one way and the other. */
export const openDecisions = (
  services: HasClock & HasDb,
  closing: Closing,
  roundId: number,
): OpenDecision[] =>
  openIn(services, roundId).map(({ decision, sitting, person }) => ({
    id: decision.id,
    kind: decision.kind,
    facts: decision.facts,
    name: person.name,
    reference: person.reference,
    closedAt: sitting.closedAt!,
    claimedHandInAt: sitting.claimedHandInAt,
    changes: changesOf(services, closing, decision, sitting),
  }));

/** Somebody was first: what they decided, and why, is told to whoever decided without knowing. */
function decidedAlready(db: HasDb['db'], id: number) {
  const found = db
    .select({ choice: decisions.choice, reason: decisions.reason, name: staff.name })
    .from(decisions)
    .innerJoin(staff, eq(staff.id, decisions.staffId))
    .where(eq(decisions.id, id))
    .get();
  if (!found) return conflict('decided');
  const { choice, reason, name } = found;
  return conflict('decided', {
    key: choice === 'take' ? 'decidedTake' : 'decidedLeave',
    values: { name, reason: reason ?? '' },
  });
}

export interface NewDecision {
  readonly id: number;
  readonly choice: DecisionChoice;
  readonly reason: string;
}

/**
 * A coordinator decides, with a reason on record. The journal stays as it is: the decision is a row of its own, and the
 * answers, a new receipt and the score follow from it.
 */
export async function decide(
  services: HasClock & HasDb & HasCommits,
  closing: Closing,
  who: { readonly staffId: number; readonly roundId: number },
  { id, choice, reason }: NewDecision,
): Promise<void> {
  const { db, clock, commits } = services;
  const { staffId, roundId } = who;
  const found = db
    .select({ decision: decisions, invitationId: sittings.invitationId, signedOffAt: rounds.signedOffAt })
    .from(decisions)
    .innerJoin(sittings, eq(sittings.id, decisions.sittingId))
    .innerJoin(invitations, eq(invitations.id, sittings.invitationId))
    .innerJoin(rounds, eq(rounds.id, invitations.roundId))
    .where(and(eq(decisions.id, id), eq(rounds.id, roundId)))
    .get();
  if (!found) throw notFound('noDecision');
  if (found.signedOffAt !== null) throw conflict('signed-off');
  await commits.run(() => {
    const open = and(eq(decisions.id, id), isNull(decisions.decidedAt));
    const made = { decidedAt: clock.now(), choice, staffId, reason };
    if (db.update(decisions).set(made).where(open).run().changes === 0) throw decidedAlready(db, id);
    const { sittingId } = found.decision;
    // What was decided, and how, is in the decision itself.
    record(services, {
      staffId,
      act: 'decided',
      subject: `decision ${id}`,
      reason,
      invitationId: found.invitationId,
    });
    closing.decided(sittingId);
  });
}
