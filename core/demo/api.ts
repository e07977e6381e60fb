import type { Role } from '../rounds/api';

/** A made-up candidate of the demo, with what their link is good for. */
export interface DemoCandidate {
  readonly name: string;
  readonly email: string;
  /** The key of the round. */
  readonly round: string;
  readonly good: string;
}

export interface DemoMember {
  readonly name: string;
  readonly email: string;
  readonly roles: readonly Role[];
}

/** What the front page of the demo offers: written by the demo, read by the server where it runs as one. */
export interface DemoPage {
  readonly candidates: readonly DemoCandidate[];
  readonly staff: readonly DemoMember[];
  /** What to try, in this order. */
  readonly suggestions: readonly string[];
}
