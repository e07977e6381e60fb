import * as v from 'valibot';

/** `exact`; `pairs`: neighbours that belong together; `rank`: (1 + Kendall’s τ) / 2. */
export type OrderRule = 'exact' | 'pairs' | 'rank';

export interface OrderShown {
  readonly items: readonly { readonly key: string; readonly text: string }[];
  readonly rule: OrderRule;
}

export const itemKey = v.pipe(v.string(), v.regex(/^[a-z0-9-]{1,20}$/));

/** Empty until the candidate has moved or confirmed something. */
export const responseSchema = v.strictObject({ sequence: v.pipe(v.array(itemKey), v.maxLength(10)) });
export type OrderResponse = v.InferOutput<typeof responseSchema>;
