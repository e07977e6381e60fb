import * as v from 'valibot';
import type { Block, Document, Inline } from './document';

const text = v.pipe(v.string(), v.maxLength(20_000));
const sentence = v.pipe(v.string(), v.minLength(1), v.maxLength(2_000));

const inline: v.GenericSchema<unknown, Inline> = v.lazy(() => inlineSchema);
const children = v.array(inline);
const tongue = {
  lang: v.pipe(v.string(), v.regex(/^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/)),
  dir: v.picklist(['ltr', 'rtl']),
};
const formula = v.strictObject({ type: v.literal('formula'), tex: sentence, says: v.nullable(sentence) });

const inlineSchema: v.GenericSchema<unknown, Inline> = v.variant('type', [
  v.strictObject({ type: v.literal('text'), text }),
  v.strictObject({ type: v.literal('break') }),
  v.strictObject({ type: v.picklist(['strong', 'emphasis', 'deleted']), children }),
  v.strictObject({ type: v.literal('code'), text }),
  formula,
  v.strictObject({
    type: v.literal('phrase'),
    key: v.pipe(v.string(), v.regex(/^[a-z0-9-]{1,40}$/)),
    children,
  }),
  v.strictObject({ type: v.literal('meaning'), says: sentence, children }),
  v.strictObject({ ...tongue, type: v.literal('language'), children }),
]);

const block: v.GenericSchema<unknown, Block> = v.lazy(() => blockSchema);
const blocks = v.array(block);
const count = v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(1_000_000));

const file = v.pipe(v.string(), v.regex(/^[0-9a-f]{64}$/));
const seconds = v.pipe(v.number(), v.minValue(0), v.maxValue(4 * 60 * 60));
const table = v.strictObject({
  type: v.literal('table'),
  align: v.array(v.nullable(v.picklist(['left', 'center', 'right']))),
  head: v.array(children),
  rows: v.array(v.array(children)),
});

const blockSchema: v.GenericSchema<unknown, Block> = v.variant('type', [
  v.strictObject({ type: v.literal('paragraph'), children }),
  v.strictObject({ type: v.literal('heading'), level: v.picklist([1, 2, 3]), children }),
  v.strictObject({ type: v.literal('list'), ordered: v.boolean(), start: count, items: v.array(blocks) }),
  v.strictObject({ type: v.literal('quote'), blocks }),
  table,
  v.strictObject({ type: v.literal('code'), text }),
  formula,
  v.strictObject({ type: v.literal('divider') }),
  v.strictObject({
    type: v.literal('picture'),
    file,
    description: sentence,
    caption: v.nullable(sentence),
  }),
  v.strictObject({
    type: v.literal('chart'),
    chart: v.picklist(['line', 'bar', 'points']),
    title: sentence,
    description: sentence,
    across: sentence,
    up: sentence,
    table,
  }),
  v.strictObject({
    type: v.literal('audio'),
    file,
    title: sentence,
    seconds,
    plays: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(20))),
    pausing: v.boolean(),
    transcript: v.nullable(blocks),
  }),
  v.strictObject({ type: v.literal('transcript'), title: sentence, blocks }),
  v.strictObject({
    type: v.literal('video'),
    file,
    title: sentence,
    seconds,
    captions: v.nullable(file),
    description: sentence,
  }),
  v.strictObject({ type: v.literal('pdf'), file, title: sentence, pages: count }),
  v.strictObject({ type: v.literal('lines'), start: count, lines: v.array(children) }),
  v.strictObject({ ...tongue, type: v.literal('language'), blocks }),
]);

export const documentSchema: v.GenericSchema<unknown, Document> = v.strictObject({
  format: v.literal(1),
  blocks,
});
