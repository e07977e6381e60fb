import { GripVertical, X } from 'lucide-react';
import { useEffect, useRef, type ReactNode } from 'react';
import { Rnd } from 'react-rnd';
import { useStore } from 'zustand';
import type { Handout } from '../../core/papers/paper';
import { InPlace } from '../documents/InPlace';
import { Button } from '../ui/Button';
import { useNarrow } from '../ui/useNarrow';
import { closeHandout, openHandouts, placeHandout, raiseHandout, type Place } from './openHandouts';
import { t } from './words';

const SMALLEST = { width: 260, height: 180 };
const STEP_PX = 20;
/** Of the panel so much stays on the page, so that it can be taken hold of. */
const LEFT_OVER_PX = 60;

const within = (value: number, least: number, most: number) =>
  Math.max(least, Math.min(value, Math.max(least, most)));

/** Wherever it was left, also on a larger window: it can be seen and taken hold of. */
const onPage = ({ x, y, width, height }: Place): Place => {
  const size = {
    width: within(width, SMALLEST.width, window.innerWidth - 16),
    height: within(height, SMALLEST.height, window.innerHeight - 16),
  };
  return {
    ...size,
    x: within(x, LEFT_OVER_PX - size.width, window.innerWidth - LEFT_OVER_PX),
    y: within(y, 0, window.innerHeight - LEFT_OVER_PX),
  };
};

/** Over the source at first, each a little lower than the one before. */
const firstPlace = (n: number): Place => ({ x: 236 + n * 28, y: 120 + n * 36, width: 470, height: 430 });

/** By arrows it moves; with Shift it changes its size. */
function moved({ x, y, width, height }: Place, event: React.KeyboardEvent): Place | null {
  const [across, down] =
    {
      ArrowLeft: [-STEP_PX, 0] as const,
      ArrowRight: [STEP_PX, 0] as const,
      ArrowUp: [0, -STEP_PX] as const,
      ArrowDown: [0, STEP_PX] as const,
    }[event.key] ?? [];
  if (across === undefined || down === undefined) return null;
  return event.shiftKey
    ? { x, y, width: width + across, height: height + down }
    : { x: x + across, y: y + down, width, height };
}

interface PanelProps {
  readonly id: string;
  readonly handout: Handout;
}

function Inside({ id, handout, grip }: PanelProps & { readonly grip: ReactNode }) {
  return (
    <>
      <div className="flex items-center gap-2 border-b border-line py-1 pr-1.5 pl-2">
        {grip}
        <Button look="quiet" aria-label={t('handoutClose')} onClick={() => closeHandout(id)}>
          <X aria-hidden className="size-5" />
        </Button>
      </div>
      <div className="flex min-h-0 flex-1 flex-col px-3 pb-2">
        <InPlace body={handout.body} className="px-1 py-2" />
      </div>
    </>
  );
}

/** Esc puts it away, and what was worked at before is in focus again. */
function useClosing(id: string): React.RefObject<HTMLDivElement | null> {
  const own = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const before = document.activeElement;
    const panel = own.current!;
    panel.querySelector<HTMLElement>('[data-grip]')?.focus();
    const press = (event: KeyboardEvent) => {
      if (event.key !== 'Escape') return;
      event.stopPropagation();
      closeHandout(id);
      if (before instanceof HTMLElement) before.focus();
    };
    const raise = () => raiseHandout(id);
    panel.addEventListener('keydown', press);
    panel.addEventListener('pointerdown', raise);
    return () => {
      panel.removeEventListener('keydown', press);
      panel.removeEventListener('pointerdown', raise);
    };
  }, [id]);
  return own;
}

/** On a phone: a sheet from below. */
function Sheet({ id, handout }: PanelProps) {
  const own = useClosing(id);
  return (
    <div
      ref={own}
      role="dialog"
      aria-label={t('handout', { title: handout.title })}
      className="fixed inset-x-0 bottom-0 z-20 flex h-[62dvh] flex-col rounded-t-card border-t border-line bg-card shadow-float"
    >
      <Inside
        id={id}
        handout={handout}
        grip={
          <h2 data-grip tabIndex={-1} className="min-w-0 flex-1 px-2 font-semibold outline-none">
            {handout.title}
          </h2>
        }
      />
    </div>
  );
}

function Floating({ id, handout }: PanelProps) {
  const own = useClosing(id);
  const kept = useStore(openHandouts, (s) => s.places[id]);
  const depth = useStore(openHandouts, (s) => s.open.indexOf(id));
  const place = onPage(kept ?? firstPlace(Number(id.split('/')[1])));
  return (
    <Rnd
      position={{ x: place.x, y: place.y }}
      size={{ width: place.width, height: place.height }}
      minWidth={SMALLEST.width}
      minHeight={SMALLEST.height}
      dragHandleClassName="handout-grip"
      style={{ position: 'fixed', zIndex: 15 + depth }}
      onDragStart={() => raiseHandout(id)}
      onDragStop={(_, { x, y }) => placeHandout(id, onPage({ ...place, x, y }))}
      onResizeStop={(_event, _direction, element, _delta, { x, y }) =>
        placeHandout(id, onPage({ x, y, width: element.offsetWidth, height: element.offsetHeight }))
      }
    >
      <div
        ref={own}
        role="dialog"
        aria-label={t('handout', { title: handout.title })}
        className="flex h-full flex-col rounded-card border border-line bg-card shadow-float"
      >
        <Inside
          id={id}
          handout={handout}
          grip={
            <div
              data-grip
              role="button"
              tabIndex={0}
              aria-label={`${handout.title}. ${t('handoutMove')}`}
              onKeyDown={(event) => {
                const next = moved(place, event);
                if (!next) return;
                event.preventDefault();
                placeHandout(id, onPage(next));
              }}
              className="handout-grip flex min-h-10 min-w-0 flex-1 cursor-move items-center gap-1.5 rounded-control px-1"
            >
              <GripVertical aria-hidden className="size-5 flex-none text-soft" />
              <span className="truncate font-semibold">{handout.title}</span>
            </div>
          }
        />
      </div>
    </Rnd>
  );
}

/** A handout beside the question: moved, sized and kept open while one works. */
export function HandoutPanel(props: PanelProps) {
  return useNarrow() ? <Sheet {...props} /> : <Floating {...props} />;
}
