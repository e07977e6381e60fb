import type { Axis } from '../shared/axis';

export const SORTS = ['point', 'interval', 'ray'] as const;
export type PieceSort = (typeof SORTS)[number];

export interface NumberLineShown {
  readonly axis: Axis;
  /** What can be set: points, intervals with two ends, rays that go on beyond the line. */
  readonly sorts: readonly PieceSort[];
  /** The most points, intervals and rays together. */
  readonly most: number;
  readonly locale: string;
}

/** What is marked on the line: a point has both ends at one place; null is an end that goes on for ever. */
export interface Piece {
  readonly from: string | null;
  readonly to: string | null;
  /** Whether an end does not belong to it. */
  readonly fromOpen: boolean;
  readonly toOpen: boolean;
}

export interface NumberLineResponse {
  readonly pieces: readonly Piece[];
}

export const sortOf = ({ from, to }: Piece): PieceSort =>
  from === null || to === null ? 'ray' : from === to ? 'point' : 'interval';
