/** The steps of the arrival, in order; each stays done once done. */
export const arrivalSteps = ['details', 'checks', 'picture', 'rules', 'waiting', 'cover'] as const;
export type ArrivalStep = (typeof arrivalSteps)[number];

/**
 * What lets a candidate from the waiting room to the cover page: the opening time alone, the door code, or the
 * invigilator by hand. An invigilator can always admit.
 */
export const startRules = ['opening time', 'door code', 'by hand'] as const;
export type StartRule = (typeof startRules)[number];

export interface StageInput {
  readonly now: number;
  /** From when the steps of the arrival can be taken; the test itself begins at `opensAt`. */
  readonly doorsAt: number;
  readonly opensAt: number;
  readonly closesAt: number;
  readonly startRule: StartRule;
  /** By the right door code, or by an invigilator. */
  readonly admitted: boolean;
  readonly attemptsAllowed: number;
  /** How long a candidate waits between two attempts, in ms. */
  readonly pauseMs: number;
  /** Whether the candidate has asked for the next attempt. The first needs no asking. */
  readonly requested: boolean;
  readonly sittings: readonly { readonly closedAt: number | null; readonly startedAt: number | null }[];
  readonly done: { readonly [step in Exclude<ArrivalStep, 'waiting' | 'cover'>]: boolean };
  readonly released: boolean;
}

/** Where a candidate stands when the link is opened. */
export type Stage =
  | { readonly at: 'too early' }
  | { readonly at: 'over' }
  | { readonly at: 'arriving'; readonly step: ArrivalStep }
  | { readonly at: 'running' }
  /** An attempt is handed in, and the next one can be asked for from a moment on. */
  | { readonly at: 'between'; readonly next: number; readonly from: number }
  | { readonly at: 'being marked' }
  | { readonly at: 'result' };

const mayBegin = ({ now, opensAt, startRule, admitted }: StageInput) =>
  admitted || (startRule === 'opening time' && now >= opensAt);

/** A pure decision from the facts on record. A sitting that runs goes on after the window has closed. */
export function stageOf(input: StageInput): Stage {
  const started = input.sittings.filter((s) => s.startedAt !== null);
  if (started.some((s) => s.closedAt === null)) return { at: 'running' };
  if (started.length > 0) {
    const from = Math.max(...started.map((s) => s.closedAt ?? 0)) + input.pauseMs;
    const remain = started.length < input.attemptsAllowed && Math.max(input.now, from) < input.closesAt;
    if (!remain) return input.released ? { at: 'result' } : { at: 'being marked' };
    if (!input.requested) return { at: 'between', next: started.length + 1, from };
  }
  if (input.now < input.doorsAt) return { at: 'too early' };
  if (input.now >= input.closesAt) return { at: 'over' };
  const open = (step: ArrivalStep) =>
    step === 'waiting' ? !mayBegin(input) : step !== 'cover' && !input.done[step];
  return { at: 'arriving', step: arrivalSteps.find((s) => s === 'cover' || open(s))! };
}
