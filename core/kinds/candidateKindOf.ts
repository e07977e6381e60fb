import type { CandidateKind } from './contract';
import type { KindName } from './kindNames';

export type AnyCandidateKind = CandidateKind<unknown, unknown>;

/** The candidate's halves that are here: all of them on the server, on a device those that its paper asks. */
const here = new Map<string, AnyCandidateKind>();

/**
 * Brings a candidate's half in. Its types are erased: what is shown and answered is parsed by the same plug-in before it
 * reaches its other functions.
 */
export function bringKind<Shown, Response>(kind: CandidateKind<Shown, Response>): void {
  here.set(kind.name, kind);
}

/** The candidate's half of a kind. Throws where it was not brought in first: a fault of ours, never of a person. */
export function candidateKindOf(name: KindName): AnyCandidateKind {
  const kind = here.get(name);
  if (!kind) throw new Error(`the kind ${name} was not brought in`);
  return kind;
}
