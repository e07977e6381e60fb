import { GripVertical, X } from 'lucide-react';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { Rnd } from 'react-rnd';
import { Button } from '../ui/Button';
import { useNarrow } from '../ui/useNarrow';
import { fieldInUse, isField } from './fieldInUse';
import { aside, inCorner, moved, onPage, type Place, type Size } from './place';
import { carry } from './useDragged';
import { figureOf, raise, takeOpened, useAid, useDepth } from './useAid';
import { t } from './words';

export interface PanelProps {
  readonly id: string;
  readonly title: string;
  /** Where it lies until it was moved: a corner of the question, or a place. */
  readonly first: (Size & { readonly corner: 'left' | 'right' }) | Place;
  readonly least: Size;
  /** On a phone: it needs more than half of the height, or some of its keys would be out of view. */
  readonly tall?: boolean;
  readonly children: ReactNode;
}

const footHeight = (): number => document.querySelector('[data-foot]')?.clientHeight ?? 0;
const page = (): Size => ({ width: window.innerWidth, height: window.innerHeight });

/** Esc puts it away, and what was worked at before is in focus again. */
function usePanel(id: string, close: () => void): React.RefObject<HTMLDivElement | null> {
  const own = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const before = document.activeElement;
    const panel = own.current!;
    if (takeOpened(id)) panel.querySelector<HTMLElement>('[data-grip]')?.focus({ preventScroll: true });
    const press = (event: KeyboardEvent) => {
      if (event.key !== 'Escape' || event.defaultPrevented) return;
      event.stopPropagation();
      close();
      // An aid that waited behind *Kit* has no button any more: what opened it is there.
      const back =
        before instanceof HTMLElement && before.isConnected && before !== document.body
          ? before
          : document.querySelector<HTMLElement>('[data-kit-opener] button');
      back?.focus();
    };
    const touch = () => raise(id);
    panel.addEventListener('keydown', press);
    panel.addEventListener('pointerdown', touch);
    panel.addEventListener('focusin', touch);
    return () => {
      panel.removeEventListener('keydown', press);
      panel.removeEventListener('pointerdown', touch);
      panel.removeEventListener('focusin', touch);
    };
  }, [id, close]);
  return own;
}

function Inside({
  grip,
  onClose,
  title,
  children,
}: Pick<PanelProps, 'title' | 'children'> & { readonly grip: ReactNode; readonly onClose: () => void }) {
  return (
    <>
      <div className="flex items-center gap-2 border-b border-line py-0.5 pr-1 pl-1.5">
        {grip}
        <Button look="quiet" aria-label={t('close', { title })} onClick={onClose}>
          <X aria-hidden className="size-5" />
        </Button>
      </div>
      <div className="flex min-h-0 flex-1 flex-col">{children}</div>
    </>
  );
}

/** On a phone: a sheet from below. The desk gives it room, so that it covers nothing. */
function Sheet({ id, title, tall = false, children }: PanelProps) {
  const { close } = useAid(id);
  const own = usePanel(id, close);
  useEffect(() => {
    const root = document.documentElement;
    root.dataset.sheet = 'open';
    const observer = new ResizeObserver(([entry]) => {
      if (entry) root.style.setProperty('--sheet', `${entry.borderBoxSize[0]!.blockSize}px`);
    });
    observer.observe(own.current!);
    return () => {
      observer.disconnect();
      root.style.removeProperty('--sheet');
      delete root.dataset.sheet;
    };
  }, [own]);
  return (
    <div
      ref={own}
      role="dialog"
      aria-label={title}
      className={`fixed inset-x-0 bottom-0 z-20 flex flex-col rounded-t-card border-t border-line bg-card shadow-float ${tall ? 'max-h-[57dvh]' : 'max-h-[48dvh]'}`}
    >
      <Inside
        title={title}
        onClose={close}
        grip={
          <h2 data-grip tabIndex={-1} className="min-w-0 flex-1 px-2 font-semibold outline-none">
            {title}
          </h2>
        }
      >
        {children}
      </Inside>
    </div>
  );
}

