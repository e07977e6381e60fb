import { useEffect, useRef, useState, type RefObject } from 'react';

/** How wide an element is, in CSS pixels; drawings keep their writing at one size by it. */
export function useWidth<E extends Element>(before: number): readonly [RefObject<E | null>, number] {
  const place = useRef<E>(null);
  const [width, setWidth] = useState(before);
  useEffect(() => {
    const own = place.current;
    if (!own) return;
    const watch = new ResizeObserver(([entry]) => {
      if (entry && entry.contentRect.width > 0) setWidth(entry.contentRect.width);
    });
    watch.observe(own);
    return () => watch.disconnect();
  }, []);
  return [place, width];
}
