/*
 * A thread that does nothing but sleep five milliseconds at a time, and notes how much too late it wakes: what the
 * machine itself takes away from everything that runs on it, whoever else it is shared with.
 */
import { parentPort } from 'node:worker_threads';

const SLEEP_MS = 5;
const late = [];
const cell = new Int32Array(new SharedArrayBuffer(4));
let running = true;
parentPort.on('message', () => (running = false));

function beat() {
  const from = performance.now();
  Atomics.wait(cell, 0, 0, SLEEP_MS);
  late.push(performance.now() - from - SLEEP_MS);
  if (running) setImmediate(beat);
  else parentPort.postMessage(late);
}
beat();
