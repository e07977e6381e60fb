/** Why a figure cannot be told. */
export type UndefinedReason = 'too few' | 'no variation';

/**
 * A figure with its N and an interval of 95 %. What cannot be computed is told with the reason, never as 0. `interval`
 * is null where the figure has one value only, as of a single pair.
 */
export type Estimate =
  | {
      readonly n: number;
      readonly value: number;
      readonly interval: readonly [low: number, high: number] | null;
    }
  | { readonly n: number; readonly value: null; readonly reason: UndefinedReason };

export const unknown = (n: number, reason: UndefinedReason): Estimate => ({ n, value: null, reason });
