import * as v from 'valibot';

const key = v.pipe(v.string(), v.regex(/^[a-z0-9-]{1,20}$/));

export const contentSchema = v.pipe(
  v.strictObject({
    /** As they stand at first; never in the right order. */
    items: v.pipe(v.array(v.strictObject({ key, text: v.string() })), v.minLength(3), v.maxLength(10)),
    right: v.array(key),
    /** `exact`; `pairs`: neighbours that belong together; `rank`: (1 + Kendall’s τ) / 2. */
    rule: v.picklist(['exact', 'pairs', 'rank']),
    shuffle: v.boolean(),
  }),
  v.check(
    (c) =>
      [...c.right].sort().join() ===
      c.items
        .map((item) => item.key)
        .sort()
        .join(),
    'the right order does not hold each item once',
  ),
  v.check(
    (c) => c.right.join() !== c.items.map((item) => item.key).join(),
    'the items already stand in the right order',
  ),
);
export type OrderContent = v.InferOutput<typeof contentSchema>;

export interface OrderShown {
  readonly items: readonly { readonly key: string; readonly text: string }[];
  readonly rule: OrderContent['rule'];
  readonly shuffle: boolean;
}

/** Empty until the candidate has moved or confirmed something. */
export const responseSchema = v.strictObject({ sequence: v.pipe(v.array(key), v.maxLength(10)) });
export type OrderResponse = v.InferOutput<typeof responseSchema>;
