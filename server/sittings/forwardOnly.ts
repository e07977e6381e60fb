import type { Form } from '../../core/forms/form';
import { isLater } from '../../core/journal/entry';
import {
  closedItems,
  isOutOfTurn,
  isVisit,
  forwardSectionsOf,
  wasBefore,
  type Before,
  type TurnEntry,
  type ForwardSections,
} from '../../core/journal/forwardOnly';
import { candidateKindOf } from '../../core/kinds/candidateKindOf';
import { responseOrEmpty } from '../../core/kinds/stored';
import { isForward, type FullPaper } from '../../core/papers/paper';
import type { ShownPart } from '../../core/papers/candidatePaper';
import type { Db } from '../db/open';
import { formById } from '../forms/forms';
import type { Holds } from './holds';
import { sittingQueries, type Sitting } from './queries';
import { deskOf, valueOf } from './values';

interface FormForwardOnly {
  readonly turns: ForwardSections;
  readonly parts: ReadonlyMap<string, ShownPart>;
}

const known = new WeakMap<Form, FormForwardOnly | null>();

/** The forward-only sections of a form; null where it has none. Worked out once a form. */
function forwardOnlyOfForm(db: Db, formId: number): FormForwardOnly | null {
  const form = formById(db, formId);
  const cached = known.get(form);
  if (cached !== undefined) return cached;
  const turns = forwardSectionsOf(form.paper);
  const parts = form.paper.questions.flatMap((question) => question.parts);
  const made = turns && { turns, parts: new Map(parts.map((part) => [part.target, part])) };
  known.set(form, made);
  return made;
}

/** A sitting whose entries are looked at for their turn. */
export interface ForwardOnlyOf {
  readonly db: Db;
  readonly holds: Holds;
  readonly sitting: number;
  readonly formId: number;
  readonly paper: FullPaper;
}

/** By the paper alone, which is at hand: a form is read only where a section is not free. */
const isFree = ({ sections }: FullPaper, item?: string): boolean =>
  sections.every(
    ({ navigation, items }) =>
      !isForward(navigation) || (item !== undefined && !items.some((entry) => entry.key === item)),
  );

/** What was complete when, by the rows of the journal: the latest answer to each part before an entry is looked at. */
function doneBefore(
  { db, holds, sitting }: ForwardOnlyOf,
  { turns, parts }: FormForwardOnly,
): Before['doneBefore'] {
  const find = sittingQueries(db);
  const answers = find.turnRows(sitting).filter((row) => row.about === 'answer');
  const grantedAt = grantsOf(holds, sitting);
  const isDone = (target: string, entry: TurnEntry): boolean => {
    const latest = answers
      .filter((row) => row.target === target && wasBefore(row, entry, grantedAt))
      .reduce<TurnEntry | null>((best, row) => (best && isLater(best, row) ? best : row), null);
    const value = latest && valueOf(find, sitting, latest);
    if (!value) return false;
    const { kind, shown } = parts.get(target)!;
    const response = responseOrEmpty(kind, shown, JSON.parse(value.text));
    return candidateKindOf(kind).progress(shown, response).state === 'done';
  };
  return (item, entry) => (turns.get(item)!.parts.get(item) ?? []).every((target) => isDone(target, entry));
}

const grantsOf =
  (holds: Holds, sitting: number) =>
  (hold: number): number =>
    holds.of(sitting)[hold - 1]!.grantedAt;

/** What the judge needs to know of turns; null where one can move freely through the whole paper. */
export function forwardOnlyForJudge(
  of: ForwardOnlyOf,
): { of: ForwardSections; doneBefore: Before['doneBefore'] } | null {
  const found = isFree(of.paper) ? null : forwardOnlyOfForm(of.db, of.formId);
  return found && { of: found.turns, doneBefore: doneBefore(of, found) };
}

/** Was an entry that has just come written out of its turn? Costs nothing where its section is free. */
export function cameOutOfTurn(of: ForwardOnlyOf, entry: TurnEntry): boolean {
  if (entry.about !== 'answer' && entry.about !== 'event') return false;
  if (isFree(of.paper, entry.target.split('/')[0])) return false;
  const found = forwardOnlyOfForm(of.db, of.formId);
  if (!found) return false;
  const visits = sittingQueries(of.db).turnRows(of.sitting).filter(isVisit);
  return isOutOfTurn(found.turns, entry, {
    visits,
    grantedAt: grantsOf(of.holds, of.sitting),
    doneBefore: doneBefore(of, found),
  });
}

/** Has the candidate passed the question of a part by now, as far as is known here? */
export function isClosedNow(db: Db, sitting: Pick<Sitting, 'id' | 'formId'>, target: string): boolean {
  const item = target.split('/')[0]!;
  const found = forwardOnlyOfForm(db, sitting.formId);
  if (!found?.turns.has(item)) return false;
  const find = sittingQueries(db);
  const rows = (['opened', 'place'] as const).flatMap((about) => find.currentAbout(sitting.id, about));
  if (closedItems(found.turns, deskOf(rows)).includes(item)) return true;
  const { items } = found.turns.get(item)!;
  const later = items.slice(items.indexOf(item) + 1);
  return find.currentAbout(sitting.id, 'answer').some((row) => later.includes(row.target.split('/')[0]!));
}
