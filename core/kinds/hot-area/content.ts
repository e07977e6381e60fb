import type { Document } from '../../documents/document';
import type { WeightedEntry } from '../shared/entries';
import type { Shape } from './shapes';

export interface AreaAsked extends WeightedEntry {
  readonly shape: Shape;
}

export interface HotAreaAsked {
  /** A text that is one picture. */
  readonly picture: Document;
  readonly mode: 'choose' | 'mark';
  /** Every area that is named, the right ones among others. */
  readonly areas: readonly AreaAsked[];
  readonly limit: number;
}

export interface HotAreaKey {
  readonly right: readonly string[];
}
