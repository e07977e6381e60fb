import { evaluate } from '../../formulas/evaluate';
import { exactOf, negative, type Exact } from '../../numbers/exact';
import { readNumber, type NumberProblem } from '../../numbers/readNumber';
import { ZERO } from '../../numbers/exact';
import { cellsOf, typedIn, type CellPlace, type TableResponse, type TableShown } from './response';

export type CellReading = { readonly figure: Exact } | { readonly problem: NumberProblem | 'noMinus' };

/** One pair of brackets with a figure inside, and nothing but a unit or currency outside: £(250), (250) kg. */
const BRACKETS = /^([^()（）\d+\-−]*)[(（]([^()（）]*)[)）]([^()（）\d+\-−]*)$/;

/** A figure of a cell, by the round's locale; `(250)` is −250, as books write it. */
export function readFigure(
  { unit, minus }: { readonly unit: string; readonly minus: boolean },
  typed: string,
  locale: string,
): CellReading {
  const brackets = BRACKETS.exec(typed);
  const reading = readNumber(brackets ? brackets.slice(1).join('') : typed, {
    locale,
    scientific: false,
    fractions: false,
    units: unit.trim() === '' ? [] : [unit],
  });
  if ('problem' in reading) return { problem: reading.problem };
  const { value } = reading.read;
  // A minus within brackets has two readings.
  if (brackets && value.over < 0n) return { problem: 'sign' };
  const figure = brackets ? negative(value) : value;
  return figure.over < 0n && !minus ? { problem: 'noMinus' } : { figure };
}

/** The figures of a table as far as they are there: fixed ones, typed ones, and totals over them. */
export interface OwnFigures {
  readonly of: (name: string) => Exact | null;
}

/**
 * The candidate's own figures. A blank cell is no figure, unless `blank` says that it counts as nothing; a total is one
 * where all that it builds on is.
 */
export function ownFigures(
  table: Pick<TableShown, 'columns' | 'rows' | 'locale'>,
  response: TableResponse,
  blank: (name: string) => Exact | null,
): OwnFigures {
  const places = new Map(cellsOf(table).map((place) => [place.name, place]));
  const known = new Map<string, Exact | null>();
  const work = ({ name, cell, column }: CellPlace): Exact | null => {
    if (cell.is === 'fixed') return cell.figure === null ? null : exactOf(cell.figure);
    if (cell.is === 'total') return evaluate(cell.formula, { named: of, sibling: () => null });
    const typed = typedIn(response, name);
    if (typed === '') return blank(name);
    const reading = readFigure(column, typed, table.locale);
    return 'figure' in reading ? reading.figure : null;
  };
  function of(name: string): Exact | null {
    if (known.has(name)) return known.get(name)!;
    const place = places.get(name);
    // Should a total build on itself, it finds nothing here; such a table cannot be published.
    known.set(name, null);
    const value = place && place.column.sort === 'figure' ? work(place) : null;
    known.set(name, value);
    return value;
  }
  return { of };
}

/** Totals as they are shown while one types: what is still blank counts as nothing. */
export const shownFigures = (table: TableShown, response: TableResponse): OwnFigures =>
  ownFigures(table, response, () => ZERO);
