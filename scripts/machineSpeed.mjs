/*
 * How fast the machine was while something ran on it. Processors are shared with other machines of the same host, and the
 * same work was seen to take four times as much processor time a minute later: how long a run took says little without it.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { deflateSync } from 'node:zlib';
import { CACHE } from './setUp.mjs';

const KEPT = path.join(CACHE, 'best-milliseconds');
const EVERY_MS = 5_000;
/** A run of some minutes. */
const LEAST_TIMES = 40;

/** Bytes with some order in them, always the same. */
const BYTES = Uint8Array.from({ length: 1 << 21 }, (_, i) => ((i * i) >>> 7) % 61);
/** Compiled beforehand, as whatever V8 makes of a loop is not: some 30 ms of a processor. */
const fixedWork = () => deflateSync(BYTES, { level: 9 });

/** Processor time of a fixed piece of work, in milliseconds: waiting for a processor is not in it. */
function timeOfWork() {
  const before = process.cpuUsage();
  fixedWork();
  const { user, system } = process.cpuUsage(before);
  return (user + system) / 1000;
}

/** Time of all processors since the start, and that which the host gave to others; nothing where the system does not tell. */
function processorTime() {
  try {
    const times = readFileSync('/proc/stat', 'utf8').split('\n')[0].split(/\s+/).slice(1, 9).map(Number);
    return { all: times.reduce((a, b) => a + b), taken: times[7] };
  } catch {
    return null;
  }
}

/**
 * What the work takes on this machine at its best so far: what it took at most in a tenth of a run, with as much else to do
 * as in all of it. That need not be a calm machine yet.
 */
function bestTime(times) {
  const here = times.toSorted((a, b) => a - b)[Math.floor(times.length / 10)];
  let before = Infinity;
  try {
    before = Number(readFileSync(KEPT, 'utf8')) || Infinity;
  } catch {
    // The first run.
  }
  try {
    if (here < before && times.length >= LEAST_TIMES) writeFileSync(KEPT, String(here));
  } catch {
    // It is worth no failed run.
  }
  return Math.min(here, before);
}

/** Begins to measure; the function that it returns ends that and tells the result. */
export function watchMachine() {
  const from = Date.now();
  const before = processorTime();
  const times = [timeOfWork()];
  const timer = setInterval(() => times.push(timeOfWork()), EVERY_MS).unref();
  return () => {
    clearInterval(timer);
    const seconds = (Date.now() - from) / 1000;
    const after = processorTime();
    const taken = before && after ? (after.taken - before.taken) / (after.all - before.all) : 0;
    const best = bestTime(times);
    const share = times.map((time) => Math.min(1, best / time)).reduce((a, b) => a + b) / times.length;
    return (
      `${Math.round(seconds)} s at ${Math.round(share * 100)} % of this machine's best speed so far ` +
      `(${best.toFixed(0)} ms for a fixed piece of work); at that speed about ${Math.round(seconds * share)} s. ` +
      `The host took ${Math.round(taken * 100)} % of the processor time.`
    );
  };
}
