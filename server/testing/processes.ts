import { readdirSync, readFileSync } from 'node:fs';

/** Processes by their parents, as the kernel of Linux tells them; those that have ended are not among them. */
export function livingProcesses(): Map<number, number> {
  const parents = new Map<number, number>();
  for (const name of readdirSync('/proc').filter((entry) => /^\d+$/.test(entry)))
    try {
      const [state, parent] = readFileSync(`/proc/${name}/stat`, 'latin1').split(') ')[1]!.split(' ');
      if (state !== 'Z') parents.set(Number(name), Number(parent));
    } catch {
      // It has ended meanwhile.
    }
  return parents;
}

/** Everything below a process whose command names one of these scripts. */
export function processesBelow(pid: number, scripts: readonly string[]): number[] {
  const all = livingProcesses();
  const below = (of: number): number[] =>
    [...all.keys()].filter((one) => all.get(one) === of).flatMap((one) => [one, ...below(one)]);
  return below(pid).filter((one) => {
    try {
      const command = readFileSync(`/proc/${one}/cmdline`, 'latin1');
      return scripts.some((script) => command.includes(script));
    } catch {
      return false;
    }
  });
}
