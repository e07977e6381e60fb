import type { CaseOutcome, Json } from '../../../core/kinds/evidence';

/** How an attack may end: by one of these results, or by returning exactly this, which it could have known by itself. */
export type Ending = readonly CaseOutcome['result'][] | { readonly value: Json };

/** A program that tries to get something it must not have, or to spoil something for others. */
export type Attack = readonly [title: string, program: string, ends: Ending];

/** It throws, or is too slow at it on a busy machine. */
export const error = ['error', 'too-slow'] as const;
export const slow = ['too-slow'] as const;
/** Which of the two depends on how fast the machine is. */
export const greedy = ['too-much-memory', 'too-slow'] as const;
/** Whichever limit it meets first. */
export const stopped = ['too-slow', 'too-much-memory', 'error'] as const;
export const flood = ['too-much-output', 'too-slow'] as const;
export const value = (known: Json): Ending => ({ value: known });
