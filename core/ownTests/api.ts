import type { Hundredths } from '../marks';

/** Where one of a person's tests stands: `open` can be started, or its next attempt. */
export const testStates = ['running', 'open', 'later', 'being marked', 'result', 'over'] as const;
export type TestState = (typeof testStates)[number];

/** One of the tests that a person is invited to, as their own page shows it. */
export interface OwnTest {
  readonly invitation: number;
  /** Whether the link that is open leads to it. Of the others nothing is shown but title, dates and state. */
  readonly here: boolean;
  readonly title: string;
  readonly state: TestState;
  readonly opensAt: number;
  readonly closesAt: number;
  /** How long this candidate has, in ms. */
  readonly lengthMs: number;
  readonly camera: boolean;
  readonly attemptsUsed: number;
  readonly attemptsAllowed: number;
  /** Of the newest hand-in. */
  readonly handedInAt: number | null;
  readonly resultBy: number;
  /** What the result is at present; null for other tests than this, and where nothing may be seen. */
  readonly marks: { readonly hundredths: Hundredths; readonly of: Hundredths } | null;
}

/** A person's own page. */
export interface OwnTests {
  readonly now: number;
  readonly organisation: string;
  readonly name: string;
  readonly reference: string;
  readonly tests: readonly OwnTest[];
}
