import type { GapShown, GapsShown } from './response';

export type Piece = { readonly text: string } | { readonly gap: GapShown; readonly position: number };

/** Cuts texts at their gaps; gaps are counted on from one to the next. */
function cutter({ gaps }: GapsShown): (text: string) => Piece[] {
  let position = 0;
  return (text) =>
    text
      .split(/(\[\[[a-z0-9]+\]\])/)
      .filter((part) => part !== '')
      .map((part): Piece => {
        const gap = gaps.find((g) => part === `[[${g.key}]]`);
        return gap ? { gap, position: ++position } : { text: part };
      });
}

/** The text cut at its gaps, in reading order; `position` counts gaps from 1 as they stand in the text. */
export const cutAtGaps = (shown: GapsShown): Piece[] => cutter(shown)(shown.text);

export const gapsInOrder = (shown: GapsShown): { gap: GapShown; position: number }[] =>
  cutAtGaps(shown).filter((piece) => 'gap' in piece);

export type Row = readonly (readonly Piece[])[];
export type Block =
  | { readonly is: 'text'; readonly pieces: readonly Piece[] }
  | { readonly is: 'table'; readonly head: Row | null; readonly rows: readonly Row[] };

const isRow = (line: string): boolean => line.trim().startsWith('|');
const isRule = (line: string): boolean => /^\|[\s:|-]+$/.test(line.trim()) && line.includes('-');
const cellsOf = (line: string): string[] =>
  line
    .trim()
    .replace(/^\||\|$/g, '')
    .split('|')
    .map((cell) => cell.trim());

/**
 * The text in its blocks: lines that begin with a bar are the rows of a table, and the first of them its headings where a
 * line of dashes follows. Source: GitHub Flavored Markdown, “Tables”.
 */
export function blocksOf(shown: GapsShown): Block[] {
  const cut = cutter(shown);
  const lines = shown.text.split('\n');
  const blocks: Block[] = [];
  for (let at = 0; at < lines.length;) {
    const table = isRow(lines[at]!);
    const next = lines.findIndex((line, i) => i > at && isRow(line) !== table);
    const own = lines.slice(at, next === -1 ? lines.length : next);
    at += own.length;
    if (table) {
      const rows = own.filter((line) => !isRule(line)).map((line): Row => cellsOf(line).map(cut));
      const headed = own.length > 1 && isRule(own[1]!);
      blocks.push({ is: 'table', head: headed ? rows[0]! : null, rows: headed ? rows.slice(1) : rows });
    } else if (own.some((line) => line.trim() !== ''))
      blocks.push({ is: 'text', pieces: cut(own.join('\n')) });
  }
  return blocks;
}
