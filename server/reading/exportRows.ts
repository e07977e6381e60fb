import Papa from 'papaparse';
import { say } from '../../core/messages/words';
import { messages } from '../../core/messages/lists.en';
import { words } from '../../core/messages/words';
import type { Cell, Column, Listing } from './read';
import type { ExportFormat } from './reader';

words('list', messages);

/** As a spreadsheet reads it: ISO 8601 without a zone, in UTC. */
const asText = (cell: Cell): string | number =>
  cell instanceof Date ? cell.toISOString().slice(0, 19).replace('T', ' ') : (cell ?? '');

/** Spreadsheets would take these for formulas: names are anybody's to choose. */
const escapeFormulae = /^[=+\-@|\t\r]/;

async function xlsx(heads: readonly string[], rows: readonly (readonly Cell[])[]): Promise<Uint8Array> {
  // A third of what the process of reading would start with, for the few who export.
  const { default: ExcelJS } = await import('exceljs');
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet('1', { views: [{ state: 'frozen', ySplit: 1 }] });
  sheet.addRow([...heads]).font = { bold: true };
  // As a cell of text nothing is a formula.
  for (const row of rows) sheet.addRow([...row]);
  heads.forEach((head, i) => (sheet.getColumn(i + 1).width = Math.max(12, head.length + 4)));
  return new Uint8Array(await book.xlsx.writeBuffer());
}

/** Rows as a file: UTF-8 CSV that spreadsheets open (with a mark for it), or a workbook with one sheet. */
export async function exportRows<Row>(
  { cells }: Pick<Listing<never, Row>, 'cells'>,
  rows: readonly Row[],
  {
    columns,
    format,
    more = [],
  }: {
    readonly columns: readonly string[];
    readonly format: ExportFormat;
    readonly more?: readonly Column<Row>[];
  },
): Promise<Uint8Array> {
  const known = columns.filter((column) => column in cells);
  const shown = known.length > 0 ? known : Object.keys(cells);
  const all: Column<Row>[] = [
    ...shown.map((column) => ({ head: say({ code: `list.${column}` }), cell: cells[column]! })),
    ...more,
  ];
  const heads = all.map(({ head }) => head);
  const table = rows.map((row) => all.map(({ cell }) => cell(row)));
  if (format === 'xlsx') return xlsx(heads, table);
  const text = Papa.unparse({ fields: heads, data: table.map((row) => row.map(asText)) }, { escapeFormulae });
  return new TextEncoder().encode(`\u{feff}${text}\r\n`);
}
