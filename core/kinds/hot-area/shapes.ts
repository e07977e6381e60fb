/** Places on a picture are in thousandths of its width and its height, whole numbers, so that borders are exact. */
export interface PicturePoint {
  readonly x: number;
  readonly y: number;
}

export interface Rectangle extends PicturePoint {
  readonly is: 'rectangle';
  readonly width: number;
  readonly height: number;
}

/** By its centre and its half axes. */
export interface Ellipse extends PicturePoint {
  readonly is: 'ellipse';
  readonly across: number;
  readonly down: number;
}

export interface Polygon {
  readonly is: 'polygon';
  readonly points: readonly PicturePoint[];
}

export type Shape = Rectangle | Ellipse | Polygon;

/** Is a point on the border between two corners? */
function isOnEdge({ x, y }: PicturePoint, a: PicturePoint, b: PicturePoint): boolean {
  const cross = (b.x - a.x) * (y - a.y) - (b.y - a.y) * (x - a.x);
  const between = (from: number, to: number, at: number) =>
    Math.min(from, to) <= at && at <= Math.max(from, to);
  return cross === 0 && between(a.x, b.x, x) && between(a.y, b.y, y);
}

/** By the number of edges that a ray to the right crosses; borders are inside. */
function isInPolygon(point: PicturePoint, corners: readonly PicturePoint[]): boolean {
  let inside = false;
  for (let i = 0, j = corners.length - 1; i < corners.length; j = i++) {
    const [a, b] = [corners[i]!, corners[j]!];
    if (isOnEdge(point, a, b)) return true;
    if (a.y > point.y === b.y > point.y) continue;
    // x of the edge at this height against the point's, multiplied out: no division, so whole numbers stay exact
    const side = (b.x - a.x) * (point.y - a.y) - (point.x - a.x) * (b.y - a.y);
    if (b.y > a.y ? side > 0 : side < 0) inside = !inside;
  }
  return inside;
}

/** Does a shape hold a point? Borders are inside. */
export function holds(shape: Shape, { x, y }: PicturePoint): boolean {
  switch (shape.is) {
    case 'rectangle':
      return x >= shape.x && x <= shape.x + shape.width && y >= shape.y && y <= shape.y + shape.height;
    case 'ellipse': {
      const { across, down } = shape;
      return ((x - shape.x) * down) ** 2 + ((y - shape.y) * across) ** 2 <= (across * down) ** 2;
    }
    case 'polygon':
      return isInPolygon({ x, y }, shape.points);
  }
}

/** A point inside, for who places a mark by the name of an area: the middle, or else a corner. */
export function insideOf(shape: Shape): PicturePoint {
  if (shape.is === 'ellipse') return { x: shape.x, y: shape.y };
  if (shape.is === 'rectangle')
    return { x: Math.floor(shape.x + shape.width / 2), y: Math.floor(shape.y + shape.height / 2) };
  const mean = (of: 'x' | 'y') =>
    Math.round(shape.points.reduce((sum, point) => sum + point[of], 0) / shape.points.length);
  const middle = { x: mean('x'), y: mean('y') };
  return holds(shape, middle) ? middle : shape.points[0]!;
}
