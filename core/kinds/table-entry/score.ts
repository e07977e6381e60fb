import { evaluate, isTrue, type Figures } from '../../formulas/evaluate';
import { namesIn, siblingsIn, sidesOf, type Condition, type Formula } from '../../formulas/formula';
import { allot } from '../../marks';
import { message, type Message } from '../../messages/message';
import { exactOf, withinDistance, ZERO, type Exact } from '../../numbers/exact';
import { matchesText } from '../../text/compareText';
import type { AnswerInput, Component, Found, NamedValues, ScoringInput } from '../contract';
import { creditOf, share, unansweredCredit, undecided } from '../shared/credits';
import { isSameOption } from '../shared/entries';
import type { CellKey, TableAsked, TableKey } from './content';
import { ownFigures, readFigure } from './figures';
import { entriesOf, titleOf, typedIn, type CellPlace, type TableResponse } from './response';
import { keyOf, rightFigures, type TableContent } from './rightFigures';

/** The cells that earn something, row by row. */
export const scoredCells = ({ asked, key }: TableContent): (CellPlace & { readonly right: CellKey })[] =>
  entriesOf(asked).flatMap((place) => {
    const right = keyOf(key, place.name);
    return right ? [{ ...place, right }] : [];
  });

/** One component a cell, by the weights of the author. */
export function cellComponents(content: TableContent, marks: number): Component[] {
  const cells = scoredCells(content);
  const shares = allot(
    marks,
    cells.map(({ right }) => right.weight),
  );
  return cells.map((place, i) => ({
    key: place.name,
    by: 'machine',
    of: shares[i]!,
    name: message('author.text', { text: titleOf(place) }),
  }));
}

type Table = AnswerInput<TableAsked, TableKey, TableResponse>;

/** How a cell was found. `follows` is right by the candidate's own figures, of which not all are right. */
export interface CellFinding {
  readonly is: 'unanswered' | 'unreadable' | 'right' | 'follows' | 'wrong';
  readonly reason: Message | null;
}

const found = (is: CellFinding['is'], reason?: string): CellFinding => ({
  is,
  reason: reason ? message(reason) : null,
});

/** Finds each cell right, following or wrong: a table is looked through once, cell by cell, as they build on each other. */
export function findCells({ content, response, place, siblings }: Table): (name: string) => CellFinding {
  const { locale } = place;
  const { asked, key } = content;
  const places = new Map(scoredCells(content).map((place) => [place.name, place]));
  const rightOf = rightFigures(content);
  // A cell that belongs empty counts as nothing where it is blank; nothing follows from any other blank cell.
  const own = ownFigures({ ...asked, locale }, response, (name) => (keyOf(key, name) ? null : ZERO));
  const figures: Figures = {
    named: own.of,
    sibling: (part, name) => siblings[part]?.[name]?.figure ?? null,
  };
  const known = new Map<string, CellFinding>();

  /** Are all figures that these formulas build on accepted ones? What stands there already is. */
  const buildsOnAccepted = (formulas: readonly Formula[]) =>
    formulas.flatMap(namesIn).every((name) => isAccepted(name)) &&
    formulas.flatMap(siblingsIn).every(({ part, name }) => siblings[part]?.[name]?.accepted === true);
  function isAccepted(name: string): boolean {
    if (places.has(name)) return find(name).is === 'right';
    const total = asked.rows
      .flatMap((row) => row.cells.map((cell, i) => ({ name: `${row.key}_${asked.columns[i]!.key}`, cell })))
      .find((one) => one.name === name)?.cell;
    if (total?.is === 'total') return namesIn(total.formula).every(isAccepted);
    // A cell that belongs empty is accepted only so.
    return total?.is !== 'entry' || typedIn(response, name) === '';
  }
  const following = (formulas: readonly Formula[]) =>
    buildsOnAccepted(formulas)
      ? found('right', 'table-entry.followsRight')
      : found('follows', 'table-entry.follows');

  function findFigure({ column }: CellPlace, right: CellKey & { by: 'figure' }, typed: string): CellFinding {
    const reading = readFigure(column, typed, locale);
    if ('problem' in reading)
      return reading.problem === 'noMinus' ? found('wrong', 'figure.noMinus') : found('unreadable');
    const { figure } = reading;
    const within = exactOf(right.tolerance);
    const keyFigure = rightOf(right.cell);
    const follows = right.formula && evaluate(right.formula, figures);
    if (keyFigure && withinDistance(figure, keyFigure, within))
      return follows && !withinDistance(figure, follows, within)
        ? found('right', 'table-entry.contradicts')
        : found('right');
    if (right.formula && follows && withinDistance(figure, follows, within))
      return following([right.formula]);
    return found('wrong');
  }

  /** The first case whose condition holds by the candidate's own figures; null where one cannot be decided. */
  function caseOf<T extends { readonly when: Condition }>(cases: readonly T[]): T | null {
    for (const one of cases) {
      const holds = isTrue(one.when, figures);
      if (holds !== false) return holds ? one : null;
    }
    return null;
  }

  function findWords(right: Exclude<CellKey, { by: 'figure' }>, typed: string): CellFinding {
    const fits =
      right.by === 'list'
        ? (one: string) => isSameOption(one, typed)
        : (one: string) => matchesText(typed, one, right);
    if (right.by === 'list' ? fits(right.right) : right.accepted.some(fits)) return found('right');
    const other =
      right.by === 'list'
        ? caseOf(right.cases.map((one) => ({ when: one.when, accepted: [one.right] })))
        : caseOf(right.cases);
    return other?.accepted.some(fits) ? following(sidesOf(other.when)) : found('wrong');
  }

  function find(name: string): CellFinding {
    const before = known.get(name);
    if (before) return before;
    const place = places.get(name)!;
    const typed = typedIn(response, name);
    const { right } = place;
    // Should cells build on each other in a circle, none of them is accepted; such a table cannot be published.
    known.set(name, found('wrong'));
    const finding =
      typed === ''
        ? found('unanswered')
        : right.by === 'figure'
          ? findFigure(place, right, typed)
          : findWords(right, typed);
    known.set(name, finding);
    return finding;
  }
  return find;
}

function creditFor(component: Component, { is, reason }: CellFinding, follows: number): Found {
  if (is === 'unanswered') return unansweredCredit(component);
  // The page said that it cannot be read, and it was left as it is: people look at this cell.
  if (is === 'unreadable') return undecided(component, 'unreadable');
  const reasons = reason ? [reason] : [];
  if (is === 'follows')
    return { ...creditOf(component, share(follows, 100), reasons), verdict: 'follow-through' };
  return creditOf(component, share(is === 'right' ? 1 : 0, 1), reasons);
}

/** Cell by cell, with follow-through: `2-domain.md`, “Table entry”. */
export function scoreTable(input: ScoringInput<TableAsked, TableKey, TableResponse, null>): Found[] {
  const { content, place } = input;
  const find = findCells(input);
  return cellComponents(content, place.marks).map((component) =>
    creditFor(component, find(component.key), keyOf(content.key, component.key)!.follows),
  );
}

/** Every figure of the table by its cell, for sibling parts. */
export function valuesOfTable(input: Table): NamedValues {
  const { content, response, place } = input;
  const find = findCells(input);
  const own = ownFigures({ ...content.asked, locale: place.locale }, response, () => null);
  return Object.fromEntries(
    scoredCells(content).flatMap(({ name }) => {
      const figure: Exact | null = own.of(name);
      return figure ? [[name, { figure, accepted: find(name).is === 'right' }]] : [];
    }),
  );
}
