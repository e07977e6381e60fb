import { allot } from '../../marks';
import { exact, roundExact, type Exact } from '../../numbers/exact';
import type { Message } from '../../messages/message';
import type { Component, Credit, Undecided, Verdict } from '../contract';

/** The one component of a kind that is judged as a whole. */
export const WHOLE = 'whole';

export const wholeComponent = (marks: number): readonly [Component] => [
  { key: WHOLE, by: 'machine', of: marks, name: null },
];

interface Weighted extends Pick<Component, 'key' | 'name'> {
  readonly weight: number | undefined;
}

/** Components of the machine that share the marks by their weights. */
export function weightedComponents(parts: readonly Weighted[], marks: number): Component[] {
  const shares = allot(
    marks,
    parts.map(({ weight = 1 }) => weight),
  );
  return parts.map(({ key, name }, i) => ({ key, by: 'machine', of: shares[i]!, name }));
}

export const share = (over: number, under: number): Exact => exact(BigInt(over), BigInt(under));

/**
 * The credit for an exact share of a component. The share is rounded once, half away from zero, to a hundredth; the
 * verdict follows from the share before rounding. A negative share is a penalty.
 */
export function creditOf(
  { key, of }: Pick<Component, 'key' | 'of'>,
  part: Exact,
  reasons: readonly Message[],
): Credit {
  const { over, under } = part;
  const rounded = Number(roundExact(exact(over * BigInt(of), under), 0).over);
  const verdict: Verdict = over >= under ? 'right' : over > 0n ? 'partly' : 'wrong';
  return { component: key, hundredths: Math.max(-of, Math.min(of, rounded)), of, verdict, reasons };
}

/** Left to people: for the record, why. */
export const undecided = ({ key }: Pick<Component, 'key'>, why: string): Undecided => ({
  component: key,
  undecided: why,
});

export const unansweredCredit = ({ key, of }: Pick<Component, 'key' | 'of'>): Credit => ({
  component: key,
  hundredths: 0,
  of,
  verdict: 'unanswered',
  reasons: [],
});
