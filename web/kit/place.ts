/** Where a panel lies on the page, in CSS pixels. */
export interface Place {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export type Size = Pick<Place, 'width' | 'height'>;

const STEP_PX = 20;
/** Of a panel so much stays on the page, so that it can be taken hold of. */
const LEFT_OVER_PX = 60;
const GAP_PX = 8;

export const within = (value: number, least: number, most: number): number =>
  Math.max(least, Math.min(value, Math.max(least, most)));

/** Wherever it was left, also on a larger page: it can be seen and taken hold of. */
export function onPage({ x, y, width, height }: Place, page: Size, least: Size): Place {
  const size = {
    width: within(width, least.width, page.width - 16),
    height: within(height, least.height, page.height - 16),
  };
  return {
    ...size,
    x: within(x, LEFT_OVER_PX - size.width, page.width - LEFT_OVER_PX),
    y: within(y, 0, page.height - LEFT_OVER_PX),
  };
}

/** The rail, at the left of the desk. */
const RAIL_PX = 216;

/** Where a panel lies at first: in a lower corner of the question, above the foot of the desk, which is so high. */
export const inCorner = (
  side: 'left' | 'right',
  { width, height }: Size,
  { page, foot }: { readonly page: Size; readonly foot: number },
): Place => ({
  width,
  height,
  x: side === 'left' ? RAIL_PX + 24 : page.width - width - 24,
  y: Math.max(64, page.height - foot - GAP_PX - height),
});

const STEPS: Readonly<Record<string, readonly [across: number, down: number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** One step of an arrow key; null for any other key. */
export const stepOf = (key: string): readonly [across: number, down: number] | null => STEPS[key] ?? null;

/** By arrows a panel moves; with Shift it changes its size. */
export function moved(place: Place, { key, shiftKey }: { key: string; shiftKey: boolean }): Place | null {
  const step = stepOf(key);
  if (!step) return null;
  const [across, down] = [step[0] * STEP_PX, step[1] * STEP_PX];
  return shiftKey
    ? { ...place, width: place.width + across, height: place.height + down }
    : { ...place, x: place.x + across, y: place.y + down };
}

const overlap = (a: Place, b: Place): number =>
  Math.max(0, Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x)) *
  Math.max(0, Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y));

/**
 * A panel that covers the field in use steps aside: to the nearest place beside, above or below it that is wholly on the
 * page. Where there is none, to the place that covers least of it.
 */
export function aside(place: Place, field: Place, page: Size): Place {
  if (overlap(place, field) === 0) return place;
  const fit = ({ x, y, ...size }: Place): Place => ({
    ...size,
    x: within(x, 0, page.width - size.width),
    y: within(y, 0, page.height - size.height),
  });
  const ways = [
    { ...place, x: field.x - place.width - GAP_PX },
    { ...place, x: field.x + field.width + GAP_PX },
    { ...place, y: field.y - place.height - GAP_PX },
    { ...place, y: field.y + field.height + GAP_PX },
  ].map(fit);
  const far = (to: Place) => Math.abs(to.x - place.x) + Math.abs(to.y - place.y);
  const [best] = ways.sort((a, b) => overlap(a, field) - overlap(b, field) || far(a) - far(b));
  return best!;
}
