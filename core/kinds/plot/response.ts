import type { Axis } from '../shared/axis';
import type { Entry } from '../shared/entries';

export const SORTS = ['point', 'points', 'line', 'ray', 'segment', 'half-plane', 'polygon'] as const;
export type Sort = (typeof SORTS)[number];

export interface ObjectShown extends Entry {
  readonly sort: Sort;
  /** How many points there are, of `points`; null where that is left to the candidate. */
  readonly count: number | null;
}

export interface PlotShown {
  readonly x: Axis;
  readonly y: Axis;
  readonly objects: readonly ObjectShown[];
  /** What is drawn beforehand, in the words of the author; not part of the answer. */
  readonly locale: string;
}

/** Coordinates as decimals, across and up. */
export type Place = readonly [across: string, up: string];

export interface Drawn {
  readonly points: readonly Place[];
  /** Of a polygon: its last corner is joined to the first. */
  readonly closed: boolean;
  /** Of a half-plane: whether its border belongs to it, and a point inside. */
  readonly boundary: 'solid' | 'dashed';
  readonly side: Place | null;
}

/** What is drawn, by object. */
export interface PlotResponse {
  readonly objects: Readonly<Record<string, Drawn>>;
}

export const nothingDrawn: Drawn = { points: [], closed: false, boundary: 'solid', side: null };

export const drawnOf = ({ objects }: PlotResponse, key: string): Drawn => objects[key] ?? nothingDrawn;

/** The most points of an object. */
export function mostPoints({ sort, count }: Pick<ObjectShown, 'sort' | 'count'>): number {
  if (sort === 'point') return 1;
  if (sort === 'points') return count ?? 20;
  return sort === 'polygon' ? 20 : 2;
}
