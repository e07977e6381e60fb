import { seededRandom, type Random } from '../random';
import type { Domain } from './sampling';
import type { TermOptions } from './toTerm';

/** How two expressions compare. Where it cannot be told for certain, people decide. */
export type Comparison = 'equal' | 'different' | 'undecided';

/** What a comparison came to, and by what; `why` is for people who look into it. */
export interface Judgement {
  readonly is: Comparison;
  readonly why: string;
}

export const equal = (why: string): Judgement => ({ is: 'equal', why });
export const different = (why: string): Judgement => ({ is: 'different', why });
export const undecided = (why: string): Judgement => ({ is: 'undecided', why });

/** Thrown where the time for a comparison is over. */
export class OutOfTime extends Error {}

/** What a comparison works with. */
export interface Judging extends TermOptions {
  readonly domain: Domain;
  readonly seed: string;
  /** Throws OutOfTime where the time is over. */
  readonly checkTime: () => void;
}

export const randomFor = ({ seed }: Judging, purpose: string): Random => seededRandom(`${seed} ${purpose}`);

/** The parts of something: different where one is, equal where all are. */
export function allEqual(parts: readonly Judgement[]): Judgement {
  const other = parts.find(({ is }) => is === 'different') ?? parts.find(({ is }) => is === 'undecided');
  return other ?? equal('parts');
}
