import { parentPort } from 'node:worker_threads';
import type { KeyKinds } from '../../core/kinds/keyKinds';
import type { PartToScore } from '../../core/scoring/scorePart';
import { scoreOne } from './scoreOne';

/** Scores one part for each message, by these kinds. Runs in a worker thread, which can be stopped. */
export function serveScoring(kinds: KeyKinds): void {
  parentPort!.on('message', (part: PartToScore) => parentPort!.postMessage(scoreOne(kinds, part)));
  parentPort!.postMessage('ready');
}
