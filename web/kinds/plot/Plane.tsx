import type { ReactNode } from 'react';
import { useWidth } from '../shared/useWidth';
import type { PlotShown } from '../../../core/kinds/plot/response';
import { shareAlong, ticksOf, type Axis } from '../../../core/kinds/shared/axis';
import { exactText, showExact } from '../../../core/numbers/exact';
import { numberFormatOf } from '../../../core/numbers/numberFormat';
import { tallOf, WIDE } from './geometry';

/** Every so many lines of the grid there is a figure, so that they have room. */
const figureEvery = (lines: number) => (lines > 24 ? 5 : lines > 12 ? 2 : 1);

interface Tick {
  readonly share: number;
  readonly figure: string | null;
  readonly isZero: boolean;
}

function ticks(axis: Axis, locale: string): Tick[] {
  const all = ticksOf(axis);
  const { decimal } = numberFormatOf(locale);
  const every = figureEvery(all.length - 1);
  const zero = all.findIndex((value) => value.over === 0n);
  return all.map((value, i) => ({
    share: shareAlong(axis, exactText(value)),
    // Counted from nought where it is on the axis, so that it has a figure.
    figure: (i - Math.max(zero, 0)) % every === 0 ? showExact(value, decimal) : null,
    isZero: value.over === 0n,
  }));
}

/** Room for the figures, in pixels. */
const [LEFT, REST] = [34, 12];
const BELOW = 24;
const LETTERS = 13;

interface Props {
  readonly shown: PlotShown;
  /** A CSS length. */
  readonly widest: string;
  /** What is drawn on it, in its own measure; `unit` is a pixel in that measure. */
  readonly children: (unit: number) => ReactNode;
}

/** The grid with its axes and figures. */
export function Plane({ shown, widest, children }: Props) {
  const tall = tallOf(shown);
  const [place, width] = useWidth<SVGSVGElement>(420);
  const unit = WIDE / Math.max(100, width - LEFT - REST);
  const [across, up] = [ticks(shown.x, shown.locale), ticks(shown.y, shown.locale)];
  return (
    <svg
      ref={place}
      aria-hidden
      viewBox={`${-LEFT * unit} ${-REST * unit} ${WIDE + (LEFT + REST) * unit} ${tall + (REST + BELOW) * unit}`}
      style={{ maxWidth: widest }}
      className="block w-full select-none"
    >
      <rect x={0} y={0} width={WIDE} height={tall} className="fill-none stroke-edge" strokeWidth={unit} />
      {across.map(({ share, isZero }, i) => (
        <line
          key={i}
          x1={share * WIDE}
          x2={share * WIDE}
          y1={0}
          y2={tall}
          className={isZero ? 'stroke-ink' : 'stroke-edge'}
          strokeWidth={(isZero ? 1.8 : 1) * unit}
        />
      ))}
      {up.map(({ share, isZero }, i) => (
        <line
          key={i}
          y1={(1 - share) * tall}
          y2={(1 - share) * tall}
          x1={0}
          x2={WIDE}
          className={isZero ? 'stroke-ink' : 'stroke-edge'}
          strokeWidth={(isZero ? 1.8 : 1) * unit}
        />
      ))}
      <g className="fill-soft" fontSize={LETTERS * unit}>
        {across.map(({ share, figure }, i) => (
          <text key={i} x={share * WIDE} y={tall + 17 * unit} textAnchor="middle">
            {figure}
          </text>
        ))}
        {up.map(({ share, figure }, i) => (
          <text key={i} x={-7 * unit} y={(1 - share) * tall + 4.5 * unit} textAnchor="end">
            {figure}
          </text>
        ))}
      </g>
      {children(unit)}
    </svg>
  );
}
