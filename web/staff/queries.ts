import { QueryClient, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import { ApiProblem, get, messageOf } from '../api/client';
import type { Loaded } from '../ui/useAsync';

/** What was looked up is shown at once and fetched again in the background; what failed is told, and tried again by people. */
export const makeQueryClient = (): QueryClient =>
  new QueryClient({
    defaultOptions: {
      queries: { retry: false, staleTime: 1000, refetchOnWindowFocus: false, gcTime: 5 * 60_000 },
    },
  });

/** How often lists and states that others change are looked up again while they are in view; ms. */
export const LIST_MS = 15_000;

/** Looks something up by its address, and again after every this many milliseconds where that is said, by what was found or always; `reload` asks again, `replace` puts in what an act has answered. */
export function useFetched<T>(
  path: string,
  load: () => Promise<T> = () => get<T>(path),
  every?: number | ((value: T | undefined) => number),
): [Loaded<T>, () => void, (value: T) => void] {
  const client = useQueryClient();
  const { data, error, refetch } = useQuery<T>({
    queryKey: [path],
    queryFn: load,
    refetchInterval: typeof every === 'function' ? (query) => every(query.state.data) : (every ?? false),
  });
  const reload = useCallback(() => void refetch(), [refetch]);
  const replace = useCallback((value: T) => client.setQueryData([path], value), [client, path]);
  // What is shown stays while the server is away for a moment; it asks again.
  const isAway =
    every !== undefined && data !== undefined && (!(error instanceof ApiProblem) || error.status === 0);
  const loaded: Loaded<T> =
    error && !isAway
      ? { state: 'trouble', message: messageOf(error) }
      : data === undefined
        ? { state: 'loading' }
        : { state: 'here', value: data };
  return [loaded, reload, replace];
}
