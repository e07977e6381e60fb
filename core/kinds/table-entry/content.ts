import type { Condition, Formula } from '../../formulas/formula';
import type { TableShown } from './response';

export type TableAsked = Omit<TableShown, 'locale'>;

interface CellCommon {
  /** As `cellName` gives it. */
  readonly cell: string;
  /** Its share of the marks, beside the other cells. */
  readonly weight: number;
  /** What it earns, in per cent, where it follows from figures of the candidate that are not right. */
  readonly follows: number;
}

export interface FigureCell extends CellCommon {
  readonly by: 'figure';
  /** Null where the formula gives it, from the other right figures. */
  readonly right: string | null;
  readonly formula: Formula | null;
  readonly tolerance: string;
}

export interface TextCell extends CellCommon {
  readonly by: 'text';
  readonly accepted: readonly string[];
  readonly ignoreCase: boolean;
  readonly ignoreAccents: boolean;
  /** So many slips of spelling are forgiven. */
  readonly slips: number;
  /** What is right instead, by the candidate's own figures: the first condition that holds. */
  readonly cases: readonly { readonly when: Condition; readonly accepted: readonly string[] }[];
}

export interface ListCell extends CellCommon {
  readonly by: 'list';
  readonly right: string;
  readonly cases: readonly { readonly when: Condition; readonly right: string }[];
}

export type CellKey = FigureCell | TextCell | ListCell;

export interface TableKey {
  /** What belongs into the cells; a cell without a key belongs empty and earns nothing. */
  readonly cells: readonly CellKey[];
}
