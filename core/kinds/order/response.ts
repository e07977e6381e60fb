/** `exact`; `pairs`: neighbours that belong together; `rank`: (1 + Kendall’s τ) / 2. */
export type OrderRule = 'exact' | 'pairs' | 'rank';

export interface OrderShown {
  readonly items: readonly { readonly key: string; readonly text: string }[];
  readonly rule: OrderRule;
}

/** Empty until the candidate has moved or confirmed something. */
export interface OrderResponse {
  readonly sequence: readonly string[];
}
