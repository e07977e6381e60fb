/** A job that failed five times, or that nobody knows how to do, is failed until somebody runs it again. */
export type JobState = 'waiting' | 'done' | 'failed';

/** Work in the background that failed, as staff see it. */
export interface FailedJob {
  readonly id: number;
  readonly kind: string;
  /** What it is about, in a few words: a script's code, an address. */
  readonly about: string;
  readonly attempts: number;
  readonly trouble: string;
}
