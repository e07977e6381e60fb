import type { OrderRule } from './response';

export interface OrderAsked {
  /** As they stand at first, unless they are shuffled; never in the right order. */
  readonly items: readonly { readonly key: string; readonly text: string }[];
  readonly rule: OrderRule;
  readonly shuffle: boolean;
}

export interface OrderKey {
  readonly right: readonly string[];
}

/** The items as they are dealt, by key. */
export type OrderArrangement = readonly string[];
