import { spawnSync } from 'node:child_process';
import { buildSync } from 'esbuild';
import { describe, expect, it } from 'vitest';
import { canFork } from '../lanes/forkLane';

const linux = buildSync({
  entryPoints: ['server/sandbox/processes/linux.ts'],
  bundle: true,
  write: false,
  format: 'iife',
  globalName: 'linux',
  platform: 'node',
  external: ['koffi'],
}).outputFiles[0]!.text;

/** What code of full strength does behind the list of system calls, as after an escape from an engine. */
function behindTheList(code: string): { signal: string | null; said: string } {
  const script = `
    ${linux}
    const koffi = require('koffi');
    const libc = koffi.load('libc.so.6');
    const calls = {
      socket: libc.func('int socket(int, int, int)'), fork: libc.func('int fork()'), kill: libc.func('int kill(int, int)'),
      execve: libc.func('int execve(str, void*, void*)'), setrlimit: libc.func('int setrlimit(int, uint64_t*)'),
      ptrace: libc.func('long ptrace(long, long, long, long)'), unlink: libc.func('int unlink(str)'),
    };
    linux.allowLittle();
    ${code};
    fs.writeSync(1, 'still here');
    linux.exitNow(0);`;
  const { signal, stdout } = spawnSync(process.execPath, ['-e', script], { encoding: 'utf8' });
  return { signal, said: stdout };
}

/* x86-64 Linux only: elsewhere the portable lane is used, which has no such list. */
describe.runIf(canFork)('the list of system calls', () => {
  it('lets a program compute, allocate and write to what is open', () => {
    const work = 'const big = Buffer.alloc(1 << 26, 1); let s = 0; for (let i = 0; i < 1e6; i++) s += i';
    expect(behindTheList(work)).toEqual({ signal: null, said: 'still here' });
  });

  it.each([
    ['reads a file', `fs.readFileSync('/etc/passwd')`],
    ['lists a folder', `fs.readdirSync('/')`],
    ['writes a file', `fs.writeFileSync('/tmp/left-behind', 'x')`],
    ['removes a file', `calls.unlink('/tmp/left-behind')`],
    ['opens a socket', `calls.socket(2, 1, 0)`],
    ['forks', `calls.fork()`],
    ['becomes another program', `calls.execve('/bin/true', null, null)`],
    ['kills its parent', `calls.kill(process.ppid, 9)`],
    ['looks into its parent', `calls.ptrace(16, process.ppid, 0, 0)`],
    ['raises a limit of its own', `calls.setrlimit(0, [1n << 40n, 1n << 40n])`],
  ])('ends a process that %s', (_, code) => {
    expect(behindTheList(code)).toEqual({ signal: 'SIGSYS', said: '' });
  });
});
