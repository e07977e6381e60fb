import type { ReactNode } from 'react';
import { useWidth } from '../shared/useWidth';
import type { NumberLineShown, Piece } from '../../../core/kinds/number-line/response';
import { shareAlong, ticksOf } from '../../../core/kinds/shared/axis';
import { exactText, showExact } from '../../../core/numbers/exact';
import { numberFormatOf } from '../../../core/numbers/numberFormat';

const WIDE = 200;
const EDGE = 8;
/** The size of the figures, and the least room for each, in pixels. */
const [LETTERS, LEAST_ROOM] = [13, 30];
export const TOP = 14;

export const spotAt = (shown: NumberLineShown, place: string): number => shareAlong(shown.axis, place) * WIDE;

const LOOKS = {
  own: { stroke: 'stroke-kelp', fill: 'fill-kelp' },
  meant: { stroke: 'stroke-kelp [stroke-dasharray:4_3]', fill: 'fill-kelp' },
  plain: { stroke: 'stroke-filled', fill: 'fill-filled' },
} as const;

interface PieceProps {
  readonly shown: NumberLineShown;
  readonly piece: Piece;
  readonly look: keyof typeof LOOKS;
  readonly y?: number;
}

/** A thick line with filled or hollow ends; an arrow where it goes on for ever. */
export function PieceView({ shown, piece: { from, to, fromOpen, toOpen }, look, y = TOP }: PieceProps) {
  const { stroke, fill } = LOOKS[look];
  const [left, right] = [
    from === null ? -EDGE + 3 : spotAt(shown, from),
    to === null ? WIDE + EDGE - 3 : spotAt(shown, to),
  ];
  const end = (x: number, open: boolean) => (
    <circle
      cx={x}
      cy={y}
      r={3.4}
      strokeWidth={1.6}
      className={open ? `fill-card ${stroke.split(' ')[0]}` : `${fill} ${stroke.split(' ')[0]}`}
    />
  );
  return (
    <g>
      {left !== right && <line x1={left} x2={right} y1={y} y2={y} strokeWidth={2.6} className={stroke} />}
      {from === null && <path d={`M ${left - 2} ${y} l 5 -3.4 v 6.8 z`} className={fill} />}
      {to === null && <path d={`M ${right + 2} ${y} l -5 -3.4 v 6.8 z`} className={fill} />}
      {from !== null && end(left, fromOpen)}
      {to !== null && left !== right && end(right, toOpen)}
    </g>
  );
}

/** The line with its figures; what is marked on it comes as children. */
export function Line({
  shown,
  children,
}: {
  readonly shown: NumberLineShown;
  readonly children?: ReactNode;
}) {
  const ticks = ticksOf(shown.axis);
  const { decimal } = numberFormatOf(shown.locale);
  const [place, width] = useWidth<SVGSVGElement>(420);
  // The writing keeps its size; where figures would touch, every second one is left out, or more.
  const letters = Math.max(6.4, (LETTERS * (WIDE + 2 * EDGE)) / width);
  const room = (WIDE / ticks.length) * (width / (WIDE + 2 * EDGE));
  const every = [1, 2, 5, 10].find((n) => room * n > LEAST_ROOM) ?? 20;
  const zero = Math.max(
    0,
    ticks.findIndex((value) => value.over === 0n),
  );
  return (
    <svg
      ref={place}
      aria-hidden
      viewBox={`${-EDGE} 0 ${WIDE + 2 * EDGE} ${24 + letters}`}
      className="block w-full select-none"
    >
      <line x1={-EDGE} x2={WIDE + EDGE} y1={TOP} y2={TOP} className="stroke-ink" strokeWidth={0.8} />
      {ticks.map((value, i) => {
        const x = spotAt(shown, exactText(value));
        const figure = (i - zero) % every === 0;
        return (
          <g key={i}>
            <line
              x1={x}
              x2={x}
              y1={TOP - (figure ? 4 : 2.5)}
              y2={TOP + (figure ? 4 : 2.5)}
              className="stroke-ink"
              strokeWidth={0.8}
            />
            {figure && (
              <text x={x} y={TOP + 6 + letters} fontSize={letters} textAnchor="middle" className="fill-ink">
                {showExact(value, decimal)}
              </text>
            )}
          </g>
        );
      })}
      <rect x={0} y={0} width={WIDE} height={28} className="fill-transparent" />
      {children}
    </svg>
  );
}
