import { useCallback } from 'react';
import { useSearchParams } from 'react-router';

/** What is shown of a list; it stands in the address, so that a view can be kept, shared and gone back to. */
export interface ListState {
  readonly search: string;
  readonly sort: string;
  readonly descending: boolean;
  readonly filter: string;
  readonly hidden: readonly string[];
}

const NONE = 'none';

/** `hiddenAtFirst`: columns that are shown only once somebody chooses them. */
export function useListState(
  hiddenAtFirst: readonly string[],
): [ListState, (change: Partial<ListState>) => void] {
  const [params, setParams] = useSearchParams();
  const sort = params.get('sort') ?? '';
  const hide = params.get('hide');
  const state: ListState = {
    search: params.get('search') ?? '',
    sort: sort.replace(/^-/, ''),
    descending: sort.startsWith('-'),
    filter: params.get('filter') ?? '',
    hidden: hide === null ? hiddenAtFirst : hide.split(',').filter((one) => one !== NONE),
  };
  const change = useCallback(
    (wanted: Partial<ListState>) =>
      setParams(
        (before) => {
          const next = new URLSearchParams(before);
          const put = (key: string, value: string) =>
            value === '' ? next.delete(key) : next.set(key, value);
          if (wanted.search !== undefined) put('search', wanted.search);
          if (wanted.filter !== undefined) put('filter', wanted.filter);
          if (wanted.sort !== undefined) put('sort', `${wanted.descending ? '-' : ''}${wanted.sort}`);
          if (wanted.hidden !== undefined) put('hide', wanted.hidden.join(',') || NONE);
          return next;
        },
        { replace: true },
      ),
    [setParams],
  );
  return [state, change];
}

/** A list's state as the API is asked for it. */
export const queryOf = ({ search, sort, descending, filter }: ListState): URLSearchParams =>
  new URLSearchParams({ search, sort, descending: String(descending), filter });
