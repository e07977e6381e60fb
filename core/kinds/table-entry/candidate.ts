import { message, type Message } from '../../messages/message';
import { showExact } from '../../numbers/exact';
import { numberFormatOf } from '../../numbers/numberFormat';
import { isSameOption } from '../shared/entries';
import { plainCandidate, type CandidateKind, type Progress } from '../contract';
import { readFigure, shownFigures } from './figures';
import { entriesOf, titleOf, typedIn } from './response';
import type { CellPlace, TableResponse, TableShown } from './response';

/** Why what stands in a cell cannot be counted; null where it can, or where nothing stands. */
export function complaintAt(table: TableShown, response: TableResponse, place: CellPlace): Message | null {
  const typed = typedIn(response, place.name);
  if (typed === '' || place.column.sort !== 'figure') return null;
  const reading = readFigure(place.column, typed, table.locale);
  return 'problem' in reading ? message(`figure.${reading.problem}`) : null;
}

function progress(table: TableShown, response: TableResponse): Progress {
  const entries = entriesOf(table);
  const blank = entries.filter(({ name }) => typedIn(response, name) === '');
  const count = blank.length;
  if (count === entries.length) return { state: 'empty', missing: message('table-entry.empty') };
  const unread = entries.find((place) => complaintAt(table, response, place) !== null);
  if (unread) return { state: 'part', missing: message('table-entry.unread', { title: titleOf(unread) }) };
  if (count === 0 || table.mayStayEmpty) return { state: 'done', missing: null };
  const title = titleOf(blank[0]!);
  return { state: 'part', missing: message('table-entry.blank', { count, title }) };
}

function misfit(table: TableShown, { cells }: TableResponse) {
  const entries = new Map(entriesOf(table).map((place) => [place.name, place.column]));
  for (const [name, typed] of Object.entries(cells)) {
    const column = entries.get(name);
    if (!column) return message('table-entry.unknown');
    const listed = column.options.some((option) => isSameOption(option, typed));
    if (column.sort === 'list' && typed !== '' && !listed) return message('table-entry.notListed');
  }
  return null;
}

function fitting(table: TableShown, { cells }: TableResponse): TableResponse {
  const names = new Set(entriesOf(table).map(({ name }) => name));
  return { cells: Object.fromEntries(Object.entries(cells).filter(([name]) => names.has(name))) };
}

/** A total as it is shown; null where something in it cannot be read. */
export function showTotal(table: TableShown, response: TableResponse, name: string): string | null {
  const value = shownFigures(table, response).of(name);
  return value && showExact(value, numberFormatOf(table.locale).decimal);
}

/** Row by row: “Title: Column value; Column value”. */
function lines(table: TableShown, response: TableResponse): string {
  return table.rows
    .map((row) => {
      const filled = entriesOf({ columns: table.columns, rows: [row] })
        .map(({ name, column }) => ({ column, typed: typedIn(response, name) }))
        .filter(({ typed }) => typed !== '');
      const cells = filled.map(({ column, typed }) => `${column.title} ${typed}`).join('; ');
      return cells === '' ? '' : `${row.title}: ${cells}`;
    })
    .filter(Boolean)
    .join('\n');
}

export const tableEntry: CandidateKind<TableShown, TableResponse> = {
  ...plainCandidate,
  name: 'table-entry',
  empty: () => ({ cells: {} }),
  misfit,
  fitting,
  progress,
  guessing: ({ mayStayEmpty }) => (mayStayEmpty ? 'within' : 'free'),
  rule: ({ mayStayEmpty }) => message(mayStayEmpty ? 'table-entry.ruleEmpty' : 'table-entry.rule'),
  describe: (table, response) => ({ form: 'list', text: lines(table, response) }),
};
