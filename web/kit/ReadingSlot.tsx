import { ChevronsUpDown, GripHorizontal, X } from 'lucide-react';
import { useLayoutEffect, useState } from 'react';
import { createPortal } from 'react-dom';
import { words } from '../words';
import { stepOf, within } from './place';
import { readingsInView } from './textScopes';
import { figureOf, useAid } from './useAid';
import { useDragged } from './useDragged';

const t = words('readingSlot', {
  title: 'Reading slot',
  move: 'Move the reading slot. Arrow up and down.',
  height: 'Height of the reading slot. Arrow up and down.',
  value: '{{height}} pixels high',
  close: 'Close the reading slot',
});

const LEAST_PX = 28;
const STEP_PX = 14;

interface Reading {
  readonly element: HTMLElement;
  readonly room: number;
}

/** What is read now: the source beside the question, or the question; with its height. */
function readingNow(): Reading | null {
  const all = readingsInView();
  const element = all.find((one) => one.dataset.reading === 'source') ?? all[0];
  return element ? { element, room: element.clientHeight } : null;
}

/** Found before the slot is seen, and looked for again whenever the page changes. */
function useReading(): Reading | null {
  const [reading, setReading] = useState<Reading | null>(null);
  const element = reading?.element;
  useLayoutEffect(() => {
    const look = () => {
      const found = readingNow();
      setReading((known) =>
        known?.element === found?.element && known?.room === found?.room ? known : found,
      );
    };
    look();
    let frame = 0;
    const lookSoon = () => {
      cancelAnimationFrame(frame);
      frame = requestAnimationFrame(look);
    };
    const changes = new MutationObserver(lookSoon);
    const desk = document.querySelector('[data-desk]');
    if (desk)
      changes.observe(desk, {
        subtree: true,
        // The source may come after the aid that was left open.
        childList: true,
        attributes: true,
        attributeFilter: ['class', 'inert', 'hidden'],
      });
    const sizes = new ResizeObserver(lookSoon);
    if (element) sizes.observe(element);
    window.addEventListener('resize', lookSoon);
    return () => {
      cancelAnimationFrame(frame);
      changes.disconnect();
      sizes.disconnect();
      window.removeEventListener('resize', lookSoon);
    };
  }, [element]);
  return reading;
}

function Slot({ room }: { readonly room: number }) {
  const { setting, set, close } = useAid('reading-slot');
  const kept = { top: figureOf(setting, 'top', 10), height: figureOf(setting, 'height', 84) };
  const fit = ({ top, height }: typeof kept) => {
    const high = within(height, LEAST_PX, room);
    return { top: within(top, 0, room - high), height: high };
  };
  const keep = (to: typeof kept) => {
    const { top, height } = fit(to);
    set({ top: Math.round(top), height: Math.round(height) });
  };
  const mover = useDragged({
    at: fit(kept),
    moved: (from, _, down) => fit({ ...from, top: from.top + down }),
    onEnd: keep,
  });
  const sizer = useDragged({
    at: mover.now,
    moved: (from, _, down) => fit({ ...from, height: from.height + down }),
    onEnd: keep,
  });
  const { top, height } = sizer.now;
  const byKey = (name: 'top' | 'height') => (event: React.KeyboardEvent) => {
    const step = stepOf(event.key);
    if (event.key === 'Escape') close();
    else if (step && step[1] !== 0)
      keep({ top, height, [name]: (name === 'top' ? top : height) + step[1] * STEP_PX });
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const handle =
    'pointer-events-auto grid size-8 touch-none place-items-center rounded-control bg-kelp text-on';
  return (
    <>
      <div className="absolute inset-x-0 top-0 bg-paper/80" style={{ height: top }} />
      <div className="absolute inset-x-0 bottom-0 bg-paper/80" style={{ top: top + height }} />
      <div className="absolute inset-x-0 border-y-2 border-kelp" style={{ top, height }} />
      <div
        role="group"
        aria-label={t('title')}
        className="absolute right-1 flex gap-1"
        // Outside of the slot, so that no word of it is covered.
        style={{ top: top + height + 36 > room ? top - 36 : top + height + 4 }}
      >
        <button
          type="button"
          aria-label={t('move')}
          onPointerDown={mover.onPointerDown}
          onKeyDown={byKey('top')}
          className={`${handle} cursor-ns-resize`}
        >
          <GripHorizontal aria-hidden className="size-5" />
        </button>
        <button
          type="button"
          aria-label={`${t('height')} ${t('value', { height: Math.round(height) })}`}
          onPointerDown={sizer.onPointerDown}
          onKeyDown={byKey('height')}
          className={`${handle} cursor-ns-resize`}
        >
          <ChevronsUpDown aria-hidden className="size-5" />
        </button>
        <button type="button" aria-label={t('close')} onClick={close} className={handle}>
          <X aria-hidden className="size-5" />
        </button>
      </div>
    </>
  );
}

/** Dims everything that is read but a few lines. It is no mode: what lies below is pressed and scrolled as ever. */
export function ReadingSlot() {
  const reading = useReading();
  if (!reading || reading.room < LEAST_PX * 2) return null;
  return createPortal(
    <div data-slot className="pointer-events-none absolute inset-0 z-10 overflow-hidden">
      <Slot room={reading.room} />
    </div>,
    reading.element,
  );
}
