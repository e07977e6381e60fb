import type { Piece } from './pieces';

/** Where a sentence, a line or a cell of a table ends. */
const ENDS = /[.!?](?=\s|$)|\n|\|/;

/** The sentence around the gap at an index among the pieces, as people hear it: other gaps are told by their numbers. */
export function sentenceAround(
  pieces: readonly Piece[],
  at: number,
  blank: (position: number) => string,
): string {
  const told = (piece: Piece) => ('text' in piece ? piece.text : blank(piece.position));
  const before = pieces.slice(0, at).map(told).join('');
  const after = pieces
    .slice(at + 1)
    .map(told)
    .join('');
  const from = before.split(ENDS).at(-1)!;
  const end = ENDS.exec(after);
  const to = end ? after.slice(0, end.index + (end[0] === '\n' || end[0] === '|' ? 0 : 1)) : after;
  const piece = pieces[at]!;
  return `${from}${told(piece)}${to}`.replace(/\s+/g, ' ').trim();
}
