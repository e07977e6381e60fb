import type Joi from 'joi';
import {
  holding,
  listOf,
  matching,
  objectOf,
  oneOf,
  sha256,
  textOf,
  variantOf,
  walked,
  whole,
} from '../validation/shapes';
import { isList, isNumber } from '../validation/walks';
import {
  NOTE_MOST,
  NOTES_MOST,
  QUOTE_MOST,
  type Anchor,
  type MarginNote,
  type PageAnchor,
} from './marginNote';

type AnchorOn<On extends Anchor['on']> = Extract<Anchor, { readonly on: On }>;

const place = whole(0, 1_000_000);
const component = matching(/^[a-z0-9-]{1,20}$/);
/** A free line has up to 300 points. */
const points = walked<PageAnchor['points']>(
  isList(isList(isNumber(0, 1), { least: 2, most: 2 }), { least: 1, most: 300 }),
  'list of points',
);

const text = holding(
  objectOf<AnchorOn<'text'>>({ on: oneOf(['text']), start: place, end: place, quote: textOf(QUOTE_MOST) }),
  ({ start, end }: AnchorOn<'text'>) => start < end,
  'is an empty range',
);
const page = objectOf<PageAnchor>({
  on: oneOf(['page']),
  file: sha256,
  page: whole(1, 1000),
  shape: oneOf(['point', 'box', 'line']),
  points,
});
const lines = holding(
  objectOf<AnchorOn<'lines'>>({ on: oneOf(['lines']), from: place, to: place }),
  ({ from, to }: AnchorOn<'lines'>) => from >= 1 && from <= to,
  'names no lines',
);

const anchor = variantOf<Anchor>('on', [
  ['text', text],
  ['page', page],
  ['lines', lines],
  ['component', objectOf<AnchorOn<'component'>>({ on: oneOf(['component']), key: component })],
]);

const marginNote = objectOf<MarginNote>({
  id: matching(/^[a-z0-9-]{1,40}$/),
  anchor,
  component: component.allow(null),
  text: textOf(NOTE_MOST),
});

export const marginNotesSchema: Joi.AnySchema<MarginNote[]> = holding(
  listOf(marginNote, { most: NOTES_MOST }),
  (notes: readonly MarginNote[]) => new Set(notes.map(({ id }) => id)).size === notes.length,
  'names a note twice',
);
