import { useState } from 'react';

interface Moves<T> {
  /** Where the thing is while nobody moves it. */
  readonly at: T;
  /** Where it comes to by so many pixels across and down from where it was. */
  readonly moved: (from: T, across: number, down: number, pointer: PointerEvent) => T;
  readonly onEnd: (to: T) => void;
}

/** A press that moved no further than this was no drag. */
const STILL_PX = 4;

/** What is pressed to put something down is not pressed otherwise. */
function swallowClick(): void {
  const swallow = (event: Event) => {
    event.preventDefault();
    event.stopPropagation();
    stop();
  };
  const stop = () => {
    window.removeEventListener('click', swallow, true);
    window.removeEventListener('pointerdown', stop, true);
  };
  window.addEventListener('click', swallow, true);
  window.addEventListener('pointerdown', stop, true);
}

interface Carrying {
  /** With each movement of the pointer, and where it is put down. */
  readonly follow: (pointer: PointerEvent) => void;
  /** Put down, or left where it was. */
  readonly end: (putDown: boolean) => void;
}

/** Something goes with the pointer until the next press puts it down; Esc leaves it where it was. */
export function carry({ follow, end }: Carrying): void {
  const put = (event: PointerEvent) => {
    event.preventDefault();
    event.stopPropagation();
    swallowClick();
    follow(event);
    stop(true);
  };
  const press = (event: KeyboardEvent) => {
    if (event.key !== 'Escape') return;
    event.preventDefault();
    event.stopPropagation();
    stop(false);
  };
  const stop = (putDown: boolean) => {
    window.removeEventListener('pointermove', follow);
    window.removeEventListener('pointerdown', put, true);
    window.removeEventListener('keydown', press, true);
    end(putDown);
  };
  window.addEventListener('pointermove', follow);
  window.addEventListener('pointerdown', put, true);
  window.addEventListener('keydown', press, true);
}

/**
 * A handle that is moved by the pointer: dragged, or without dragging, pressed once to take it up and once more to put it
 * down. What it moves follows at once, and is kept at the end.
 */
export function useDragged<T>({ at, moved, onEnd }: Moves<T>) {
  const [now, setNow] = useState<T | null>(null);
  const onPointerDown = (event: React.PointerEvent<Element>) => {
    event.preventDefault();
    const handle = event.currentTarget as HTMLElement;
    handle.focus();
    const [x, y, from] = [event.clientX, event.clientY, at];
    let [last, dragged] = [from, false];
    const follow = (next: PointerEvent) => {
      const [across, down] = [next.clientX - x, next.clientY - y];
      dragged ||= Math.hypot(across, down) > STILL_PX;
      last = moved(from, across, down, next);
      setNow(last);
    };
    const end = (keep: boolean) => {
      setNow(null);
      if (keep) onEnd(last);
    };
    const letGo = ({ type }: PointerEvent) => {
      window.removeEventListener('pointermove', follow);
      window.removeEventListener('pointerup', letGo);
      window.removeEventListener('pointercancel', letGo);
      if (dragged || type === 'pointercancel') end(dragged);
      else carry({ follow, end });
    };
    window.addEventListener('pointermove', follow);
    window.addEventListener('pointerup', letGo);
    window.addEventListener('pointercancel', letGo);
  };
  return { now: now ?? at, onPointerDown };
}
