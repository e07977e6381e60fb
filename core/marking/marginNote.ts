export const QUOTE_MOST = 200;
export const NOTE_MOST = 1000;
export const NOTES_MOST = 100;

/**
 * Where in a response a note stands: a range of its text (characters of its text leaves, one after the other), a point,
 * box or free line on a page, lines of a program (from 1), or a cell or object by its component's key.
 */
export type Anchor =
  | { readonly on: 'text'; readonly start: number; readonly end: number; readonly quote: string }
  | PageAnchor
  | { readonly on: 'lines'; readonly from: number; readonly to: number }
  | { readonly on: 'component'; readonly key: string };

export interface PageAnchor {
  readonly on: 'page';
  /** The SHA-256 of the file. */
  readonly file: string;
  /** Of the file, from 1: a photograph has one. */
  readonly page: number;
  readonly shape: 'point' | 'box' | 'line';
  /** One, the two corners, or all of the line: across and down, from 0 to 1 as shares of the width and the height. */
  readonly points: readonly (readonly [number, number])[];
}

/** An assessor's comment tied to a place in the answer. */
export interface MarginNote {
  readonly id: string;
  readonly anchor: Anchor;
  /** The criterion that it is about; null for none. */
  readonly component: string | null;
  readonly text: string;
}

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
