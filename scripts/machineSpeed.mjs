/*
 * How fast the machine was while something ran on it. Processors are shared with other machines of the same host, and the
 * same work was seen to take four times as much processor time a minute later: how long a run took says little without it.
 */
import { readFileSync } from 'node:fs';

const EVERY_MS = 5_000;
/** Some 30 ms of a processor. */
const STEPS = 1e7;

function fixedWork() {
  let sum = 0;
  for (let i = 0; i < STEPS; i++) sum += i % 7;
  return sum;
}

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

/** Begins to measure; the function that it returns ends that and tells the result in a sentence. */
export function watchMachine() {
  const from = Date.now();
  const before = processorTime();
  // The first is compiled and measured in one.
  timeOfWork();
  const times = [];
  const timer = setInterval(() => times.push(timeOfWork()), EVERY_MS).unref();
  return () => {
    clearInterval(timer);
    const seconds = (Date.now() - from) / 1000;
    const after = processorTime();
    const taken = before && after ? (after.taken - before.taken) / (after.all - before.all) : 0;
    times.sort((a, b) => a - b);
    // Calm is what the machine was for a tenth of this run, with as much to do as in all of it.
    const calm = times[Math.floor(times.length / 10)];
    const share = times.map((time) => Math.min(1, calm / time)).reduce((a, b) => a + b, 0) / times.length;
    const speed = times.length === 0 ? '' : ` (${Math.round(share * 100)} % of its speed when calm)`;
    const calmly = times.length === 0 ? seconds : seconds * share;
    return (
      `${Math.round(seconds)} s on this machine${speed}; about ${Math.round(calmly)} s when it is calm. ` +
      `The host took ${Math.round(taken * 100)} % of the processor time.`
    );
  };
}
