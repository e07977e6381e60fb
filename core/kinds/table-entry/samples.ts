import type { Formula } from '../../formulas/formula';
import { minus, plus, sum, when } from '../../testing/formulas';
import type { Random } from '../../random';
import type { Sample } from '../contract';
import type { CellKey, TableAsked, TableKey } from './content';
import type { TableResponse } from './response';

type Asked = TableAsked;
type AskedCell = Asked['rows'][number]['cells'][number];

export const figures = (key: string, title: string, more: Partial<Asked['columns'][number]> = {}) => ({
  key,
  title,
  sort: 'figure' as const,
  unit: '',
  minus: false,
  options: [],
  ...more,
});

/** `?` for a cell to fill in, null for none, a formula for a total, anything else stands there. */
export const row = (key: string, title: string, ...cells: (string | null | Formula)[]) => ({
  key,
  title,
  strong: false,
  cells: cells.map((cell): AskedCell => {
    if (cell === null) return null;
    if (cell === '?') return { is: 'entry' };
    if (typeof cell !== 'string') return { is: 'total', formula: cell };
    return { is: 'fixed', text: cell, figure: /^\d+(\.\d+)?$/.test(cell) ? cell : null };
  }),
});

export const figureKey = (
  cell: string,
  right: string | null,
  formula: Formula | null = null,
  more: Partial<Extract<CellKey, { by: 'figure' }>> = {},
): CellKey => ({ cell, weight: 1, follows: 50, by: 'figure', right, formula, tolerance: '0', ...more });

export const table = (
  columns: Asked['columns'],
  rows: Asked['rows'],
  cells: CellKey[],
  more: Partial<Asked> = {},
): { asked: Asked; key: TableKey } => ({
  asked: { caption: 'A table', corner: 'row', heads: [], columns, rows, mayStayEmpty: false, ...more },
  key: { cells },
});

/** One column of figures; each row is a cell of it. */
export const column = (rows: [string, string][], cells: CellKey[], more: Partial<Asked> = {}) =>
  table(
    [figures('x', 'Amount', { minus: true })],
    rows.map(([key, cell]) => row(key, key, cell)),
    cells,
    more,
  );

const pick = <T>(random: Random, ...from: T[]) => from[Math.floor(random() * from.length)]!;

const ledger = table(
  [
    figures('in', 'In', { unit: 'g' }),
    figures('out', 'Out', { unit: 'g' }),
    figures('held', 'Held', { unit: 'g' }),
  ],
  [
    row('start', 'Brought forward', null, null, '1840'),
    row('sowing', 'To re-sowing', null, '?', '?'),
    row('gift', 'Gift of Ness Farm', '?', '?', '?'),
    row('total', 'Total', sum('gift_in'), sum('sowing_out', 'gift_out'), null),
  ],
  [
    figureKey('sowing_out', '120'),
    figureKey('sowing_held', null, minus('start_held', 'sowing_out')),
    figureKey('gift_in', '355'),
    figureKey('gift_held', null, plus('sowing_held', 'gift_in')),
  ],
  {
    mayStayEmpty: true,
    heads: [
      { text: 'Moved', columns: 2 },
      { text: '', columns: 1 },
    ],
  },
);

const words = table(
  [
    figures('amount', 'Amount', { minus: true }),
    { ...figures('note', 'Note'), sort: 'text' },
    { ...figures('result', 'Result'), sort: 'list', options: ['profit', 'loss'] },
  ],
  [row('year', 'The year', '?', '?', '?')],
  [
    figureKey('year_amount', '-250'),
    {
      cell: 'year_note',
      weight: 1,
      follows: 50,
      by: 'text',
      accepted: ['a bad year'],
      ignoreCase: true,
      ignoreAccents: false,
      slips: 0,
      cases: [{ when: when('year_amount', 'above', 0), accepted: ['a good year'] }],
    },
    {
      cell: 'year_result',
      weight: 2,
      follows: 50,
      by: 'list',
      right: 'loss',
      cases: [
        { when: when('year_amount', 'below', 0), right: 'loss' },
        { when: when('year_amount', 'from', 0), right: 'profit' },
      ],
    },
  ],
);

export const samples: Sample<TableAsked, TableKey, TableResponse>[] = [
  {
    title: 'a ledger whose figures build on each other',
    content: ledger,
    marks: 402,
    best: { cells: { sowing_out: '120', sowing_held: '1,720 g', gift_in: '355', gift_held: '2 075' } },
    partly: { cells: { sowing_out: '110', sowing_held: '1730' } },
    wrong: { cells: { sowing_out: '12', gift_in: 'many' } },
    misfit: { cells: { start_held: '1' } },
    randomResponse: (random) => ({
      cells: Object.fromEntries(
        ['sowing_out', 'sowing_held', 'gift_in', 'gift_out', 'gift_held'].map((name) => [
          name,
          pick(random, '', '120', '1720', '355', '2,075', '-3', '(7)', 'x', '1.2.3', ' '),
        ]),
      ),
    }),
    secrets: ['"right":"120"', '355'],
  },
  {
    title: 'text and a list that follow from a figure',
    content: words,
    marks: 400,
    best: { cells: { year_amount: '(250)', year_note: 'A bad year.', year_result: 'loss' } },
    partly: { cells: { year_amount: '250', year_note: 'a good year', year_result: 'profit' } },
    wrong: { cells: { year_amount: '7', year_note: 'a bad day' } },
    misfit: { cells: { year_result: 'neither' } },
    randomResponse: (random) => ({
      cells: {
        year_amount: pick(random, '', '-250', '250', '(250)', 'x'),
        year_note: pick(random, '', 'a bad year', 'a good year', 'x'),
        year_result: pick(random, '', 'profit', 'loss'),
      },
    }),
    secrets: ['a bad year', '250'],
  },
];
