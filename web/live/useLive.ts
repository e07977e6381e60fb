import { useCallback, useEffect, useRef, useState } from 'react';
import { LiveLine, type Merge } from './liveLine';

/** The newest view of a live path, null until the first has come; and a way to give it news that came otherwise. */
export function useLive<View, News = View>(
  path: string | null,
  merge?: Merge<View, News>,
): [View | null, (news: News) => void] {
  const [view, setView] = useState<View | null>(null);
  const line = useRef<LiveLine<View, News> | null>(null);
  useEffect(() => {
    if (path === null) return;
    const opened = new LiveLine<View, News>(path, setView, merge);
    line.current = opened;
    return () => opened.end();
  }, [path, merge]);
  const take = useCallback((news: News) => line.current?.take(news), []);
  return [view, take];
}
