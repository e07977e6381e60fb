import { useInfiniteQuery, type InfiniteData } from '@tanstack/react-query';
import {
  flexRender,
  getCoreRowModel,
  useReactTable,
  type ColumnDef,
  type SortingState,
} from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp, Columns3, FileDown, Search } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useEffect, useMemo, useRef, type ReactNode } from 'react';
import type { Page } from '../../core/lists/list';
import { get, messageOf } from '../api/client';
import { Notice } from '../ui/Notice';
import { LIST_MS } from './queries';
import { say } from '../words';
import { queryOf, useListState, type ListState } from './useListState';
import { t } from './words';

export interface Column<Row> {
  /** Also the name of the column in exports; its words are `list.<id>`. */
  readonly id: string;
  readonly cell: (row: Row) => ReactNode;
  readonly right?: boolean;
  /** Whether the list can be sorted by it. */
  readonly sortable?: boolean;
  /** Not in exports, and always shown. */
  readonly actions?: boolean;
}

interface Props<Row> {
  /** Of the list in the API. */
  readonly path: string;
  readonly columns: readonly Column<Row>[];
  readonly keyOf: (row: Row) => number | string;
  readonly empty: string;
  readonly filters?: readonly { readonly value: string; readonly words: string }[];
  /** Columns that are shown only once somebody chooses them. */
  readonly hiddenAtFirst?: readonly string[];
  /** Names the list. */
  readonly label: string;
  /** What stands beside the table, by the rows that are known. */
  readonly beside?: (rows: readonly Row[]) => ReactNode;
}

const NONE_HIDDEN: readonly string[] = [];
const SIZE = 100;
const ROW_PX = 44;
const CONTROL =
  'inline-flex min-h-9 items-center gap-1.5 rounded-control border border-line bg-card px-3 text-[0.9rem] hover:border-edge';
const MENU = 'z-20 min-w-44 rounded-card border border-line bg-card p-1.5 shadow-float';
const MENU_ITEM =
  'flex min-h-9 cursor-default items-center gap-2 rounded-control px-2.5 text-[0.9rem] outline-none data-highlighted:bg-shade';

const headOf = (id: string) => say({ code: `list.${id}` });

interface BarProps {
  readonly path: string;
  readonly state: ListState;
  readonly change: (change: Partial<ListState>) => void;
  readonly columns: readonly { readonly id: string; readonly actions?: boolean }[];
  readonly filters: Props<unknown>['filters'];
  readonly count: number | null;
}

