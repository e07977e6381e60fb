import type { Axis } from '../shared/axis';
import type { Piece, PieceSort } from './response';

export interface NumberLineAsked {
  readonly axis: Axis;
  readonly sorts: readonly PieceSort[];
  /** The most points, intervals and rays together. */
  readonly most: number;
}

export interface NumberLineKey {
  readonly pieces: readonly Piece[];
  /** By how much an end may be off, in the figures of the line; its limit included. */
  readonly tolerance: string;
}
