import type { NumberedNote } from '../kinds/contract';
import type { RichNode } from '../kinds/shared/richText';

/** A stretch of a text, in characters of its text leaves, one after the other. */
export interface Stretch {
  readonly start: number;
  readonly end: number;
}

/** A piece of a text leaf under the same stretches throughout. */
export interface Piece<S extends Stretch> {
  readonly text: string;
  readonly under: readonly S[];
  /** Those that end with this piece: their numbers stand behind it. */
  readonly ending: readonly S[];
}

/** Cuts a text that begins at `from` where stretches begin and end. They may overlap. */
export function piecesOf<S extends Stretch>(text: string, from: number, stretches: readonly S[]): Piece<S>[] {
  const to = from + text.length;
  const own = stretches.filter(({ start, end }) => start < to && end > from);
  const cuts = [...new Set([from, to, ...own.flatMap(({ start, end }) => [start, end])])]
    .filter((at) => at >= from && at <= to)
    .sort((a, b) => a - b);
  return cuts.slice(0, -1).map((at, i) => {
    const end = cuts[i + 1]!;
    return {
      text: text.slice(at - from, end - from),
      under: own.filter((one) => one.start <= at && one.end >= end),
      ending: own.filter((one) => one.end === end),
    };
  });
}

/** The text leaves of a document in one, as places of notes count. */
export const textLeaves = (node: RichNode): string =>
  node.type === 'text' ? (node.text ?? '') : (node.content ?? []).map(textLeaves).join('');

/** The document with something written behind each stretch, as `[1]`: for print, where nothing is marked by colour. */
export function withMarks<S extends Stretch>(
  document: RichNode,
  stretches: readonly S[],
  say: (stretch: S) => string,
): RichNode {
  let passed = 0;
  const walk = (node: RichNode): RichNode => {
    if (node.type !== 'text') return node.content ? { ...node, content: node.content.map(walk) } : node;
    const text = node.text ?? '';
    const pieces = piecesOf(text, passed, stretches);
    passed += text.length;
    return { ...node, text: pieces.map((one) => one.text + one.ending.map(say).join('')).join('') };
  };
  return walk(document);
}

/** A text with the numbers of the notes on it, each behind what it is about. */
export function numberedText(
  document: RichNode,
  notes: readonly NumberedNote[],
  mark: (number: number) => string,
): RichNode {
  const stretches = notes.flatMap(({ number, anchor }) =>
    anchor.on === 'text' ? [{ start: anchor.start, end: anchor.end, number }] : [],
  );
  return withMarks(document, stretches, ({ number }) => mark(number));
}
