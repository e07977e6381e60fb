import { useEffect, useRef } from 'react';

/** A press that moved no further than this is a press. */
const STILL_PX = 4;

/** The words that go with the pointer, and never lie under it. */
function copyOf(text: string): HTMLElement {
  const copy = document.createElement('span');
  copy.textContent = text;
  copy.setAttribute('aria-hidden', 'true');
  copy.className =
    'pointer-events-none fixed z-50 max-w-72 rounded-lg border border-kelp bg-card px-3 py-1.5 shadow-float';
  document.body.append(copy);
  return copy;
}

/**
 * Lets a phrase be dragged with the mouse or a pen; a finger that moves scrolls the source, and presses the phrase
 * instead. `drop` gets the element over which it is let go; Esc leaves it where it was.
 */
export function useDragPhrase(drop: ((at: Element | null) => void) | undefined) {
  const end = useRef<() => void>(() => undefined);
  useEffect(() => () => end.current(), []);
  if (!drop) return undefined;
  return (event: React.PointerEvent<HTMLElement>) => {
    if (event.button !== 0 || event.pointerType === 'touch') return;
    // Or else the browser begins to select text.
    event.preventDefault();
    const phrase = event.currentTarget;
    phrase.focus({ preventScroll: true });
    const { clientX: x, clientY: y } = event;
    let [copy, reached] = [null as HTMLElement | null, null as Element | null];
    /** What the phrase would be put into shows it. */
    const over = (next: Element | null) => {
      if (next === reached) return;
      reached?.removeAttribute('data-over');
      next?.setAttribute('data-over', '');
      reached = next;
    };
    const follow = (to: PointerEvent) => {
      if (!copy && Math.hypot(to.clientX - x, to.clientY - y) <= STILL_PX) return;
      copy ??= copyOf(phrase.textContent);
      over(document.elementFromPoint(to.clientX, to.clientY)?.closest('[data-drop]') ?? null);
      copy.style.left = `${to.clientX + 8}px`;
      copy.style.top = `${to.clientY + 8}px`;
    };
    const stop = () => {
      copy?.remove();
      over(null);
      window.removeEventListener('pointermove', follow);
      window.removeEventListener('pointerup', put);
      window.removeEventListener('pointercancel', stop);
      window.removeEventListener('keydown', leave, true);
    };
    const put = (at: PointerEvent) => {
      if (copy) drop(document.elementFromPoint(at.clientX, at.clientY));
      stop();
    };
    const leave = (pressed: KeyboardEvent) => {
      if (pressed.key !== 'Escape' || !copy) return;
      pressed.stopPropagation();
      stop();
    };
    window.addEventListener('pointermove', follow);
    window.addEventListener('pointerup', put);
    window.addEventListener('pointercancel', stop);
    window.addEventListener('keydown', leave, true);
    end.current = stop;
  };
}
