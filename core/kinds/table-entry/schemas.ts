import Joi from 'joi';
import { conditionSchema, formulaOrNull, formulaSchema } from '../../formulas/formulaSchema';
import { isExactText } from '../../numbers/exact';
import {
  holding,
  listOf,
  matching,
  objectOf,
  oneOf,
  recordOf,
  textOf,
  variantOf,
  whole,
} from '../../validation/shapes';
import { percent } from '../shared/schemas';
import type { CellKey, FigureCell, ListCell, TableAsked, TableKey, TextCell } from './content';
import type { CellShown, ColumnShown, HeadShown, RowShown, TableResponse } from './response';

const MOST_ROWS = 60;
const MOST_COLUMNS = 12;
const text = textOf(200);
const word = matching(/^[a-z][a-z0-9]{0,19}$/);
const exactText = holding(textOf(100, 1), isExactText, 'is not a figure');

const column = objectOf<ColumnShown>({
  key: word,
  title: text,
  sort: oneOf(['figure', 'text', 'list']),
  unit: text,
  minus: Joi.boolean(),
  options: listOf(text, { most: 40 }),
});

type CellThat<Is> = Extract<CellShown, { readonly is: Is }>;
const cell = variantOf<CellShown>('is', [
  ['fixed', objectOf<CellThat<'fixed'>>({ is: oneOf(['fixed']), text, figure: exactText.allow(null) })],
  ['entry', objectOf<CellThat<'entry'>>({ is: oneOf(['entry']) })],
  ['total', objectOf<CellThat<'total'>>({ is: oneOf(['total']), formula: formulaSchema })],
]);

const row = objectOf<RowShown>({
  key: word,
  title: text,
  strong: Joi.boolean(),
  cells: listOf<CellShown | null>(cell.allow(null), { most: MOST_COLUMNS }),
});

export const askedSchema = objectOf<TableAsked>({
  caption: text,
  corner: text,
  heads: listOf(objectOf<HeadShown>({ text, columns: whole(1) }), { most: MOST_COLUMNS }),
  columns: listOf(column, { least: 1, most: MOST_COLUMNS }),
  rows: listOf(row, { least: 1, most: MOST_ROWS }),
  mayStayEmpty: Joi.boolean(),
});

const common = { cell: textOf(50), weight: whole(1, 100), follows: percent(0) };
const accepted = listOf(textOf(200, 1), { least: 1, most: 40 });

const figureCell = objectOf<FigureCell>({
  ...common,
  by: oneOf(['figure']),
  right: exactText.allow(null),
  formula: formulaOrNull,
  tolerance: exactText,
});
const textCell = objectOf<TextCell>({
  ...common,
  by: oneOf(['text']),
  accepted,
  ignoreCase: Joi.boolean(),
  ignoreAccents: Joi.boolean(),
  slips: whole(0, 3),
  cases: listOf(objectOf<TextCell['cases'][number]>({ when: conditionSchema, accepted }), { most: 10 }),
});
const listCell = objectOf<ListCell>({
  ...common,
  by: oneOf(['list']),
  right: text,
  cases: listOf(objectOf<ListCell['cases'][number]>({ when: conditionSchema, right: text }), { most: 10 }),
});

export const keySchema = objectOf<TableKey>({
  cells: listOf(
    variantOf<CellKey>('by', [
      ['figure', figureCell],
      ['text', textCell],
      ['list', listCell],
    ]),
    { least: 1, most: 300 },
  ),
});

export const responseSchema = objectOf<TableResponse>({
  cells: recordOf(/^[a-z][a-z0-9]{0,19}_[a-z][a-z0-9]{0,19}$/, text, MOST_ROWS * MOST_COLUMNS),
});
