import * as v from 'valibot';

/*
 * What candidates put down with the aids, besides their answers: highlights, rough work, and where each aid lies. All of
 * it is kept in the journal and never marked.
 */

/** Tints of highlights, each told apart by its underline as well: solid, dotted, dashed. */
export const tints = ['solid', 'dotted', 'dashed'] as const;
export type Tint = (typeof tints)[number];

/** What highlights in the handouts of a section are kept under. */
export const handoutsTarget = (section: string): string => `handouts-${section.toLowerCase()}`;

/** The longest piece of text that is kept with a highlight, in characters. */
export const QUOTE_LIMIT = 300;
/** The most highlights in one text. */
export const HIGHLIGHTS_LIMIT = 200;

const place = v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(1_000_000));

/** Characters from `start` up to `end` (not included) of the text that the page shows; `quote` are those words. */
const highlight = v.strictObject({
  start: place,
  end: place,
  tint: v.picklist(tints),
  quote: v.pipe(v.string(), v.maxLength(QUOTE_LIMIT)),
});
export type Highlight = v.InferOutput<typeof highlight>;

/** Highlights of the texts of a question or of its source, by text. */
export const highlightsValue = v.record(
  v.pipe(v.string(), v.regex(/^[a-z0-9/-]{1,80}$/i)),
  v.pipe(v.array(highlight), v.maxLength(HIGHLIGHTS_LIMIT)),
);
export type Highlights = v.InferOutput<typeof highlightsValue>;

/** Characters of the rough work's text. */
export const ROUGH_TEXT_LIMIT = 20_000;
/** The drawing pad is so large, in units of its own; a stroke is a row of whole coordinates, across and down in turn. */
export const PAD = { width: 1000, height: 700 } as const;
/** Points of all strokes together. */
export const STROKE_POINTS_LIMIT = 20_000;

export const roughTextValue = v.pipe(v.string(), v.maxLength(ROUGH_TEXT_LIMIT));
const coordinate = v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(1000));
export const drawingValue = v.pipe(
  v.array(v.pipe(v.array(coordinate), v.minLength(2), v.maxLength(4000))),
  v.maxLength(3000),
  v.check(
    (strokes) => strokes.reduce((sum, stroke) => sum + stroke.length, 0) <= 2 * STROKE_POINTS_LIMIT,
    'too many points',
  ),
);
export type Drawing = v.InferOutput<typeof drawingValue>;

/** The two places of rough work; one pad belongs to the whole sitting. */
export const roughWorkValues: Readonly<Record<string, v.GenericSchema>> = {
  text: roughTextValue,
  drawing: drawingValue,
};

/** The rough work of a sitting. */
export interface RoughWork {
  readonly text: string;
  readonly drawing: Drawing;
}

/** How an aid lies on the desk and is set: whether it is open, its place in CSS pixels, its own settings. */
export const aidValue = v.record(
  v.pipe(v.string(), v.regex(/^[a-zA-Z]{1,20}$/)),
  v.union([
    v.boolean(),
    v.pipe(v.number(), v.finite(), v.minValue(-100_000), v.maxValue(100_000)),
    v.pipe(v.string(), v.maxLength(40)),
  ]),
);
export type AidSetting = v.InferOutput<typeof aidValue>;

/** Adds a highlight to those of a text: where two overlap, the new one takes the characters over. */
export function withHighlight(known: readonly Highlight[], added: Highlight, textOf: TextOf): Highlight[] {
  const kept = withoutRange(known, added, textOf);
  return [...kept, added].sort((a, b) => a.start - b.start);
}

/** The words between two places, for the list. */
export type TextOf = (start: number, end: number) => string;

/** Takes the characters of a range out of all highlights; one that reaches beyond it keeps the rest. */
export function withoutRange(
  known: readonly Highlight[],
  { start, end }: Pick<Highlight, 'start' | 'end'>,
  textOf: TextOf,
): Highlight[] {
  const piece = (of: Highlight, from: number, to: number): Highlight[] =>
    from < to ? [{ ...of, start: from, end: to, quote: textOf(from, to).slice(0, QUOTE_LIMIT) }] : [];
  return known.flatMap((one) =>
    one.end <= start || one.start >= end
      ? [one]
      : [...piece(one, one.start, start), ...piece(one, end, one.end)],
  );
}
