import { Circle, Maximize2, Move, RotateCw, X } from 'lucide-react';
import { Button } from '../ui/Button';
import { words } from '../words';
import { angleTo, readAngle, turned } from './measuring';
import { stepOf, within } from './place';
import { figureOf, useAid } from './useAid';
import { useDragged } from './useDragged';

const t = words('protractor', {
  title: 'Protractor',
  move: 'Move the protractor. Arrow keys; with Shift in small steps.',
  turn: 'Turn the protractor. Arrow keys; with Shift in small steps. {{angle}}°',
  size: 'Size of the protractor. Arrow keys.',
  arm: 'Arm. Arrow keys; with Shift in small steps.',
  reading: '{{angle}}°',
  close: 'Close the protractor',
});

const LEAST_PX = 80;
const LARGEST_PX = 400;
const HANDLE =
  'pointer-events-auto absolute grid size-8 -translate-1/2 touch-none place-items-center rounded-full border border-edge bg-card text-ink shadow-float';

const atAngle = (radius: number, degrees: number) => {
  const turn = (degrees * Math.PI) / 180;
  return { x: radius * Math.cos(turn), y: -radius * Math.sin(turn) };
};

function Face({ radius }: { readonly radius: number }) {
  const marks = Array.from({ length: 37 }, (_, i) => i * 5);
  return (
    <>
      <path
        d={`M${-radius} 0A${radius} ${radius} 0 0 1 ${radius} 0Z`}
        className="fill-card/70 stroke-edge"
        strokeWidth={1.5}
      />
      {marks.map((degrees) => {
        const [outer, inner] = [
          atAngle(radius, degrees),
          atAngle(radius - (degrees % 10 === 0 ? 14 : 8), degrees),
        ];
        const label = atAngle(radius - 24, degrees);
        return (
          <g key={degrees}>
            <line x1={outer.x} y1={outer.y} x2={inner.x} y2={inner.y} stroke="currentColor" strokeWidth={1} />
            {degrees % 30 === 0 && (
              <text x={label.x} y={label.y + 4} textAnchor="middle" fontSize={11} fill="currentColor">
                {degrees}
              </text>
            )}
          </g>
        );
      })}
      <circle r={3} className="fill-kelp" />
    </>
  );
}

/** A half circle with an arm: moved, turned and sized by its handles; the angle of the arm can be read. */
export function Protractor() {
  const { setting, set, close } = useAid('protractor');
  const kept = {
    x: figureOf(setting, 'x', window.innerWidth * 0.5),
    y: figureOf(setting, 'y', window.innerHeight * 0.55),
    angle: figureOf(setting, 'angle', 0),
    radius: figureOf(setting, 'radius', Math.min(150, window.innerWidth * 0.32)),
    arm: figureOf(setting, 'arm', 45),
  };
  type Lie = typeof kept;
  const fit = (lie: Lie): Lie => ({
    x: within(lie.x, 0, window.innerWidth),
    y: within(lie.y, 0, window.innerHeight),
    angle: turned(lie.angle),
    radius: within(lie.radius, LEAST_PX, LARGEST_PX),
    arm: within(lie.arm, 0, 180),
  });
  const keep = (lie: Lie) => {
    const { x, y, angle, radius, arm } = fit(lie);
    set({
      x: Math.round(x),
      y: Math.round(y),
      angle: Math.round(angle * 10) / 10,
      radius: Math.round(radius),
      arm: readAngle(arm),
    });
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
    moved: (lie, _dx, _dy, { clientX, clientY }) =>
      fit({ ...lie, radius: Math.hypot(clientX - lie.x, clientY - lie.y) }),
    onEnd: keep,
  });
  const armer = useDragged({
    at: sizer.now,
    moved: (lie, _dx, _dy, { clientX, clientY }) => {
      const against = turned(lie.angle - angleTo(lie, { x: clientX, y: clientY }));
      // Below the base line the nearer end of the scale is meant.
      return fit({ ...lie, arm: against > 180 ? (against > 270 ? 0 : 180) : against });
    },
    onEnd: keep,
  });
  const lie = armer.now;
  const byKey =
    (change: (step: number, across: number, down: number) => Partial<Lie>) =>
    (event: React.KeyboardEvent) => {
      const step = stepOf(event.key);
      if (event.key === 'Escape') close();
      else if (step) {
        const by = event.shiftKey ? 1 : 10;
        keep({ ...lie, ...change((step[0] - step[1]) * by, step[0] * by, step[1] * by) });
      } else return;
      event.preventDefault();
      event.stopPropagation();
    };
  const { radius } = lie;
  const arm = atAngle(radius + 22, lie.arm);
  const reading = readAngle(lie.arm);
  const size = atAngle(radius, 135);
  return (
    <div
      role="region"
      aria-label={t('title')}
      className="pointer-events-none fixed z-20"
      style={{ left: lie.x, top: lie.y, transform: `rotate(${lie.angle}deg)` }}
    >
      <svg aria-hidden className="absolute overflow-visible text-ink" width={1} height={1}>
        <Face radius={radius} />
        <line x2={arm.x} y2={arm.y} className="stroke-kelp" strokeWidth={2} />
      </svg>
      <button
        type="button"
        role="slider"
        aria-label={t('arm')}
        aria-valuemin={0}
        aria-valuemax={180}
        aria-valuenow={reading}
        aria-valuetext={t('reading', { angle: reading })}
        onPointerDown={armer.onPointerDown}
        onKeyDown={byKey((step) => ({ arm: lie.arm + step / 2 }))}
        className={`${HANDLE} cursor-grab text-kelp`}
        style={{ left: arm.x, top: arm.y }}
      >
        <Circle aria-hidden className="size-4" fill="currentColor" />
      </button>
      <output
        className="absolute -translate-x-1/2 rounded-control bg-kelp px-1.5 text-[0.9rem] whitespace-nowrap text-on"
        style={{ left: 0, top: -radius * 0.42, transform: `translateX(-50%) rotate(${-lie.angle}deg)` }}
      >
        {t('reading', { angle: reading })}
      </output>
      <button
        type="button"
        aria-label={t('move')}
        onPointerDown={mover.onPointerDown}
        onKeyDown={byKey((_step, dx, dy) => ({ x: lie.x + dx, y: lie.y + dy }))}
        className={`${HANDLE} cursor-move`}
        style={{ left: 0, top: 24 }}
      >
        <Move aria-hidden className="size-5" />
      </button>
      <button
        type="button"
        aria-label={t('turn', { angle: Math.round(lie.angle) })}
        onPointerDown={turner.onPointerDown}
        onKeyDown={byKey((_step, dx, dy) => ({ angle: lie.angle + (dx + dy) / 2 }))}
        className={`${HANDLE} cursor-grab`}
        style={{ left: radius + 20, top: 0 }}
      >
        <RotateCw aria-hidden className="size-5" />
      </button>
      <button
        type="button"
        aria-label={t('size')}
        onPointerDown={sizer.onPointerDown}
        onKeyDown={byKey((step) => ({ radius: lie.radius + step }))}
        className={`${HANDLE} cursor-nwse-resize`}
        style={{ left: size.x, top: size.y }}
      >
        <Maximize2 aria-hidden className="size-4" />
      </button>
      <Button
        aria-label={t('close')}
        onClick={close}
        className="pointer-events-auto absolute!"
        style={{ left: 24, top: 8 }}
      >
        <X aria-hidden className="size-4" />
      </Button>
    </div>
  );
}
