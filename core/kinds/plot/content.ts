import type { Axis } from '../shared/axis';
import type { WeightedEntry } from '../shared/entries';
import type { Drawn, Sort } from './response';

export interface ObjectAsked extends WeightedEntry {
  readonly sort: Sort;
  /** How many points there are, of `points`; null where that is left to the candidate. */
  readonly count: number | null;
}

export interface PlotAsked {
  readonly x: Axis;
  readonly y: Axis;
  readonly objects: readonly ObjectAsked[];
}

export interface PlotKey {
  /** As a candidate would draw them. */
  readonly objects: Readonly<Record<string, Drawn>>;
  /** In grid units; its limit included. */
  readonly tolerance: Readonly<Record<string, string>>;
}
