import { and, eq } from 'drizzle-orm';
import { emptyDocument, type Document } from '../../core/documents/document';
import { wholeForm } from '../../core/forms/drawForm';
import { keyKindOf } from '../../core/kinds/keyKinds';
import { sumMarks, type Hundredths } from '../../core/marks';
import type { ItemSettings } from '../../core/marking/api';
import type { Question, ShownPart } from '../../core/papers/candidatePaper';
import { allParts, type FullPaper, type PartInPlace } from '../../core/papers/paper';
import { byPeople, componentsOf } from '../../core/scoring/components';
import type { Db } from '../db/open';
import { itemMarking, rounds } from '../db/schema';
import { notFound } from '../http/errors';
import { paperOfVersion } from '../papers/papers';
import { findRound } from '../schedule/queries';

/** A part of a paper as it is marked in one round. */
export interface Item {
  readonly round: typeof rounds.$inferSelect;
  readonly paper: FullPaper;
  readonly target: string;
  readonly place: PartInPlace;
  readonly question: Question;
  readonly part: ShownPart;
  readonly scheme: Document;
  readonly modelAnswer: Document | null;
  /** What people decide of its marks: all of them where the machine decides nothing, or could not. */
  readonly judged: Hundredths;
}

/** Which item of which round. */
export interface ItemRef {
  readonly round: number;
  readonly target: string;
}

export function itemOf(db: Db, { round: roundId, target }: ItemRef): Item {
  const round = findRound(db, roundId);
  if (!round) throw notFound('noRound');
  const paper = paperOfVersion(db, round.paperVersionId);
  const place = allParts(paper).find((one) => one.target === target);
  const question = wholeForm(paper).paper.questions.find((q) => q.parts.some((p) => p.target === target));
  if (!place || !question) throw notFound('noQuestion');
  const part = question.parts.find((one) => one.target === target)!;
  const kind = keyKindOf(part.kind);
  const scheme = kind.markScheme(place.part.content) ?? emptyDocument;
  const modelAnswer = kind.modelAnswer(place.part.content);
  const own = byPeople(componentsOf(paper).get(target)!);
  const judged = own.length === 0 ? part.marks : sumMarks(own.map((component) => component.of));
  return { round, paper, target, place, question, part, scheme, modelAnswer, judged };
}

export type ItemMarking = ItemSettings & Pick<typeof itemMarking.$inferSelect, 'signedOffAt' | 'signedOffBy'>;

const HALF_MARK = 50;

/** A sixth of the marks, to a half mark, and no less than one mark: what an item begins with. */
const usualTolerance = (marks: Hundredths) =>
  Math.min(marks, Math.max(100, Math.round(marks / 6 / HALF_MARK) * HALF_MARK));

/** How an item is marked; as usual where nobody has said so. */
export function markingOf(db: Db, { round, target }: ItemRef, marks: Hundredths): ItemMarking {
  const where = and(eq(itemMarking.roundId, round), eq(itemMarking.target, target));
  const usual = { doublePercent: 0, tolerance: usualTolerance(marks), standardEvery: 10 };
  return (
    db.select().from(itemMarking).where(where).get() ?? { ...usual, signedOffAt: null, signedOffBy: null }
  );
}

/** Changes how an item is marked. Part of a commit. */
export function changeMarking(
  db: Db,
  { round: roundId, target }: ItemRef,
  { marks, ...change }: Partial<ItemMarking> & { readonly marks: Hundredths },
): void {
  const now = { ...markingOf(db, { round: roundId, target }, marks), ...change };
  const values = { ...now, roundId, target };
  db.insert(itemMarking)
    .values(values)
    .onConflictDoUpdate({ target: [itemMarking.roundId, itemMarking.target], set: values })
    .run();
}
