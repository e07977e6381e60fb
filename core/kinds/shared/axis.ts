import {
  addExact,
  compareExact,
  exact,
  exactOf,
  exactText,
  minusExact,
  overExact,
  roundExact,
  timesExact,
  type Exact,
} from '../../numbers/exact';

/** An axis; its figures are digits with a point, a minus in front. */
export interface Axis {
  readonly from: string;
  readonly to: string;
  /** From one line of the grid to the next. */
  readonly step: string;
  /** How many places there are to a step, 1 to 10: 1 for lines of the grid alone, 2 for halves … */
  readonly snaps: number;
  /** What is measured, with its unit. */
  readonly label: string;
}

const MOST_STEPS = 60;

/** How many steps there are from one end to the other. */
export const stepsOf = ({ from, to, step }: Axis): Exact =>
  overExact(minusExact(exactOf(to), exactOf(from)), exactOf(step)) ?? exact(0n);

/** Does it have a whole number of steps, one at least and none too many to be drawn? */
export function isSoundAxis(axis: Axis): boolean {
  if (exactOf(axis.step).over <= 0n) return false;
  const { over, under } = stepsOf(axis);
  return over > 0n && over % under === 0n && over / under <= BigInt(MOST_STEPS);
}

/** The figures at the lines of the grid. */
export function ticksOf(axis: Axis): Exact[] {
  const count = Number(roundExact(stepsOf(axis), 0).over);
  return Array.from({ length: count + 1 }, (_, i) =>
    addExact(exactOf(axis.from), timesExact(exactOf(axis.step), exact(BigInt(i)))),
  );
}

export const isOnAxis = (axis: Axis, value: Exact): boolean =>
  compareExact(value, exactOf(axis.from)) >= 0 && compareExact(value, exactOf(axis.to)) <= 0;

/** In grid steps from 0: a distance of 1 is one line of the grid. */
export const inSteps = ({ step }: Axis, value: Exact): Exact => overExact(value, exactOf(step))!;

/** The place at the whole number `index` of places from the beginning, kept on the axis. */
export function placeAt(axis: Axis, index: number): string {
  const last = Number(roundExact(stepsOf(axis), 0).over) * axis.snaps;
  const kept = Math.max(0, Math.min(last, index));
  const along = timesExact(exactOf(axis.step), exact(BigInt(kept), BigInt(axis.snaps)));
  return exactText(addExact(exactOf(axis.from), along));
}

/** The nearest place, as a whole number of places from the beginning; of a value, or of a share of the axis. */
export const indexOf = (axis: Axis, value: Exact): number =>
  Number(
    roundExact(timesExact(inSteps(axis, minusExact(value, exactOf(axis.from))), exact(BigInt(axis.snaps))), 0)
      .over,
  );

/** The share of the axis, 0 to 1, at which a figure stands: for drawing only. */
export function shareAlong(axis: Axis, value: string): number {
  const [from, to] = [Number(axis.from), Number(axis.to)];
  return (Number(value) - from) / (to - from);
}