/** Where a panel lies: where it was left, or aside of the field that is worked in. */
function usePlace({ id, first, least }: PanelProps) {
  const { open, setting, set } = useAid(id);
  const before =
    'corner' in first ? inCorner(first.corner, first, { page: page(), foot: footHeight() }) : first;
  const kept: Place = {
    x: figureOf(setting, 'x', before.x),
    y: figureOf(setting, 'y', before.y),
    width: figureOf(setting, 'width', before.width),
    height: figureOf(setting, 'height', before.height),
  };
  const [field, setField] = useState<Place | null>(fieldInUse);
  const [wasOpen, setWasOpen] = useState(open);
  if (open !== wasOpen) {
    // It may have been laid out long before, when another field was worked in.
    setWasOpen(open);
    setField(fieldInUse());
  }
  useEffect(() => {
    const look = () => {
      // What is in a panel of its own covers itself.
      if (isField(document.activeElement)) setField(fieldInUse());
    };
    document.addEventListener('focusin', look);
    return () => document.removeEventListener('focusin', look);
  }, []);
  const lying = onPage(kept, page(), least);
  return {
    place: field ? aside(lying, field, page()) : lying,
    move: (to: Place) => {
      setField(null);
      const { x, y, width, height } = onPage(to, page(), least);
      set({ x: Math.round(x), y: Math.round(y), width: Math.round(width), height: Math.round(height) });
    },
  };
}

/** Without dragging: a press on the grip takes the panel up, the next one puts it down. */
function useCarried({ place, move }: ReturnType<typeof usePlace>) {
  const [carried, setCarried] = useState<Place | null>(null);
  const takeUp = (from: { readonly clientX: number; readonly clientY: number }) => {
    let to = place;
    carry({
      follow: ({ clientX, clientY }) => {
        to = { ...place, x: place.x + clientX - from.clientX, y: place.y + clientY - from.clientY };
        setCarried(to);
      },
      end: (putDown) => {
        setCarried(null);
        if (putDown) move(to);
      },
    });
  };
  return { shown: carried ?? place, takeUp };
}

function Floating(props: PanelProps) {
  const { id, title, least, children } = props;
  const { close } = useAid(id);
  const own = usePanel(id, close);
  const depth = useDepth(id);
  const placing = usePlace(props);
  const { place, move } = placing;
  const { shown, takeUp } = useCarried(placing);
  return (
    <Rnd
      position={{ x: shown.x, y: shown.y }}
      size={{ width: shown.width, height: shown.height }}
      minWidth={least.width}
      minHeight={least.height}
      dragHandleClassName="panel-grip"
      style={{ position: 'fixed', zIndex: 15 + depth }}
      onDragStart={() => raise(id)}
      onDragStop={(event, { x, y }) => {
        if (x !== place.x || y !== place.y) move({ ...place, x, y });
        else takeUp(event instanceof MouseEvent ? event : (event as TouchEvent).changedTouches[0]!);
      }}
      onResizeStop={(_event, _direction, element, _delta, { x, y }) =>
        move({ x, y, width: element.offsetWidth, height: element.offsetHeight })
      }
    >
      <div
        ref={own}
        role="dialog"
        aria-label={title}
        className="flex h-full flex-col rounded-card border border-line bg-card shadow-float"
      >
        <Inside
          title={title}
          onClose={close}
          grip={
            <div
              data-grip
              role="button"
              tabIndex={0}
              aria-label={`${title}. ${t('move')}`}
              onKeyDown={(event) => {
                const next = moved(place, event);
                if (!next) return;
                event.preventDefault();
                move(next);
              }}
              className="panel-grip flex min-h-9 min-w-0 flex-1 cursor-move items-center gap-1.5 rounded-control px-1"
            >
              <GripVertical aria-hidden className="size-5 flex-none text-soft" />
              <span className="truncate font-semibold">{title}</span>
            </div>
          }
        >
          {children}
        </Inside>
      </div>
    </Rnd>
  );
}

/** A panel beside the question: moved, sized and kept open while one works. It is no mode, and closes by Esc. */
export function Panel(props: PanelProps) {
  return useNarrow() ? <Sheet {...props} /> : <Floating {...props} />;
}
