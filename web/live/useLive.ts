import { useEffect, useState } from 'react';
import { LiveLine } from './liveLine';

/** The newest view of a live path; null until the first has come. */
export function useLive<View>(path: string | null): [View | null, (view: View) => void] {
  const [view, setView] = useState<View | null>(null);
  useEffect(() => {
    if (path === null) return;
    const line = new LiveLine<View>(path, setView);
    return () => line.end();
  }, [path]);
  return [view, setView];
}
