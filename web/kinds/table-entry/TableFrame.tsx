import type { ReactNode } from 'react';
import { cellName, type CellPlace, type TableShown } from '../../../core/kinds/table-entry/response';

interface Props {
  readonly table: TableShown;
  readonly caption: string;
  /** How cells to be filled in are drawn, and totals. */
  readonly entry: (place: CellPlace) => ReactNode;
  readonly total: (place: CellPlace) => ReactNode;
}

const HEAD =
  'sticky top-0 z-10 border-b border-line bg-shade px-2 py-1.5 text-[0.88rem] font-semibold text-soft';

/** The table with its headings. Its head and first column stay where it is larger than its place. */
export function TableFrame({ table, caption, entry, total }: Props) {
  const { columns, rows, heads } = table;
  return (
    <div
      tabIndex={0}
      role="group"
      aria-label={caption}
      data-panned
      className="max-h-[70vh] overflow-auto rounded-lg border border-line bg-card"
    >
      <table className="w-full border-separate border-spacing-0 tabular-nums">
        {caption && <caption className="px-2 py-1.5 text-left font-semibold">{caption}</caption>}
        <thead>
          {heads.length > 0 && (
            <tr>
              <td className="sticky left-0 z-20 bg-shade" />
              {heads.map((head, i) =>
                head.text === '' ? (
                  <td key={i} colSpan={head.columns} className="bg-shade" />
                ) : (
                  <th
                    key={i}
                    scope="colgroup"
                    colSpan={head.columns}
                    className="bg-shade px-2 pt-1.5 text-[0.88rem] font-semibold text-soft"
                  >
                    {head.text}
                  </th>
                ),
              )}
            </tr>
          )}
          <tr>
            <th scope="col" className={`${HEAD} left-0 z-20 text-left`}>
              {table.corner}
            </th>
            {columns.map(({ key, title, unit, sort }) => (
              <th
                key={key}
                scope="col"
                className={`${HEAD} ${sort === 'figure' ? 'text-right' : 'text-left'}`}
              >
                {title}
                {unit && <span className="font-normal">, {unit}</span>}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.key}>
              <th
                scope="row"
                className={`sticky left-0 z-[5] max-w-[45%] min-w-[4.5rem] hyphens-auto desk:min-w-28 border-b border-line bg-card px-2 py-1.5 text-left ${row.strong ? 'font-semibold' : 'font-normal'}`}
              >
                {row.title}
              </th>
              {row.cells.map((cell, i) => {
                const column = columns[i]!;
                const place = cell && { name: cellName(row, column), row, column, cell };
                return (
                  <td
                    key={column.key}
                    className={`min-w-[4.75rem] desk:min-w-[6.5rem] border-b border-line px-1 py-1 align-top desk:px-1.5 ${column.sort === 'figure' ? 'text-right' : ''} ${row.strong ? 'font-semibold' : ''}`}
                  >
                    {place?.cell.is === 'entry' && entry(place)}
                    {place?.cell.is === 'total' && (
                      <span className="inline-block px-1 py-1">{total(place)}</span>
                    )}
                    {place?.cell.is === 'fixed' && (
                      <span className="inline-block px-1 py-1">{place.cell.text}</span>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
