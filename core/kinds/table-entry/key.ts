import { exactText, showExact } from '../../numbers/exact';
import { numberFormatOf } from '../../numbers/numberFormat';
import { normaliseText } from '../../text/compareText';
import type { AnswerInput, Fact, KeyKind } from '../contract';
import { plainKey } from '../plainKey';
import { checkTable, siblingsOf } from './check';
import type { TableAsked, TableKey } from './content';
import { readFigure } from './figures';
import { typedIn, type CellShown, type TableResponse, type TableShown } from './response';
import { rightFigures, type TableContent } from './rightFigures';
import { cellComponents, findCells, scoredCells, scoreTable, valuesOfTable } from './score';
import { askedSchema, keySchema, responseSchema } from './schemas';

const showCell = (cell: TableAsked['rows'][number]['cells'][number]): CellShown | null => {
  if (cell === null) return null;
  if (cell.is === 'fixed') return { is: 'fixed', text: cell.text, figure: cell.figure };
  return cell.is === 'total' ? { is: 'total', formula: cell.formula } : { is: 'entry' };
};

const show = (asked: TableAsked, locale: string): TableShown => ({
  caption: asked.caption,
  corner: asked.corner,
  heads: asked.heads.map(({ text, columns }) => ({ text, columns })),
  columns: asked.columns.map(({ key, title, sort, unit, minus, options }) => ({
    key,
    title,
    sort,
    unit,
    minus,
    options: [...options],
  })),
  rows: asked.rows.map(({ key, title, strong, cells }) => ({
    key,
    title,
    strong,
    cells: cells.map(showCell),
  })),
  mayStayEmpty: asked.mayStayEmpty,
  locale,
});

/** The key as a candidate would have entered it. */
function rightResponse(content: TableContent, locale: string): TableResponse {
  const figures = rightFigures(content);
  const { decimal } = numberFormatOf(locale);
  const cells = scoredCells(content).map(({ name, right }) => {
    if (right.by === 'list') return [name, right.right];
    if (right.by === 'text') return [name, right.accepted[0]!];
    return [name, showExact(figures(name)!, decimal)];
  });
  return { cells: Object.fromEntries(cells) as TableResponse['cells'] };
}

function facts(input: AnswerInput<TableAsked, TableKey, TableResponse>): Fact[] {
  const { content, response, place } = input;
  const find = findCells(input);
  return scoredCells(content).flatMap(({ name, column, right }): Fact[] => {
    const typed = typedIn(response, name);
    if (typed === '') return [];
    const { is } = find(name);
    // Whether what cannot be read is right, people decide.
    const known = { component: name, right: is === 'unreadable' ? null : is === 'right' };
    if (right.by === 'list') return [{ ...known, type: 'option', answer: typed }];
    if (right.by === 'text')
      return [{ ...known, type: 'text', answer: normaliseText(typed, right) || typed }];
    const reading = readFigure(column, typed, place.locale);
    return [{ ...known, type: 'figure', answer: 'figure' in reading ? exactText(reading.figure) : typed }];
  });
}

export const tableEntryKey: KeyKind<TableAsked, TableKey, TableShown, TableResponse, null> = {
  ...plainKey,
  name: 'table-entry',
  asked: askedSchema,
  key: keySchema,
  response: responseSchema,
  formulas: ['asked.rows.*.cells.*.formula', 'key.cells.*.formula', 'key.cells.*.cases.*.when'],
  blank: () => ({
    asked: {
      caption: '',
      corner: '',
      heads: [],
      columns: [{ key: 'x', title: '', sort: 'figure', unit: '', minus: false, options: [] }],
      rows: [{ key: 'a', title: '', strong: false, cells: [{ is: 'entry' }] }],
      mayStayEmpty: false,
    },
    key: {
      cells: [
        { cell: 'a_x', weight: 1, follows: 100, by: 'figure', right: null, formula: null, tolerance: '0' },
      ],
    },
  }),
  check: checkTable,
  arrange: () => null,
  show: (asked, _, { locale }) => show(asked, locale),
  components: cellComponents,
  buildsOn: (content) => siblingsOf(content).map(({ part }) => part),
  values: valuesOfTable,
  score: scoreTable,
  rightResponse: (content, _, { locale }) => rightResponse(content, locale),
  facts,
};
