import { useEffect, useEffectEvent, useRef } from 'react';
import type { ArrivalView } from '../../core/arrival/api';
import type { LiveView } from '../../core/live/api';
import { get, post } from '../api/client';
import { useLive } from '../live/useLive';
import type { ArrivalShell } from './ArrivalContext';

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** Follows what happens around an arrival; when the stage has moved on by itself, the page moves on too. */
export function useArrivalLive(shell: Omit<ArrivalShell, 'live'> | null): {
  live: LiveView | null;
  startedElsewhere: boolean;
  say: (text: string, hand: boolean) => Promise<void>;
} {
  const stage = shell?.view.stage;
  // At the desk the desk itself follows; what is over changes no more.
  const follows = stage !== undefined && stage.at !== 'running' && stage.at !== 'over';
  const [live, setLive] = useLive<LiveView>(follows ? '/live' : null);
  /** Begun in another window or device: this one must not take the desk without being asked. */
  const startedElsewhere = live?.stage.at === 'running' && stage?.at === 'arriving';
  /** What was last shown of marking. */
  const seen = useRef<string | null>(null);
  const moved = useEffectEvent(async () => {
    if (!live || !shell || startedElsewhere) return;
    const awaited = live.stage.at === 'being marked' || live.stage.at === 'between';
    const marks = awaited && live.marked !== seen.current;
    if (same(live.stage, shell.view.stage) && !marks) return;
    seen.current = live.marked;
    shell.update(await get<ArrivalView>('/arrival'));
  });
  const news = JSON.stringify([live?.stage, live?.marked]);
  useEffect(() => void moved().catch(() => undefined), [news]);
  // The opening time passes without anybody doing anything: look again just then.
  const opensIn = live ? Math.min(live.opensAt - live.now, 2 ** 30) : null;
  useEffect(() => {
    if (opensIn === null || opensIn <= 0) return;
    const timer = setTimeout(() => void get<LiveView>('/live').then(setLive, () => undefined), opensIn + 250);
    return () => clearTimeout(timer);
  }, [opensIn, setLive]);
  const say = async (text: string, hand: boolean) =>
    setLive(await post<LiveView>('/live/say', { text, hand }));
  return { live, startedElsewhere, say };
}
