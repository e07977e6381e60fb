import type { Message } from '../messages/message';
import type { Observation } from './observation';

/** How a person weighs an observation: they are facts, not verdicts. */
export const weights = ['nothing to note', 'wants an explanation', 'breach'] as const;
export type Weight = (typeof weights)[number];

/** What is decided on a sitting; `void` needs a second person's agreement. */
export const sittingVerdicts = ['stands', 'stands with note', 'void'] as const;
export type SittingVerdict = (typeof sittingVerdicts)[number];

/** A stretch of the sitting's time in which one question was in view, in the server's time (ms since 1970). */
export interface QuestionSpan {
  readonly number: number;
  readonly title: string;
  readonly from: number;
  readonly to: number;
}

export interface ReviewEvent {
  readonly kind: 'message' | 'grant' | 'pause' | 'break' | 'readmitted' | 'save';
  readonly from: number;
  readonly to: number;
  /** What was said, or how much was given, in words that people wrote; empty where there is none. */
  readonly text: string;
  readonly minutes: number | null;
}

export interface WeighedObservation extends Observation {
  readonly id: number;
  readonly weight: Weight | null;
  readonly reason: string;
  readonly by: string | null;
}

export interface Explanation {
  readonly id: number;
  readonly observation: number | null;
  readonly question: string;
  readonly askedAt: number;
  readonly answer: string | null;
  readonly answeredAt: number | null;
}

export interface VerdictOn {
  readonly id: number;
  readonly verdict: SittingVerdict;
  readonly reason: string;
  readonly by: string;
  readonly at: number;
  readonly agreedBy: string | null;
  /** Whether the one who looks may agree: another person than the one who decided. */
  readonly mayAgree: boolean;
}

/** An answer as it grew: when it changed, by target; the text at a time is read on its own. */
export interface ReplayTarget {
  readonly target: string;
  readonly number: number;
  readonly title: string;
  readonly times: readonly number[];
}

/** What an answer became, step by step: saved versions with what changed, and what was done with them in between. */
export type VersionStep =
  | {
      readonly is: 'version';
      readonly at: number;
      readonly added: number;
      readonly removed: number;
      /** Changed lines, as far as they are told. */
      readonly lines: readonly { readonly text: string; readonly added: boolean }[];
    }
  | { readonly is: 'event'; readonly at: number; readonly what: Message };

/** A sitting on one line of time. */
export interface SittingReview {
  readonly sitting: number;
  readonly invitation: number;
  readonly attempt: number;
  readonly attempts: readonly { readonly attempt: number; readonly sitting: number }[];
  readonly name: string;
  readonly reference: string;
  readonly script: string;
  readonly startedAt: number;
  readonly closedAt: number;
  readonly usedMs: number;
  readonly allowedMs: number;
  readonly timeZone: string;
  readonly path: readonly QuestionSpan[];
  readonly spent: readonly { readonly number: number; readonly title: string; readonly ms: number }[];
  readonly events: readonly ReviewEvent[];
  readonly observations: readonly WeighedObservation[];
  /** Where the chain of observations is broken; null where it is whole. */
  readonly broken: number | null;
  readonly explanations: readonly Explanation[];
  readonly verdict: VerdictOn | null;
  readonly replay: readonly ReplayTarget[];
}

/**
 * The path through the questions from what was in view when: each stretch ends where the next one begins, the last at the
 * end of the sitting. Stretches of the same question that follow each other are one; none is longer than the sitting.
 */
export function pathOf(
  seen: readonly { readonly at: number; readonly number: number; readonly title: string }[],
  { from, to }: { readonly from: number; readonly to: number },
): QuestionSpan[] {
  const inOrder = [...seen].sort((a, b) => a.at - b.at);
  const spans: QuestionSpan[] = [];
  inOrder.forEach(({ at, number, title }, i) => {
    const start = Math.min(Math.max(at, from), to);
    const end = Math.min(Math.max(inOrder[i + 1]?.at ?? to, start), to);
    const before = spans.at(-1);
    if (before?.number === number) spans[spans.length - 1] = { ...before, to: end };
    else if (end > start) spans.push({ number, title, from: start, to: end });
  });
  return spans;
}

/** The time spent on each question, in the order of the paper. */
export function timeSpent(path: readonly QuestionSpan[]): SittingReview['spent'] {
  const ms = new Map<number, { readonly number: number; readonly title: string; readonly ms: number }>();
  for (const { number, title, from, to } of path)
    ms.set(number, { number, title, ms: (ms.get(number)?.ms ?? 0) + to - from });
  return [...ms.values()].sort((a, b) => a.number - b.number);
}
