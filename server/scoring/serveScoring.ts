import { parentPort } from 'node:worker_threads';
import { Undecided, type Credit } from '../../core/kinds/contract';
import type { KeyKinds } from '../../core/kinds/keyKinds';
import {
  NonsenseError,
  scorePart,
  type PartToScore,
  type ScoringFailure,
} from '../../core/scoring/scorePart';

/** What scoring a part came to. `trouble` is for the people who look after the machine. */
export type ScoreFound =
  | { readonly credits: readonly Credit[] }
  | { readonly failure: ScoringFailure; readonly trouble: string };

function score(kinds: KeyKinds, part: PartToScore): ScoreFound {
  try {
    return { credits: scorePart(kinds, part) };
  } catch (error) {
    const failure =
      error instanceof Undecided ? 'undecided' : error instanceof NonsenseError ? 'nonsense' : 'threw';
    return { failure, trouble: String(error).slice(0, 500) };
  }
}

/** Scores one part for each message, by these kinds. Runs in a worker thread, which can be stopped. */
export function serveScoring(kinds: KeyKinds): void {
  parentPort!.on('message', (part: PartToScore) => parentPort!.postMessage(score(kinds, part)));
  parentPort!.postMessage('ready');
}
