import * as v from 'valibot';
import { conditionSchema, formulaSchema } from '../../formulas/formula';
import { isExactText } from '../../numbers/exact';

const text = v.pipe(v.string(), v.maxLength(200));
const word = v.pipe(v.string(), v.regex(/^[a-z][a-z0-9]{0,19}$/));
const exactText = v.pipe(v.string(), v.maxLength(100), v.check(isExactText, 'not a figure'));
const percent = v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(100));

const column = v.strictObject({
  key: word,
  title: text,
  sort: v.picklist(['figure', 'text', 'list']),
  unit: text,
  minus: v.boolean(),
  options: v.pipe(v.array(text), v.maxLength(40)),
});

const cell = v.variant('is', [
  v.strictObject({ is: v.literal('fixed'), text, figure: v.nullable(exactText) }),
  v.strictObject({ is: v.literal('entry') }),
  v.strictObject({ is: v.literal('total'), formula: formulaSchema }),
]);

const row = v.strictObject({
  key: word,
  title: text,
  strong: v.boolean(),
  cells: v.pipe(v.array(v.nullable(cell)), v.maxLength(12)),
});

export const askedSchema = v.strictObject({
  caption: text,
  corner: text,
  /** Headings over the columns; empty, or together as wide as they are. */
  heads: v.pipe(
    v.array(v.strictObject({ text, columns: v.pipe(v.number(), v.integer(), v.minValue(1)) })),
    v.maxLength(12),
  ),
  columns: v.pipe(v.array(column), v.minLength(1), v.maxLength(12)),
  rows: v.pipe(v.array(row), v.minLength(1), v.maxLength(60)),
  mayStayEmpty: v.boolean(),
});
export type TableAsked = v.InferOutput<typeof askedSchema>;

const common = {
  cell: v.pipe(v.string(), v.maxLength(50)),
  /** Its share of the marks, beside the other cells. */
  weight: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(100)),
  /** What it earns, in per cent, where it follows from figures of the candidate that are not right. */
  follows: percent,
};
const accepted = v.pipe(v.array(v.pipe(text, v.minLength(1))), v.minLength(1), v.maxLength(40));

const cellKey = v.variant('by', [
  v.strictObject({
    ...common,
    by: v.literal('figure'),
    /** Null where the formula gives it, from the other right figures. */
    right: v.nullable(exactText),
    formula: v.nullable(formulaSchema),
    tolerance: exactText,
  }),
  v.strictObject({
    ...common,
    by: v.literal('text'),
    accepted,
    ignoreCase: v.boolean(),
    ignoreAccents: v.boolean(),
    slips: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(3)),
    /** What is right instead, by the candidate's own figures: the first condition that holds. */
    cases: v.pipe(v.array(v.strictObject({ when: conditionSchema, accepted })), v.maxLength(10)),
  }),
  v.strictObject({
    ...common,
    by: v.literal('list'),
    right: text,
    cases: v.pipe(v.array(v.strictObject({ when: conditionSchema, right: text })), v.maxLength(10)),
  }),
]);
export type CellKey = v.InferOutput<typeof cellKey>;

export const keySchema = v.strictObject({
  /** What belongs into the cells; a cell without a key belongs empty and earns nothing. */
  cells: v.pipe(v.array(cellKey), v.minLength(1), v.maxLength(300)),
});
export type TableKey = v.InferOutput<typeof keySchema>;
