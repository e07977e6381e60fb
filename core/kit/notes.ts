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

/** Characters from `start` up to `end` (not included) of the text that the page shows; `quote` are those words. */
export interface Highlight {
  readonly start: number;
  readonly end: number;
  readonly tint: Tint;
  readonly quote: string;
}

/** Highlights of the texts of a question or of its source, by text. */
export type Highlights = Readonly<Record<string, readonly Highlight[]>>;

/** Characters of the rough work's text. */
export const ROUGH_TEXT_LIMIT = 20_000;
/** The drawing pad is so large, in units of its own; a stroke is a row of whole coordinates, across and down in turn. */
export const PAD = { width: 1000, height: 700 } as const;
/** Points of all strokes together. */
export const STROKE_POINTS_LIMIT = 20_000;

/** The strokes of a drawing, each with the coordinates of its points across and down in turn. */
export type Drawing = readonly (readonly number[])[];

/** The rough work of a sitting. */
export interface RoughWork {
  readonly text: string;
  readonly drawing: Drawing;
}

/** How an aid lies on the desk and is set: whether it is open, its place in CSS pixels, its own settings. */
export type AidSetting = Readonly<Record<string, boolean | number | string>>;

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
