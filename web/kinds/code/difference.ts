/** A piece of a line, and whether it differs. */
export interface Piece {
  readonly text: string;
  readonly differs: boolean;
}

/** Spaces that make a difference are made visible. */
const visible = (text: string): string => text.replace(/ /g, '·').replace(/\t/g, '→').replace(/\r/g, '␍');

function piecesOf(own: string, other: string): Piece[] {
  if (own === other) return [{ text: own, differs: false }];
  let from = 0;
  while (from < own.length && from < other.length && own[from] === other[from]) from++;
  let back = 0;
  while (
    back < own.length - from &&
    back < other.length - from &&
    own[own.length - 1 - back] === other[other.length - 1 - back]
  )
    back++;
  const pieces = [
    { text: own.slice(0, from), differs: false },
    { text: visible(own.slice(from, own.length - back)), differs: true },
    { text: own.slice(own.length - back), differs: false },
  ];
  return pieces.filter(({ text }) => text !== '');
}

/** A text line by line, with what differs from another text marked. A line that the other does not have differs whole. */
export function markedLines(own: string, other: string): Piece[][] {
  const [lines, others] = [own.split('\n'), other.split('\n')];
  return lines.map((line, i) => {
    const beside = others[i];
    return beside === undefined ? [{ text: visible(line) || '⏎', differs: true }] : piecesOf(line, beside);
  });
}
