import { useState } from 'react';

interface Moves<T> {
  /** Where the thing is while nobody moves it. */
  readonly at: T;
  /** Where it comes to by so many pixels across and down from where it was. */
  readonly moved: (from: T, across: number, down: number, pointer: PointerEvent) => T;
  readonly onEnd: (to: T) => void;
}

/** A handle that is moved by the pointer: what it moves follows at once, and is kept when it is let go. */
export function useDragged<T>({ at, moved, onEnd }: Moves<T>) {
  const [now, setNow] = useState<T | null>(null);
  const onPointerDown = (event: React.PointerEvent<Element>) => {
    event.preventDefault();
    const handle = event.currentTarget as HTMLElement;
    handle.focus();
    const [x, y, from] = [event.clientX, event.clientY, at];
    let last = from;
    const follow = (next: PointerEvent) => {
      last = moved(from, next.clientX - x, next.clientY - y, next);
      setNow(last);
    };
    const stop = () => {
      window.removeEventListener('pointermove', follow);
      window.removeEventListener('pointerup', stop);
      window.removeEventListener('pointercancel', stop);
      setNow(null);
      onEnd(last);
    };
    window.addEventListener('pointermove', follow);
    window.addEventListener('pointerup', stop);
    window.addEventListener('pointercancel', stop);
  };
  return { now: now ?? at, onPointerDown };
}
