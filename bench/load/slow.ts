import { existsSync, mkdirSync, readFileSync, rmdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';

const PERIOD_US = 100_000;
const ROOT = '/sys/fs/cgroup';

export interface Slowed {
  /** How it was done, for the results. */
  readonly by: 'cgroup v2 cpu.max' | 'cgroup v1 cpu.cfs_quota_us' | 'SIGSTOP and SIGCONT';
  readonly end: () => void;
}

/** By the kernel's own means, where this account may use them. */
function byGroup(pid: number, share: number): Slowed | null {
  const second = existsSync(`${ROOT}/cgroup.controllers`);
  const parent = second ? ROOT : `${ROOT}/cpu`;
  const folder = path.join(parent, `clear-sitting-${pid}`);
  const quotaUs = Math.round(PERIOD_US * share);
  try {
    if (second && !readFileSync(`${ROOT}/cgroup.controllers`, 'utf8').includes('cpu')) return null;
    mkdirSync(folder);
    if (second) writeFileSync(`${folder}/cpu.max`, `${quotaUs} ${PERIOD_US}`);
    else writeFileSync(`${folder}/cpu.cfs_quota_us`, String(quotaUs));
    writeFileSync(`${folder}/cgroup.procs`, String(pid));
  } catch {
    return null;
  }
  const end = () => {
    try {
      rmdirSync(folder);
    } catch {
      // Its process has not quite gone yet: an empty group costs nothing.
    }
  };
  return { by: second ? 'cgroup v2 cpu.max' : 'cgroup v1 cpu.cfs_quota_us', end };
}

/**
 * Gives the server's process a share of one core. Its helper processes are not slowed: one thread is what fills up. Without
 * the right to use control groups the process is stopped for the rest of every tenth of a second, which stands in for it.
 */
export function slowDown(pid: number, share: number): Slowed {
  const group = byGroup(pid, share);
  if (group) return group;
  const periodMs = PERIOD_US / 1000;
  let resume: NodeJS.Timeout | null = null;
  const signal = (name: 'SIGSTOP' | 'SIGCONT') => {
    try {
      process.kill(pid, name);
    } catch {
      // It has ended.
    }
  };
  const timer = setInterval(() => {
    signal('SIGSTOP');
    resume = setTimeout(() => signal('SIGCONT'), periodMs * (1 - share));
  }, periodMs);
  const end = () => {
    clearInterval(timer);
    if (resume) clearTimeout(resume);
    signal('SIGCONT');
  };
  return { by: 'SIGSTOP and SIGCONT', end };
}
