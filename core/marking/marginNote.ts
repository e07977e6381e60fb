import * as v from 'valibot';

/** A number from 0 to 1, as a share of the width or the height of a page. */
const share = v.pipe(v.number(), v.minValue(0), v.maxValue(1));
const point = v.tuple([share, share]);
const place = v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(1_000_000));

export const QUOTE_MOST = 200;
export const NOTE_MOST = 1000;
export const NOTES_MOST = 100;

/**
 * Where in a response a note stands: a range of its text (characters of its text leaves, one after the other), a point,
 * box or free line on a page, lines of a program (from 1), or a cell or object by its component's key.
 */
export const anchorSchema = v.variant('on', [
  v.pipe(
    v.strictObject({
      on: v.literal('text'),
      start: place,
      end: place,
      quote: v.pipe(v.string(), v.maxLength(QUOTE_MOST)),
    }),
    v.check(({ start, end }) => start < end, 'an empty range'),
  ),
  v.strictObject({
    on: v.literal('page'),
    file: v.pipe(v.string(), v.regex(/^[0-9a-f]{64}$/)),
    /** Of the file, from 1: a photograph has one. */
    page: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(1000)),
    shape: v.picklist(['point', 'box', 'line']),
    /** One, the two corners, or all of the line. */
    points: v.pipe(v.array(point), v.minLength(1), v.maxLength(300)),
  }),
  v.pipe(
    v.strictObject({ on: v.literal('lines'), from: place, to: place }),
    v.check(({ from, to }) => from >= 1 && from <= to, 'no lines'),
  ),
  v.strictObject({ on: v.literal('component'), key: v.pipe(v.string(), v.regex(/^[a-z0-9-]{1,20}$/)) }),
]);
export type Anchor = v.InferOutput<typeof anchorSchema>;

/** An assessor's comment tied to a place in the answer. */
export const marginNoteSchema = v.strictObject({
  id: v.pipe(v.string(), v.regex(/^[a-z0-9-]{1,40}$/)),
  anchor: anchorSchema,
  /** The criterion that it is about; null for none. */
  component: v.nullable(v.pipe(v.string(), v.regex(/^[a-z0-9-]{1,20}$/))),
  text: v.pipe(v.string(), v.maxLength(NOTE_MOST)),
});
export type MarginNote = v.InferOutput<typeof marginNoteSchema>;

export const marginNotesSchema = v.pipe(
  v.array(marginNoteSchema),
  v.maxLength(NOTES_MOST),
  v.check((notes) => new Set(notes.map((note) => note.id)).size === notes.length, 'a note twice'),
);

/** Notes in the order in which a reader meets them: by text, by program, by page, by component; then by place. */
export function inReadingOrder(notes: readonly MarginNote[], files: readonly string[] = []): MarginNote[] {
  const rank = { text: 0, lines: 1, page: 2, component: 3 } as const;
  const placeOf = (anchor: Anchor): readonly number[] => {
    if (anchor.on === 'text') return [anchor.start, anchor.end];
    if (anchor.on === 'lines') return [anchor.from, anchor.to];
    if (anchor.on === 'page') return [files.indexOf(anchor.file), anchor.page, anchor.points[0]![1]];
    return [0];
  };
  const before = (a: readonly number[], b: readonly number[]) => {
    const at = a.findIndex((value, i) => value !== b[i]);
    return at < 0 ? 0 : a[at]! - (b[at] ?? 0);
  };
  return [...notes].sort(
    (a, b) => rank[a.anchor.on] - rank[b.anchor.on] || before(placeOf(a.anchor), placeOf(b.anchor)),
  );
}
