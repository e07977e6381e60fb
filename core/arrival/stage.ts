/** The steps of the arrival, in order; each stays done once done. */
export const arrivalSteps = ['details', 'checks', 'picture', 'rules', 'cover'] as const;
export type ArrivalStep = (typeof arrivalSteps)[number];

export interface StageInput {
  readonly now: number;
  readonly opensAt: number;
  readonly closesAt: number;
  readonly attemptsAllowed: number;
  readonly sittings: readonly { readonly closedAt: number | null; readonly startedAt: number | null }[];
  readonly done: { readonly [step in Exclude<ArrivalStep, 'cover'>]: boolean };
  readonly released: boolean;
}

/** Where a candidate stands when the link is opened. */
export type Stage =
  | { readonly at: 'too early' }
  | { readonly at: 'over' }
  | { readonly at: 'arriving'; readonly step: ArrivalStep }
  | { readonly at: 'running' }
  | { readonly at: 'being marked' }
  | { readonly at: 'result' };

/** A pure decision from the facts on record. A sitting that runs goes on after the window has closed. */
export function stageOf(input: StageInput): Stage {
  const started = input.sittings.filter((s) => s.startedAt !== null);
  if (started.some((s) => s.closedAt === null)) return { at: 'running' };
  if (started.length >= input.attemptsAllowed || (started.length > 0 && input.now >= input.closesAt))
    return input.released ? { at: 'result' } : { at: 'being marked' };
  if (input.now < input.opensAt) return { at: 'too early' };
  if (input.now >= input.closesAt) return { at: 'over' };
  const step = arrivalSteps.find((s) => s === 'cover' || !input.done[s])!;
  return { at: 'arriving', step };
}
