import { shareAlong, type Axis } from '../../../core/kinds/shared/axis';
import type { Place, PlotShown } from '../../../core/kinds/plot/response';

/* For drawing only, in binary: what counts is computed exactly in core. The plane is 100 wide and `tall` high. */

export interface Spot {
  readonly x: number;
  readonly y: number;
}

export const WIDE = 100;

const size = ({ from, to, step }: Axis) => (Number(to) - Number(from)) / Number(step);

/** As high as the grid has lines, so that its cells are squares; not more than half as high again as wide. */
export const tallOf = ({ x, y }: PlotShown): number => Math.min(1.5, Math.max(0.5, size(y) / size(x))) * WIDE;

const widthAt = (height: string, shown: PlotShown): string =>
  `calc(${height} * ${(WIDE / tallOf(shown)).toFixed(3)})`;

/** How wide a plane to draw on is at most, as a CSS length: no taller than the window leaves room for, so that it is seen whole. */
export const widestToDraw = (shown: PlotShown): string => widthAt('max(100dvh - 16rem, 16rem)', shown);

/** How wide a plane to look at is at most, as a CSS length. */
export const widestToRead = (shown: PlotShown): string => widthAt('22rem', shown);

export const spotOf = (shown: PlotShown, [across, up]: Place): Spot => ({
  x: shareAlong(shown.x, across) * WIDE,
  y: (1 - shareAlong(shown.y, up)) * tallOf(shown),
});

/** The ends of a line as far as it is seen; of a ray from its beginning. */
export function endsOf(a: Spot, b: Spot, tall: number, isRay: boolean): readonly [Spot, Spot] {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  let [low, high] = [isRay ? 0 : -Infinity, Infinity];
  for (const [start, step, most] of [
    [a.x, dx, WIDE],
    [a.y, dy, tall],
  ] as const) {
    if (step === 0) continue;
    const [first, second] = [-start / step, (most - start) / step].sort((p, q) => p - q) as [number, number];
    low = Math.max(low, first);
    high = Math.min(high, second);
  }
  const at = (along: number) => ({ x: a.x + along * dx, y: a.y + along * dy });
  return [at(low), at(high)];
}

/** The seen part of the side of a line on which a spot lies (I. E. Sutherland and G. W. Hodgman, 1974). */
export function sideOf(a: Spot, b: Spot, inside: Spot, tall: number): Spot[] {
  const off = (p: Spot) => (b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x);
  const sign = Math.sign(off(inside));
  const corners = [
    { x: 0, y: 0 },
    { x: WIDE, y: 0 },
    { x: WIDE, y: tall },
    { x: 0, y: tall },
  ];
  return corners.flatMap((corner, i) => {
    const next = corners[(i + 1) % corners.length]!;
    const [here, there] = [off(corner) * sign, off(next) * sign];
    const share = here / (here - there);
    const crossing = {
      x: corner.x + share * (next.x - corner.x),
      y: corner.y + share * (next.y - corner.y),
    };
    const crosses = here >= 0 !== there >= 0;
    return [...(here >= 0 ? [corner] : []), ...(crosses ? [crossing] : [])];
  });
}

export const pointsText = (spots: readonly Spot[]): string => spots.map(({ x, y }) => `${x},${y}`).join(' ');