function ColumnChoice({ state, change, columns }: BarProps) {
  const toggle = (id: string, shown: boolean) =>
    change({ hidden: shown ? state.hidden.filter((one) => one !== id) : [...state.hidden, id] });
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className={CONTROL}>
        <Columns3 aria-hidden className="size-4" /> {t('columns')}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" sideOffset={4} className={MENU}>
          {columns.slice(1).map(({ id }) => (
            <DropdownMenu.CheckboxItem
              key={id}
              checked={!state.hidden.includes(id)}
              onCheckedChange={(shown) => toggle(id, shown)}
              onSelect={(event) => event.preventDefault()}
              className={MENU_ITEM}
            >
              <span
                aria-hidden
                className={`size-4 rounded border border-edge ${state.hidden.includes(id) ? '' : 'bg-kelp'}`}
              />
              {headOf(id)}
            </DropdownMenu.CheckboxItem>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function ExportChoice({ path, state, columns }: BarProps) {
  const shown = columns.map(({ id }) => id).filter((id) => !state.hidden.includes(id));
  const query = new URLSearchParams({ ...Object.fromEntries(queryOf(state)), columns: shown.join(',') });
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className={CONTROL}>
        <FileDown aria-hidden className="size-4" /> {t('exportAs')}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" sideOffset={4} className={MENU}>
          {(['csv', 'xlsx'] as const).map((format) => (
            <DropdownMenu.Item key={format} asChild className={MENU_ITEM}>
              <a href={`/api${path}.${format}?${query.toString()}`} download>
                {t(format)}
              </a>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function Bar(props: BarProps) {
  const { state, change, filters = [], count } = props;
  return (
    <div role="search" className="mb-3 flex flex-wrap items-center gap-2.5">
      <label className={`${CONTROL} w-64 focus-within:border-edge`}>
        <Search aria-hidden className="size-4 text-soft" />
        <input
          type="search"
          aria-label={t('search')}
          placeholder={t('search')}
          value={state.search}
          onChange={(event) => change({ search: event.target.value })}
          className="min-w-0 flex-1 bg-transparent outline-none"
        />
      </label>
      {filters.length > 0 && (
        <select
          aria-label={t('show')}
          value={state.filter}
          onChange={(event) => change({ filter: event.target.value })}
          className={CONTROL}
        >
          <option value="">{t('all')}</option>
          {filters.map(({ value, words }) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </select>
      )}
      <p role="status" className="flex-1 text-[0.9rem] text-soft">
        {count !== null && t('count', { count })}
      </p>
      <ColumnChoice {...props} />
      <ExportChoice {...props} />
    </div>
  );
}

/** Arrow keys go from row to row; Enter opens what the row is about. */
function moveByKey(event: KeyboardEvent): void {
  const row = (event.target as HTMLElement).closest<HTMLTableRowElement>('tr[data-row]');
  if (!row || event.altKey || event.ctrlKey || event.metaKey) return;
  const to = {
    ArrowDown: row.nextElementSibling,
    ArrowUp: row.previousElementSibling,
    Home: row.parentElement!.querySelector('tr[data-row]'),
  }[event.key];
  if (to instanceof HTMLElement && to.hasAttribute('data-row')) {
    event.preventDefault();
    to.focus();
  } else if (event.key === 'Enter' && event.target === row)
    row.querySelector<HTMLElement>('a, button')?.click();
}

/** The pieces of a list that have been looked up, one after the other. */
function usePieces<Row>(path: string, state: ListState) {
  const query = queryOf(state);
  return useInfiniteQuery<Page<Row>, Error, InfiniteData<Page<Row>>, string[], number>({
    queryKey: [path, 'list', query.toString()],
    initialPageParam: 0,
    // The rows before stay in view while others are looked up.
    placeholderData: (before) => before,
    // Looked up again while it is shown; a long list more rarely, as each of its pages is a request.
    refetchInterval: ({ state }) => LIST_MS * Math.max(1, state.data?.pages.length ?? 1),
    queryFn: ({ pageParam }) => {
      const asked = new URLSearchParams(query);
      asked.set('from', String(pageParam));
      asked.set('size', String(SIZE));
      return get<Page<Row>>(`${path}?${asked.toString()}`);
    },
    getNextPageParam: (last, all) => {
      const known = all.reduce((sum, page) => sum + page.rows.length, 0);
      return last.rows.length > 0 && known < last.count ? known : undefined;
    },
  });
}

/**
 * A dense, quiet table over a list of the API: searched, filtered and sorted there, its state in the address, its columns
 * to choose, moved through by arrow keys, exported as it is shown. Only the rows in view are on the page.
 */
export function DataTable<Row>({
  path,
  columns,
  keyOf,
  empty,
  filters,
  label,
  beside,
  hiddenAtFirst = NONE_HIDDEN,
}: Props<Row>) {
  const [state, change] = useListState(hiddenAtFirst);
  const { data, error, hasNextPage, isFetchingNextPage, fetchNextPage } = usePieces<Row>(path, state);
  const rows = useMemo(() => data?.pages.flatMap((page) => page.rows) ?? [], [data]);
  const count = data?.pages.at(-1)?.count ?? null;
  const frame = useRef<HTMLDivElement>(null);
  const definitions = useMemo(
    () =>
      columns.map(({ id, cell, sortable = false, actions = false }): ColumnDef<Row> => ({
        id,
        header: headOf(id),
        enableSorting: sortable,
        enableHiding: !actions,
        // The API sorts; the table takes only what has a value to be sortable.
        accessorFn: (row: Row) => row,
        cell: ({ row }) => cell(row.original),
      })),
    [columns],
  );
  const sorting: SortingState = state.sort === '' ? [] : [{ id: state.sort, desc: state.descending }];
  // The compiler leaves this component as it is, which is right: the table memoises by itself.
  // oxlint-disable-next-line react/incompatible-library
  const table = useReactTable({
    data: rows,
    columns: definitions,
    getRowId: (row) => String(keyOf(row)),
    getCoreRowModel: getCoreRowModel(),
    manualSorting: true,
    state: { sorting, columnVisibility: Object.fromEntries(state.hidden.map((id) => [id, false])) },
    onSortingChange: (update) => {
      const next = (typeof update === 'function' ? update(sorting) : update)[0];
      change({ sort: next?.id ?? '', descending: next?.desc ?? false });
    },
  });
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW_PX,
    overscan: 12,
    // Where there is no layout, as in tests, a screen's worth of rows is drawn.
    initialRect: { width: 1000, height: 800 },
  });
  const filled = rows.length > 0;
  useEffect(() => {
    const { current } = frame;
    current?.addEventListener('keydown', moveByKey);
    return () => current?.removeEventListener('keydown', moveByKey);
  }, [filled]);
  const shown = virtual.getVirtualItems();
  const last = shown.at(-1)?.index ?? 0;
  useEffect(() => {
    if (hasNextPage && !isFetchingNextPage && last >= rows.length - 20) void fetchNextPage();
  }, [hasNextPage, isFetchingNextPage, last, rows.length, fetchNextPage]);
  const right = new Set(columns.filter((column) => column.right).map(({ id }) => id));
  const exported = columns.filter((column) => !column.actions);
  const [above, below] = [
    shown[0]?.start ?? 0,
    virtual.getTotalSize() - (shown.at(-1)?.end ?? virtual.getTotalSize()),
  ];
  const narrowed = state.search !== '' || state.filter !== '';
  return (
    <section aria-label={label}>
      <Bar {...{ path, state, change, filters, count }} columns={exported} />
      {error && <Notice tone="trouble">{messageOf(error)}</Notice>}
      {!data && !error && <p className="text-soft">{t('loading')}</p>}
      {data && rows.length === 0 && (
        <div className="rounded-card border border-line bg-card px-4 py-6 text-soft">
          <p>{narrowed ? t('nothingFound') : empty}</p>
          {narrowed && (
            <button
              type="button"
              className={`${CONTROL} mt-3`}
              onClick={() => change({ search: '', filter: '' })}
            >
              {t('showAll')}
            </button>
          )}
        </div>
      )}
      {rows.length > 0 && (
        <div className={beside ? 'grid items-start gap-5 desk:grid-cols-[minmax(0,6fr)_minmax(0,5fr)]' : ''}>
          <div
            ref={frame}
            className="max-h-[calc(100dvh-11rem)] overflow-auto rounded-card border border-line bg-card"
          >
            <table aria-rowcount={(count ?? rows.length) + 1} className="w-full">
              <thead className="sticky top-0 z-10 bg-card">
                <tr className="border-b border-line">
                  {table.getFlatHeaders().map((header) => {
                    const sorted = header.column.getIsSorted();
                    const words = flexRender(header.column.columnDef.header, header.getContext());
                    return (
                      <th
                        key={header.id}
                        scope="col"
                        aria-sort={
                          sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : undefined
                        }
                        className={`px-3 py-2 text-[0.85rem] font-semibold whitespace-nowrap text-soft ${right.has(header.id) ? 'text-right' : 'text-left'}`}
                      >
                        {header.column.getCanSort() ? (
                          <button
                            type="button"
                            onClick={header.column.getToggleSortingHandler()}
                            className="inline-flex items-center gap-1 underline decoration-line underline-offset-4 hover:text-ink"
                          >
                            {words}
                            {sorted === 'asc' && <ArrowUp aria-hidden className="size-3.5" />}
                            {sorted === 'desc' && <ArrowDown aria-hidden className="size-3.5" />}
                          </button>
                        ) : (
                          words
                        )}
                      </th>
                    );
                  })}
                </tr>
              </thead>
              <tbody>
                {above > 0 && (
                  <tr aria-hidden>
                    <td style={{ height: above }} />
                  </tr>
                )}
                {shown.map(({ index, key }) => {
                  const row = table.getRowModel().rows[index]!;
                  return (
                    <tr
                      key={key}
                      data-row
                      data-index={index}
                      ref={virtual.measureElement}
                      aria-rowindex={index + 2}
                      tabIndex={index === shown[0]!.index ? 0 : -1}
                      className="border-b border-line/70 last:border-0 focus-visible:bg-wash"
                    >
                      {row.getVisibleCells().map((cell, i) => {
                        const Cell = i === 0 ? 'th' : 'td';
                        return (
                          <Cell
                            key={cell.id}
                            scope={i === 0 ? 'row' : undefined}
                            className={`px-3 py-2 font-normal whitespace-nowrap ${right.has(cell.column.id) ? 'text-right' : 'text-left'}`}
                          >
                            {flexRender(cell.column.columnDef.cell, cell.getContext())}
                          </Cell>
                        );
                      })}
                    </tr>
                  );
                })}
                {below > 0 && (
                  <tr aria-hidden>
                    <td style={{ height: below }} />
                  </tr>
                )}
              </tbody>
            </table>
            {isFetchingNextPage && <p className="px-3 py-2 text-soft">{t('more')}</p>}
          </div>
          {beside?.(rows)}
        </div>
      )}
    </section>
  );
}
