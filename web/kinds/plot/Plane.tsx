import type { ReactNode } from 'react';
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

const EDGE = 9;

/** The grid with its axes and figures; what is drawn on it comes as children, in its own measure. */
export function Plane({ shown, children }: { readonly shown: PlotShown; readonly children?: ReactNode }) {
  const tall = tallOf(shown);
  const [across, up] = [ticks(shown.x, shown.locale), ticks(shown.y, shown.locale)];
  return (
    <svg
      aria-hidden
      viewBox={`${-EDGE} ${-4} ${WIDE + EDGE + 4} ${tall + 4 + 7}`}
      className="block w-full select-none"
    >
      {across.map(({ share, isZero }, i) => (
        <line
          key={i}
          x1={share * WIDE}
          x2={share * WIDE}
          y1={0}
          y2={tall}
          className={isZero ? 'stroke-ink' : 'stroke-line'}
          strokeWidth={isZero ? 0.5 : 0.3}
        />
      ))}
      {up.map(({ share, isZero }, i) => (
        <line
          key={i}
          y1={(1 - share) * tall}
          y2={(1 - share) * tall}
          x1={0}
          x2={WIDE}
          className={isZero ? 'stroke-ink' : 'stroke-line'}
          strokeWidth={isZero ? 0.5 : 0.3}
        />
      ))}
      <rect x={0} y={0} width={WIDE} height={tall} className="fill-none stroke-line" strokeWidth={0.4} />
      <g className="fill-soft" fontSize={3.2}>
        {across.map(({ share, figure }, i) => (
          <text key={i} x={share * WIDE} y={tall + 4.5} textAnchor="middle">
            {figure}
          </text>
        ))}
        {up.map(({ share, figure }, i) => (
          <text key={i} x={-1.5} y={(1 - share) * tall + 1.1} textAnchor="end">
            {figure}
          </text>
        ))}
      </g>
      {children}
    </svg>
  );
}
