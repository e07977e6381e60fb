import type { ReactNode } from 'react';
import type { GapShown, GapsShown } from '../../../core/kinds/gaps/response';
import { blocksOf, type Piece, type Row } from '../../../core/kinds/gaps/pieces';

/** Where a gap stands in a table: the words of its row and of its column; null in running text. */
export type InTable = { readonly row: string; readonly column: string } | null;

interface Props {
  readonly shown: GapsShown;
  readonly gap: (gap: GapShown, position: number, where: InTable) => ReactNode;
  /** Of the text between the gaps. */
  readonly leading: string;
}

const wordsOf = (cell: readonly Piece[] | undefined): string =>
  (cell ?? []).map((piece) => ('text' in piece ? piece.text : '')).join('');

const CELL = 'border-t border-line px-2.5 py-1 text-left align-middle';

/** A text with its gaps in place, and tables where it has some. */
export function GapText({ shown, gap, leading }: Props) {
  const draw = (pieces: readonly Piece[], where: InTable) =>
    pieces.map((piece, i) =>
      'text' in piece ? <span key={i}>{piece.text}</span> : gap(piece.gap, piece.position, where),
    );
  const line = (row: Row, head: Row | null, key: number) => (
    <tr key={key}>
      {row.map((cell, i) => {
        const where = { row: i === 0 ? '' : wordsOf(row[0]), column: wordsOf(head?.[i]) };
        return i === 0 ? (
          <th key={i} scope="row" className={`${CELL} font-normal`}>
            {draw(cell, where)}
          </th>
        ) : (
          <td key={i} className={CELL}>
            {draw(cell, where)}
          </td>
        );
      })}
    </tr>
  );
  return blocksOf(shown).map((block, i) =>
    block.is === 'text' ? (
      <p key={i} className={leading}>
        {draw(block.pieces, null)}
      </p>
    ) : (
      <div key={i} className="my-2 overflow-x-auto rounded-lg border border-line bg-card">
        <table className="w-full">
          {block.head && (
            <thead className="bg-shade text-[0.88rem] text-soft">
              <tr>
                {block.head.map((cell, at) => (
                  <th key={at} scope="col" className="px-2.5 py-1.5 text-left">
                    {draw(cell, null)}
                  </th>
                ))}
              </tr>
            </thead>
          )}
          <tbody>{block.rows.map((row, at) => line(row, block.head, at))}</tbody>
        </table>
      </div>
    ),
  );
}
