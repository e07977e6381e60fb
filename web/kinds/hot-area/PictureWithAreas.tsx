import { Minus, Plus } from 'lucide-react';
import { useRef, useState, type ReactNode } from 'react';
import type { HotAreaShown } from '../../../core/kinds/hot-area/response';
import type { PicturePoint, Shape } from '../../../core/kinds/hot-area/shapes';
import { useFile } from '../../media/fileSource';
import { Button } from '../../ui/Button';
import { words } from '../../words';

const t = words('hotAreaPicture', {
  zoomIn: 'Zoom in',
  zoomOut: 'Zoom out',
  missing: 'The picture cannot be shown: {{description}}',
});

const ZOOMS = [1, 1.5, 2, 3, 4];

/** A shape in the picture's own measure, thousandths of its width and height. */
export function ShapeView({ shape, className }: { readonly shape: Shape; readonly className: string }) {
  const common = { className, vectorEffect: 'non-scaling-stroke' as const };
  switch (shape.is) {
    case 'rectangle':
      return <rect {...common} x={shape.x} y={shape.y} width={shape.width} height={shape.height} />;
    case 'ellipse':
      return <ellipse {...common} cx={shape.x} cy={shape.y} rx={shape.across} ry={shape.down} />;
    case 'polygon':
      return <polygon {...common} points={shape.points.map(({ x, y }) => `${x},${y}`).join(' ')} />;
  }
}

interface Props {
  readonly shown: HotAreaShown;
  /** Outlines and fills, in the measure of the picture. */
  readonly shapes: ReactNode;
  /** What lies above them, placed by per cent. */
  readonly children?: ReactNode;
  readonly onPress?: (point: PicturePoint) => void;
}

/** The picture, larger and smaller, with what is drawn on it. */
export function PictureWithAreas({ shown, shapes, children, onPress }: Props) {
  const { file, description } = shown.picture;
  const found = useFile(file);
  const [zoom, setZoom] = useState(0);
  const frame = useRef<HTMLDivElement>(null);
  const press = (event: React.MouseEvent) => {
    const box = frame.current!.getBoundingClientRect();
    if (box.width === 0) return;
    const share = (at: number, from: number, size: number) =>
      Math.max(0, Math.min(1000, Math.round((1000 * (at - from)) / size)));
    onPress?.({ x: share(event.clientX, box.left, box.width), y: share(event.clientY, box.top, box.height) });
  };
  return (
    <div>
      <div
        data-panned
        className="max-h-[70vh] overflow-auto rounded-lg border border-line bg-card"
        tabIndex={zoom > 0 ? 0 : undefined}
      >
        {/* Who cannot use a pointer chooses by the names below. */}
        {/* oxlint-disable-next-line jsx-a11y/click-events-have-key-events, jsx-a11y/no-static-element-interactions */}
        <div
          ref={frame}
          onClick={press}
          style={zoom === 0 ? undefined : { width: `${ZOOMS[zoom]! * 100}%` }}
          className={`relative ${zoom === 0 ? 'mx-auto w-fit' : ''} ${onPress ? 'cursor-crosshair' : ''}`}
        >
          {found.is === 'here' ? (
            <img
              src={found.address}
              alt={description}
              className="block w-full select-none"
              draggable={false}
            />
          ) : (
            <p className="grid min-h-60 place-items-center p-4 text-soft">
              {found.is === 'missing' ? t('missing', { description }) : ''}
            </p>
          )}
          <svg
            aria-hidden
            viewBox="0 0 1000 1000"
            preserveAspectRatio="none"
            className="pointer-events-none absolute inset-0 size-full"
          >
            {shapes}
          </svg>
          {children}
        </div>
      </div>
      <div className="mt-1.5 flex flex-wrap gap-1.5">
        <Button disabled={zoom === 0} onClick={() => setZoom(zoom - 1)}>
          <Minus aria-hidden className="size-4" /> {t('zoomOut')}
        </Button>
        <Button disabled={zoom === ZOOMS.length - 1} onClick={() => setZoom(zoom + 1)}>
          <Plus aria-hidden className="size-4" /> {t('zoomIn')}
        </Button>
      </div>
    </div>
  );
}
