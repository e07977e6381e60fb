import { evaluate, type Figures } from '../../formulas/evaluate';
import { exactOf, ZERO, type Exact } from '../../numbers/exact';
import type { Content } from '../contract';
import type { CellKey, TableAsked, TableKey } from './content';
import { cellsOf } from './response';

export type TableContent = Content<TableAsked, TableKey>;

export const keyOf = ({ cells }: TableKey, name: string): CellKey | undefined =>
  cells.find(({ cell }) => cell === name);

/**
 * The right figures, each from the key or by its formula from the others. Null where there is none, or where the
 * formulas turn in a circle.
 */
export function rightFigures({ asked, key }: TableContent): Figures['named'] {
  const places = new Map(cellsOf(asked).map((place) => [place.name, place]));
  const known = new Map<string, Exact | null>();
  const work = (name: string): Exact | null => {
    const place = places.get(name);
    if (place?.column.sort !== 'figure') return null;
    const { cell } = place;
    if (cell.is === 'fixed') return cell.figure === null ? null : exactOf(cell.figure);
    if (cell.is === 'total') return evaluate(cell.formula, figures);
    const right = keyOf(key, name);
    // A cell that belongs empty counts as nothing.
    if (right?.by !== 'figure') return right ? null : ZERO;
    if (right.right !== null) return exactOf(right.right);
    return right.formula && evaluate(right.formula, figures);
  };
  const figures: Figures = {
    named: (name) => {
      if (known.has(name)) return known.get(name)!;
      known.set(name, null);
      const value = work(name);
      known.set(name, value);
      return value;
    },
    sibling: () => null,
  };
  return figures.named;
}
