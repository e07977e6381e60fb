import type { ReactNode } from 'react';
import { Notice } from './Notice';
import type { Loaded } from './useAsync';
import { PageHeading } from './PageHeading';

interface Head {
  readonly title: ReactNode;
  readonly aside?: ReactNode;
}

type Props<T> = Head &
  (
    | { readonly loaded: Loaded<T>; readonly children: (value: T) => ReactNode }
    | { readonly loaded?: undefined; readonly children: ReactNode }
  );

/** A staff page: its title, what stands beside it, and its content; where that has to be looked up, once it is there. */
export function StaffPage<T>({ title, aside, ...content }: Props<T>) {
  return (
    <main className="min-w-0 flex-1 overflow-y-auto px-7 py-4">
      <div className="mb-4 flex flex-wrap items-center gap-4">
        <PageHeading className="flex-1 font-serif text-[1.6rem] font-semibold">{title}</PageHeading>
        {aside}
      </div>
      {content.loaded === undefined ? content.children : <WhenHere {...content} />}
    </main>
  );
}

function WhenHere<T>({
  loaded,
  children,
}: {
  readonly loaded: Loaded<T>;
  readonly children: (value: T) => ReactNode;
}) {
  if (loaded.state === 'loading') return <p className="text-soft">…</p>;
  if (loaded.state === 'trouble') return <Notice tone="trouble">{loaded.message}</Notice>;
  return children(loaded.value);
}

interface Column<Row> {
  readonly head: string;
  readonly cell: (row: Row) => ReactNode;
  readonly right?: boolean;
}

/** A dense, quiet table; the first column names the row. */
export function StaffTable<Row>({
  rows,
  columns,
  keyOf,
  empty,
}: {
  readonly rows: readonly Row[];
  readonly columns: readonly Column<Row>[];
  readonly keyOf: (row: Row) => number | string;
  readonly empty: string;
}) {
  if (rows.length === 0)
    return <p className="rounded-card border border-line bg-card px-4 py-6 text-soft">{empty}</p>;
  return (
    <div className="overflow-x-auto rounded-card border border-line bg-card">
      <table className="w-full">
        <thead>
          <tr className="border-b border-line">
            {columns.map(({ head, right }) => (
              <th
                key={head}
                scope="col"
                className={`px-3 py-2 text-[0.85rem] font-semibold text-soft ${right ? 'text-right' : 'text-left'}`}
              >
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={keyOf(row)} className="border-b border-line/70 last:border-0">
              {columns.map(({ head, cell, right }, i) => {
                const Cell = i === 0 ? 'th' : 'td';
                return (
                  <Cell
                    key={head}
                    scope={i === 0 ? 'row' : undefined}
                    className={`px-3 py-2 font-normal ${right ? 'text-right' : 'text-left'}`}
                  >
                    {cell(row)}
                  </Cell>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
