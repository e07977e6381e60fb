import type { PictureNode } from '../../documents/document';
import type { Entry } from '../shared/entries';
import type { PicturePoint, Shape } from './shapes';

export interface AreaShown extends Entry {
  readonly shape: Shape;
}

export interface HotAreaShown {
  readonly picture: PictureNode;
  /** `choose`: areas that are outlined; `mark`: marks set anywhere. Names of areas help who does not see the picture. */
  readonly mode: 'choose' | 'mark';
  readonly areas: readonly AreaShown[];
  /** The most areas or marks. */
  readonly limit: number;
}

/** Areas are chosen by key, marks are points; each in its own mode. */
export interface HotAreaResponse {
  readonly chosen: readonly string[];
  readonly marks: readonly PicturePoint[];
}

export const sizeOf = ({ chosen, marks }: HotAreaResponse): number => chosen.length + marks.length;
