import { useEffect, useEffectEvent } from 'react';
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
  const follows = stage?.at === 'arriving' || stage?.at === 'too early';
  const [live, setLive] = useLive<LiveView>(follows ? '/live' : null);
  /** Begun in another window or device: this one must not take the desk without being asked. */
  const startedElsewhere = live?.stage.at === 'running' && stage?.at === 'arriving';
  const moved = useEffectEvent(async () => {
    if (!live || !shell || startedElsewhere || same(live.stage, shell.view.stage)) return;
    shell.update(await get<ArrivalView>('/arrival'));
  });
  const news = JSON.stringify(live?.stage);
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
