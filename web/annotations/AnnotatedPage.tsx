import { ChevronLeft, ChevronRight, Circle, Minus, Pencil, Plus, RotateCw, Square } from 'lucide-react';
import { useEffect, useRef, useState, type PointerEvent } from 'react';
import type { Page } from '../../core/files/pages';
import type { Anchor } from '../../core/marking/marginNote';
import { PagePicture } from '../pages/PagePicture';
import type { LoadedPage } from '../pages/pageSource';
import { Button } from '../ui/Button';
import { words } from '../words';
import { SIDE_STROKES, useAnnotations, type ShownNote } from './annotations';

const t = words('annotatedPage', {
  tools: 'Notes on {{title}}',
  point: 'Point',
  box: 'Box',
  line: 'Free line',
  larger: 'Larger',
  smaller: 'Smaller',
  turn: 'Turn',
  before: 'Previous page',
  next: 'Next page',
  at: '{{page}} of {{pages}}',
  place: 'Press {{title}} to add a note there. On the keyboard, Enter adds a note in the middle.',
  note: 'Note {{number}}',
});

type PageAnchor = Extract<Anchor, { on: 'page' }>;
type Shape = PageAnchor['shape'];
type Point = readonly [number, number];

const SHAPES = [
  ['point', Circle],
  ['box', Square],
  ['line', Pencil],
] as const;
const ZOOMS = [1, 1.5, 2, 3] as const;
const MOST_POINTS = 300;

/** Has this page notes, or can it have any? Else it is shown as it is everywhere. */
export function useHasNotes(file: string): boolean {
  const { notes, onPlace } = useAnnotations();
  return onPlace !== undefined || notes.some(({ anchor }) => anchor.on === 'page' && anchor.file === file);
}

/** A place on the page, where it lies when the page is turned further by so many degrees. */
const turnedBy = ([x, y]: Point, degrees: number): Point =>
  degrees === 90 ? [1 - y, x] : degrees === 180 ? [1 - x, 1 - y] : degrees === 270 ? [y, 1 - x] : [x, y];

interface Props {
  readonly page: Page;
  readonly loaded: LoadedPage & { readonly is: 'here' };
  readonly title: string;
}

interface MarkProps {
  readonly note: ShownNote & { readonly anchor: PageAnchor };
  readonly active: boolean;
  readonly turned: number;
}

function Mark({ note, active, turned }: MarkProps) {
  const { stroke, dash } = SIDE_STROKES[note.side];
  const { shape } = note.anchor;
  const points = note.anchor.points.map((one) => turnedBy(one, turned));
  const [[x, y], second] = [points[0]!, points[1]];
  const line = { fill: 'none', stroke, strokeWidth: active ? 0.009 : 0.005, strokeDasharray: dash };
  return (
    <>
      {shape === 'box' && second && (
        <rect
          x={Math.min(x, second[0])}
          y={Math.min(y, second[1])}
          width={Math.abs(second[0] - x)}
          height={Math.abs(second[1] - y)}
          {...line}
        />
      )}
      {shape === 'line' && <polyline points={points.map((p) => p.join(',')).join(' ')} {...line} />}
    </>
  );
}

/** A page of a PDF, drawn by us into a canvas. */
function PdfCanvas({
  blob,
  page,
  onPages,
}: {
  readonly blob: Blob;
  readonly page: number;
  readonly onPages: (n: number) => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    let current = true;
    const draw = async () => {
      // With the library that draws documents.
      const { drawPdfPage } = await import('../documents/drawPdfPage');
      const bytes = new Uint8Array(await blob.arrayBuffer());
      if (!current || !canvas.current) return;
      const pages = await drawPdfPage(canvas.current, bytes, page);
      if (current) onPages(pages);
    };
    draw().catch(() => undefined);
    return () => {
      current = false;
    };
  }, [blob, page, onPages]);
  return <canvas ref={canvas} className="block w-full bg-white" />;
}

const CROSS_STEP = 0.04;
const FINE_STEP = 0.005;

