import {
  entriesOf,
  type CellPlace,
  type TableResponse,
  type TableShown,
} from '../../../core/kinds/table-entry/response';

/** What was pasted, cut into rows and cells; null where it is one cell alone. */
export function blockOf(text: string): string[][] | null {
  const rows = text.replace(/\r\n?/g, '\n').replace(/\n$/, '').split('\n');
  const cells = rows.map((row) => row.split('\t'));
  return rows.length === 1 && cells[0]!.length === 1 ? null : cells;
}

export interface Pasted {
  readonly response: TableResponse;
  readonly filled: number;
  /** Cells of the block for which there was no place. */
  readonly left: number;
}

const MOST_LETTERS = 200;

/** What a cell takes of what was pasted: of a list only what is in it. */
function fits({ column }: CellPlace, text: string): string | null {
  const trimmed = text.trim().slice(0, MOST_LETTERS);
  if (column.sort !== 'list') return trimmed;
  return column.options.find((option) => option.toLowerCase() === trimmed.toLowerCase()) ?? null;
}

/** A block put down with its first cell at a place; it runs over what stands there already as it lies. */
export function pasteBlock(
  table: TableShown,
  response: TableResponse,
  at: CellPlace,
  block: readonly (readonly string[])[],
): Pasted {
  const entries = new Map(entriesOf(table).map((place) => [place.name, place]));
  const rowAt = table.rows.findIndex(({ key }) => key === at.row.key);
  const columnAt = table.columns.findIndex(({ key }) => key === at.column.key);
  const cells = { ...response.cells };
  let [filled, left] = [0, 0];
  block.forEach((line, i) =>
    line.forEach((text, k) => {
      const [row, column] = [table.rows[rowAt + i], table.columns[columnAt + k]];
      const place = row && column ? entries.get(`${row.key}_${column.key}`) : undefined;
      const taken = place ? fits(place, text) : null;
      if (place && taken !== null) {
        cells[place.name] = taken;
        if (taken !== '') filled++;
      } else if (text.trim() !== '') left++;
    }),
  );
  return { response: { cells }, filled, left };
}
