import type { Formula } from '../../formulas/formula';

export type ColumnSort = 'figure' | 'text' | 'list';

export interface ColumnShown {
  readonly key: string;
  readonly title: string;
  readonly sort: ColumnSort;
  /** Of figures: printed at the head; it may be typed too. */
  readonly unit: string;
  /** Whether a figure of this column can be below zero. */
  readonly minus: boolean;
  /** Of lists. */
  readonly options: readonly string[];
}

export type CellShown =
  /** Stands there already; `figure` where formulas build on it. */
  | { readonly is: 'fixed'; readonly text: string; readonly figure: string | null }
  | { readonly is: 'entry' }
  /** Worked out while one types. */
  | { readonly is: 'total'; readonly formula: Formula };

export interface RowShown {
  readonly key: string;
  readonly title: string;
  /** A heading or a total stands out. */
  readonly strong: boolean;
  /** One for each column; null where nothing stands. */
  readonly cells: readonly (CellShown | null)[];
}

/** A heading over several columns. */
export interface HeadShown {
  readonly text: string;
  readonly columns: number;
}

export interface TableShown {
  readonly caption: string;
  /** What the rows are, over their titles. */
  readonly corner: string;
  readonly heads: readonly HeadShown[];
  readonly columns: readonly ColumnShown[];
  readonly rows: readonly RowShown[];
  /** Whether cells may rightly stay empty. */
  readonly mayStayEmpty: boolean;
  readonly locale: string;
}

/** What is typed or chosen, by cell: `row_column`. */
export interface TableResponse {
  readonly cells: Readonly<Record<string, string>>;
}

export const cellName = (row: { readonly key: string }, column: { readonly key: string }): string =>
  `${row.key}_${column.key}`;

export const typedIn = ({ cells }: TableResponse, name: string): string => (cells[name] ?? '').trim();

export interface CellPlace {
  readonly name: string;
  readonly row: Pick<RowShown, 'key' | 'title'>;
  readonly column: ColumnShown;
  readonly cell: CellShown;
}

/** Every cell where something stands, row by row. */
export const cellsOf = ({ columns, rows }: Pick<TableShown, 'columns' | 'rows'>): CellPlace[] =>
  rows.flatMap((row) =>
    row.cells.flatMap((cell, i) =>
      cell ? [{ name: cellName(row, columns[i]!), row, column: columns[i]!, cell }] : [],
    ),
  );

export const entriesOf = (table: Pick<TableShown, 'columns' | 'rows'>): CellPlace[] =>
  cellsOf(table).filter(({ cell }) => cell.is === 'entry');

export const titleOf = ({ row, column }: CellPlace): string => `${row.title}, ${column.title}`;
