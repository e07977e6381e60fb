import { CreditCard, MoveDiagonal2, RotateCw, Triangle, X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { useRef, useState } from 'react';
import { Button } from '../ui/Button';
import { words } from '../words';
import { angleTo, CARD_MM, centimetres, NOMINAL_PX_PER_MM, turned } from './measuring';
import { stepOf, within } from './place';
import { figureOf, useAid } from './useAid';
import { useDragged } from './useDragged';

const t = words('ruler', {
  title: 'Ruler',
  move: 'Move the ruler. Arrow keys; with Shift in small steps.',
  turn: 'Turn the ruler. Arrow keys; with Shift in small steps. {{angle}}°',
  length: 'Length of the ruler. Arrow keys. {{length}} cm',
  mark: 'Reading mark. Arrow keys; with Shift in small steps.',
  reading: '{{length}} cm',
  calibrate: 'Calibrate',
  calibrated: 'calibrated',
  nominal: 'not calibrated',
  close: 'Close the ruler',
  cardTitle: 'Hold a bank or identity card to the screen',
  cardText: 'Make the outline as large as the card. This is done once on each screen.',
  cardSize: 'Size of the outline',
  cardDone: 'The outline is as large as the card',
  cardCancel: 'Cancel',
});

const DEPTH_PX = 58;
const SHORTEST_MM = 50;
const LONGEST_MM = 300;

function Card({ onDone }: { readonly onDone: (pxPerMm: number | null) => void }) {
  const [width, setWidth] = useState(CARD_MM.width * NOMINAL_PX_PER_MM);
  return (
    <Dialog.Root open onOpenChange={() => onDone(null)}>
      <Dialog.Portal>
        <Dialog.Content className="fixed inset-x-3 top-16 z-40 mx-auto max-w-[40rem] rounded-card border border-line bg-card p-5 shadow-float">
          <Dialog.Title className="text-[1.1rem] font-semibold">{t('cardTitle')}</Dialog.Title>
          <Dialog.Description className="mb-3 text-soft">{t('cardText')}</Dialog.Description>
          <div
            aria-hidden
            style={{ width, height: (width * CARD_MM.height) / CARD_MM.width }}
            className="max-w-full rounded-card border-2 border-kelp bg-wash"
          />
          <label className="mt-3 block">
            {t('cardSize')}
            <input
              type="range"
              min={CARD_MM.width * 2}
              max={CARD_MM.width * 8}
              step={1}
              value={width}
              onChange={(event) => setWidth(Number(event.target.value))}
              className="block w-full"
            />
          </label>
          <div className="mt-3 flex flex-wrap gap-2">
            <Button look="first" onClick={() => onDone(width / CARD_MM.width)}>
              {t('cardDone')}
            </Button>
            <Button onClick={() => onDone(null)}>{t('cardCancel')}</Button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

const HANDLE =
  'absolute grid size-8 touch-none place-items-center rounded-control border border-edge bg-card text-ink shadow-float';

function Scale({ mm, pxPerMm }: { readonly mm: number; readonly pxPerMm: number }) {
  const marks = Array.from({ length: Math.floor(mm) + 1 }, (_, i) => i);
  return (
    <svg aria-hidden className="absolute inset-0 size-full overflow-visible text-ink">
      {marks.map((i) => (
        <g key={i} transform={`translate(${i * pxPerMm} 0)`}>
          <line y2={i % 10 === 0 ? 18 : i % 5 === 0 ? 13 : 8} stroke="currentColor" strokeWidth={1} />
          {i % 10 === 0 && (
            <text y={32} textAnchor="middle" fontSize={13} fill="currentColor">
              {i / 10}
            </text>
          )}
        </g>
      ))}
    </svg>
  );
}

/** A ruler in centimetres: moved, turned and sized by its handles; a mark on it reads a length. */
export function Ruler() {
  const { setting, set, close } = useAid('ruler');
  const [calibrating, setCalibrating] = useState(false);
  const own = useRef<HTMLDivElement>(null);
  const pxPerMm = figureOf(setting, 'pxPerMm', NOMINAL_PX_PER_MM);
  const kept = {
    x: figureOf(setting, 'x', window.innerWidth < 900 ? 24 : 250),
    y: figureOf(setting, 'y', window.innerHeight * 0.45),
    angle: figureOf(setting, 'angle', 0),
    mm: figureOf(setting, 'mm', Math.min(150, Math.floor((window.innerWidth * 0.8) / pxPerMm))),
    mark: figureOf(setting, 'mark', 50),
  };
  type Lie = typeof kept;
  const fit = (lie: Lie): Lie => {
    const mm = within(lie.mm, SHORTEST_MM, LONGEST_MM);
    return {
      // Its own buttons stay on the page, also on a narrower screen than before.
      x: within(lie.x, -100, Math.max(0, window.innerWidth - 220)),
      y: within(lie.y, 0, window.innerHeight - 40),
      angle: turned(lie.angle),
      mm,
      mark: within(lie.mark, 0, mm),
    };
  };
  const keep = (lie: Lie) => {
    const { x, y, angle, mm, mark } = fit(lie);
    set({ x: Math.round(x), y: Math.round(y), angle: Math.round(angle * 10) / 10, mm: Math.round(mm), mark });
  };
  const along = ({ angle }: Lie, across: number, down: number) => {
    const turn = (angle * Math.PI) / 180;
    return (across * Math.cos(turn) + down * Math.sin(turn)) / pxPerMm;
  };
  const mover = useDragged({
    at: fit(kept),
    moved: (lie, dx, dy) => fit({ ...lie, x: lie.x + dx, y: lie.y + dy }),
    onEnd: keep,
  });
  const turner = useDragged({
    at: mover.now,
    moved: (lie, _dx, _dy, { clientX, clientY }) =>
      fit({ ...lie, angle: angleTo(lie, { x: clientX, y: clientY }) }),
    onEnd: keep,
  });
  const sizer = useDragged({
    at: turner.now,
    moved: (lie, dx, dy) => fit({ ...lie, mm: lie.mm + along(lie, dx, dy) }),
    onEnd: keep,
  });
  const marker = useDragged({
    at: sizer.now,
    moved: (lie, dx, dy) => fit({ ...lie, mark: lie.mark + along(lie, dx, dy) }),
    onEnd: keep,
  });
  const lie = marker.now;
  const byKey = (change: (across: number, down: number) => Partial<Lie>) => (event: React.KeyboardEvent) => {
    const step = stepOf(event.key);
    if (event.key === 'Escape') close();
    else if (step)
      keep({
        ...lie,
        ...change(...(step.map((one) => one * (event.shiftKey ? 1 : 10)) as [number, number])),
      });
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const length = lie.mm * pxPerMm;
  const reading = centimetres(lie.mark * pxPerMm, pxPerMm).toFixed(1);
  if (calibrating)
    return (
      <Card
        onDone={(found) => {
          setCalibrating(false);
          if (found !== null) set({ pxPerMm: Math.round(found * 1000) / 1000, calibrated: true });
        }}
      />
    );
  return (
    <div
      ref={own}
      role="region"
      aria-label={t('title')}
      className="pointer-events-none fixed z-20"
      style={{
        left: lie.x,
        top: lie.y,
        width: length,
        height: DEPTH_PX,
        transform: `rotate(${lie.angle}deg)`,
        transformOrigin: '0 0',
      }}
    >
      <div className="absolute inset-0 rounded-[4px] border border-edge bg-card/80" />
      <Scale mm={lie.mm} pxPerMm={pxPerMm} />
      <button
        type="button"
        aria-label={t('move')}
        onPointerDown={mover.onPointerDown}
        onKeyDown={byKey((dx, dy) => ({ x: lie.x + dx, y: lie.y + dy }))}
        className="pointer-events-auto absolute inset-x-9 bottom-0 h-6 cursor-move touch-none rounded-control text-[0.78rem] text-soft"
      >
        {t(setting.calibrated === true ? 'calibrated' : 'nominal')}
      </button>
      <button
        type="button"
        role="slider"
        aria-label={t('mark')}
        aria-valuemin={0}
        aria-valuemax={lie.mm / 10}
        aria-valuenow={Number(reading)}
        aria-valuetext={t('reading', { length: reading })}
        onPointerDown={marker.onPointerDown}
        onKeyDown={byKey((dx, dy) => ({ mark: lie.mark + (dx - dy) / 10 }))}
        style={{ left: lie.mark * pxPerMm - 16, top: -26 }}
        className="pointer-events-auto absolute h-7 w-8 cursor-ew-resize touch-none rounded-control text-kelp"
      >
        <Triangle aria-hidden className="mx-auto size-4 rotate-180" fill="currentColor" />
      </button>
      <output
        style={{ left: lie.mark * pxPerMm + 14, top: -28 }}
        className="absolute rounded-control bg-kelp px-1.5 text-[0.85rem] whitespace-nowrap text-on"
      >
        {t('reading', { length: reading })}
      </output>
      <button
        type="button"
        aria-label={t('length', { length: (lie.mm / 10).toFixed(1) })}
        onPointerDown={sizer.onPointerDown}
        onKeyDown={byKey((dx, dy) => ({ mm: lie.mm + dx - dy }))}
        className={`${HANDLE} pointer-events-auto cursor-ew-resize`}
        style={{ left: length - 36, bottom: 2 }}
      >
        <MoveDiagonal2 aria-hidden className="size-5 -rotate-45" />
      </button>
      <button
        type="button"
        aria-label={t('turn', { angle: Math.round(lie.angle) })}
        onPointerDown={turner.onPointerDown}
        onKeyDown={byKey((dx, dy) => ({ angle: lie.angle + (dx + dy) / 2 }))}
        className={`${HANDLE} pointer-events-auto cursor-grab`}
        style={{ left: length + 4, top: 0 }}
      >
        <RotateCw aria-hidden className="size-5" />
      </button>
      <div className="pointer-events-auto absolute flex gap-1" style={{ left: 0, top: DEPTH_PX + 4 }}>
        <Button className="text-[0.85rem]" onClick={() => setCalibrating(true)}>
          <CreditCard aria-hidden className="size-4" /> {t('calibrate')}
        </Button>
        <Button aria-label={t('close')} onClick={close}>
          <X aria-hidden className="size-4" />
        </Button>
      </div>
    </div>
  );
}