/** Where the arrow keys take the crosshair, with Shift in small steps; null for any other key. */
function movedBy({ key, shiftKey }: React.KeyboardEvent, [x, y]: Point): Point | null {
  const by = shiftKey ? FINE_STEP : CROSS_STEP;
  const steps: Readonly<Record<string, Point>> = {
    ArrowLeft: [-by, 0],
    ArrowRight: [by, 0],
    ArrowUp: [0, -by],
    ArrowDown: [0, by],
  };
  const step = steps[key];
  const inside = (value: number) => Math.min(1, Math.max(0, value));
  return step ? [inside(x + step[0]), inside(y + step[1])] : null;
}

/** A photographed page or a page of a document with its notes: points, boxes and free lines; larger, and turned. */
export function AnnotatedPage({ page, loaded, title }: Props) {
  const { notes, active, onActive, onPlace } = useAnnotations();
  const [shape, setShape] = useState<Shape>('box');
  const [zoom, setZoom] = useState(0);
  const [turned, setTurned] = useState(0);
  const [number, setNumber] = useState(1);
  const [pages, setPages] = useState(1);
  const [drawn, setDrawn] = useState<readonly Point[] | null>(null);
  /** Where the next note by keys would lie, on the page as it is seen; null while keys go elsewhere. */
  const [cross, setCross] = useState<Point | null>(null);
  const place = useRef<HTMLDivElement>(null);
  const isPdf = page.type === 'application/pdf';
  const turn = ((page.turn + turned) % 360) as Page['turn'];
  const own = notes.filter(
    (note): note is ShownNote & { readonly anchor: PageAnchor } =>
      note.anchor.on === 'page' && note.anchor.file === page.hash && note.anchor.page === number,
  );
  // Notes lie on the page as the candidate turned it; turned further, they turn with it.
  const at = (event: PointerEvent): Point => {
    const box = place.current!.getBoundingClientRect();
    const [x, y] = [(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height];
    const inside = (value: number) => Math.min(1, Math.max(0, value));
    const [a, b] = turnedBy([x, y], (360 - turned) % 360);
    return [inside(a), inside(b)];
  };
  const finish = (points: readonly Point[]) => {
    const kept =
      shape === 'point' ? points.slice(0, 1) : shape === 'box' ? [points[0]!, points.at(-1)!] : points;
    onPlace?.({ on: 'page', file: page.hash, page: number, shape, points: kept.map(([x, y]) => [x, y]) });
  };
  const drawing = onPlace
    ? {
        onPointerDown: (event: PointerEvent<HTMLDivElement>) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          setDrawn([at(event)]);
        },
        onPointerMove: (event: PointerEvent) =>
          drawn && drawn.length < MOST_POINTS && setDrawn([...drawn, at(event)]),
        onPointerUp: (event: PointerEvent) => {
          if (drawn) finish([...drawn.slice(0, MOST_POINTS - 1), at(event)]);
          setDrawn(null);
        },
        onPointerCancel: () => setDrawn(null),
        onFocus: () => setCross(cross ?? [0.5, 0.5]),
        onBlur: () => setCross(null),
        onKeyDown: (event: React.KeyboardEvent) => {
          const isOther = event.target !== event.currentTarget;
          if (isOther || event.ctrlKey || event.altKey || event.metaKey) return;
          const to = movedBy(event, cross ?? [0.5, 0.5]);
          const places = event.key === 'Enter' || event.key.toLowerCase() === 'n';
          if (!to && !places) return;
          event.preventDefault();
          event.stopPropagation();
          if (to) return setCross(to);
          const [x, y] = turnedBy(cross ?? [0.5, 0.5], (360 - turned) % 360);
          onPlace({ on: 'page', file: page.hash, page: number, shape: 'point', points: [[x, y]] });
        },
      }
    : {};
  const beingDrawn: ShownNote & { anchor: PageAnchor } = {
    id: 'drawn',
    number: null,
    side: 0,
    anchor: {
      on: 'page',
      file: page.hash,
      page: number,
      shape,
      points: (shape === 'box' && drawn ? [drawn[0]!, drawn.at(-1)!] : (drawn ?? [[0, 0]])).map(([x, y]) => [
        x,
        y,
      ]),
    },
  };
  return (
    <div>
      {onPlace && (
        <div
          role="toolbar"
          aria-label={t('tools', { title })}
          className="mb-2 flex flex-wrap items-center gap-1"
        >
          {SHAPES.map(([name, Icon]) => (
            <Button
              key={name}
              look={shape === name ? 'plain' : 'quiet'}
              aria-pressed={shape === name}
              onClick={() => setShape(name)}
              className="text-[0.85rem]"
            >
              <Icon aria-hidden className="size-4" /> {t(name)}
            </Button>
          ))}
          <span className="flex-1" />
          <Button
            look="quiet"
            aria-label={t('smaller')}
            aria-disabled={zoom === 0}
            onClick={() => setZoom(Math.max(0, zoom - 1))}
          >
            <Minus aria-hidden className="size-4" />
          </Button>
          <Button
            look="quiet"
            aria-label={t('larger')}
            aria-disabled={zoom === ZOOMS.length - 1}
            onClick={() => setZoom(Math.min(ZOOMS.length - 1, zoom + 1))}
          >
            <Plus aria-hidden className="size-4" />
          </Button>
          {!isPdf && (
            <Button look="quiet" aria-label={t('turn')} onClick={() => setTurned((turned + 90) % 360)}>
              <RotateCw aria-hidden className="size-4" />
            </Button>
          )}
        </div>
      )}
      {isPdf && pages > 1 && (
        <div className="mb-2 flex items-center gap-1">
          <Button
            look="quiet"
            aria-label={t('before')}
            aria-disabled={number === 1}
            onClick={() => setNumber(Math.max(1, number - 1))}
          >
            <ChevronLeft aria-hidden className="size-4" />
          </Button>
          {t('at', { page: number, pages })}
          <Button
            look="quiet"
            aria-label={t('next')}
            aria-disabled={number === pages}
            onClick={() => setNumber(Math.min(pages, number + 1))}
          >
            <ChevronRight aria-hidden className="size-4" />
          </Button>
        </div>
      )}
      <div className="overflow-auto rounded-lg border border-line">
        <div
          ref={place}
          role={onPlace ? 'application' : 'group'}
          aria-label={onPlace ? t('place', { title }) : title}
          tabIndex={onPlace ? 0 : undefined}
          {...(onPlace ? { 'data-to-notes': '' } : {})}
          style={{ width: `${100 * ZOOMS[zoom]!}%` }}
          className={`relative touch-none ${onPlace ? 'cursor-crosshair' : ''}`}
          {...drawing}
        >
          {isPdf ? (
            <PdfCanvas blob={loaded.blob} page={number} onPages={setPages} />
          ) : (
            <PagePicture page={{ ...page, turn }} loaded={loaded} description={title} natural />
          )}
          <svg
            viewBox="0 0 1 1"
            preserveAspectRatio="none"
            aria-hidden
            className="pointer-events-none absolute inset-0 size-full"
          >
            {own.map((note) => (
              <Mark key={note.id} note={note} active={note.id === active} turned={turned} />
            ))}
            {drawn && <Mark note={beingDrawn} active turned={turned} />}
          </svg>
          {cross && (
            <span
              aria-hidden
              data-cross
              style={{ left: `${100 * cross[0]}%`, top: `${100 * cross[1]}%` }}
              className="pointer-events-none absolute size-8 -translate-1/2 rounded-full border-2 border-kelp before:absolute before:top-1/2 before:left-1/2 before:h-px before:w-10 before:-translate-1/2 before:bg-kelp after:absolute after:top-1/2 after:left-1/2 after:h-10 after:w-px after:-translate-1/2 after:bg-kelp"
            />
          )}
          {own.map((note) => {
            const [x, y] = turnedBy(note.anchor.points[0]!, turned);
            return (
              <button
                key={note.id}
                type="button"
                data-note={note.id}
                aria-label={t('note', { number: note.number ?? '' })}
                onPointerDown={(event) => event.stopPropagation()}
                onClick={() => onActive?.(note.id)}
                style={{ left: `${100 * x}%`, top: `${100 * y}%` }}
                // A point is a ring around its number: drawn with the page it would be stretched with it.
                className={`absolute grid size-6 -translate-1/2 place-items-center rounded-full border bg-card text-[0.75rem] font-semibold ${note.anchor.shape === 'point' ? 'border-2 border-[#8a5000] ring-4 ring-[#fff8e1]/70' : 'border-edge'}`}
              >
                {note.number}
              </button>
            );
          })}
        </div>
      </div>
    </div>
  );
}
