import { useCallback, useEffect, useState } from 'react';
import { messageOf } from '../api/client';

export type Loaded<T> =
  | { readonly state: 'loading' }
  | { readonly state: 'trouble'; readonly message: string }
  | { readonly state: 'here'; readonly value: T };

/** Loads once for `key` and again on `reload`; a result that comes after the key has changed is dropped. */
export function useLoaded<T>(
  key: string,
  load: () => Promise<T>,
): [Loaded<T>, () => void, (value: T) => void] {
  const [loaded, setLoaded] = useState<Loaded<T>>({ state: 'loading' });
  const [turn, setTurn] = useState(0);
  useEffect(() => {
    let current = true;
    load().then(
      (value) => current && setLoaded({ state: 'here', value }),
      (error: unknown) => current && setLoaded({ state: 'trouble', message: messageOf(error) }),
    );
    return () => {
      current = false;
    };
    // `load` is made again at each render; `key` says when it means something else.
    // oxlint-disable-next-line react-hooks/exhaustive-deps
  }, [key, turn]);
  const reload = useCallback(() => setTurn((n) => n + 1), []);
  const replace = useCallback((value: T) => setLoaded({ state: 'here', value }), []);
  return [loaded, reload, replace];
}

/** Runs an action once at a time and keeps what went wrong, in words. */
export function useAction(): {
  busy: boolean;
  trouble: string | null;
  run: (action: () => Promise<void>) => Promise<void>;
} {
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const run = useCallback(async (action: () => Promise<void>) => {
    setBusy(true);
    setTrouble(null);
    try {
      await action();
    } catch (error) {
      setTrouble(messageOf(error));
    } finally {
      setBusy(false);
    }
  }, []);
  return { busy, trouble, run };
}
