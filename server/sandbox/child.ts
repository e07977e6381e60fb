import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import path from 'node:path';
import type { ProgramRun } from '../../core/kinds/evidence';

export type Language = ProgramRun['language'];

const SCRIPTS: Record<Language, string> = { python: 'pythonChild.cjs', javascript: 'javascriptChild.cjs' };
const START_LIMIT_MS = 30_000;
const NOISE_BYTES = 4000;

const works = (command: string, args: string[]): boolean => {
  try {
    execFileSync(command, args, { stdio: 'ignore', timeout: 5000 });
    return true;
  } catch {
    return false;
  }
};

/** What wraps the child where the machine has it: process limits, and a name space with next to nothing in it. */
export interface Wrapping {
  readonly prlimit: boolean;
  readonly bubblewrap: boolean;
}

export function findWrapping(): Wrapping {
  const linux = process.platform === 'linux';
  return {
    prlimit: linux && works('prlimit', ['--core=0', 'true']),
    bubblewrap: linux && works('bwrap', [...emptyRoom('/tmp'), 'true']),
  };
}

const LIMITS = ['--fsize=0', '--nofile=64', '--core=0', '--cpu=120'];

const emptyRoom = (folder: string): string[] => [
  '--unshare-all',
  '--die-with-parent',
  '--new-session',
  '--clearenv',
  '--cap-drop',
  'ALL',
  '--ro-bind',
  '/usr',
  '/usr',
  '--symlink',
  'usr/bin',
  '/bin',
  '--symlink',
  'usr/lib',
  '/lib',
  '--symlink',
  'usr/lib64',
  '/lib64',
  '--ro-bind',
  folder,
  '/box',
  '--ro-bind',
  process.execPath,
  '/node',
  '--proc',
  '/proc',
  '--dev',
  '/dev',
  '--chdir',
  '/',
  '--setenv',
  'NODE_CHANNEL_FD',
  '3',
];

function commandLine(folder: string, language: Language, wrapping: Wrapping): string[] {
  const box = wrapping.bubblewrap ? '/box' : folder;
  const node = wrapping.bubblewrap ? '/node' : process.execPath;
  return [
    ...(wrapping.prlimit ? ['prlimit', ...LIMITS] : []),
    ...(wrapping.bubblewrap ? ['bwrap', ...emptyRoom(folder)] : []),
    node,
    '--disallow-code-generation-from-strings',
    '--max-old-space-size=256',
    '--experimental-permission',
    `--allow-fs-read=${box}/*`,
    '--no-warnings',
    path.posix.join(box, SCRIPTS[language]),
    box,
  ];
}

export interface SandboxChild {
  readonly process: ChildProcess;
  readonly ready: Promise<void>;
  kill(): void;
}

/** Starts a child with an empty environment that may read the sandbox's own folder and nothing else. */
export function startChild(folder: string, language: Language, wrapping: Wrapping): SandboxChild {
  const [command, ...args] = commandLine(folder, language, wrapping);
  const child = spawn(command!, args, {
    cwd: '/',
    env: {},
    stdio: ['ignore', 'ignore', 'pipe', 'ipc'],
    serialization: 'json',
    detached: true,
  });
  let noise = '';
  child.stderr?.on('data', (chunk: Buffer) => {
    if (noise.length < NOISE_BYTES) noise += chunk.toString('latin1');
  });
  const kill = () => {
    try {
      process.kill(-child.pid!, 'SIGKILL');
    } catch {
      child.kill('SIGKILL');
    }
  };
  const ready = new Promise<void>((resolve, reject) => {
    const timer = setTimeout(() => {
      kill();
      reject(new Error('the sandbox child did not start in time'));
    }, START_LIMIT_MS);
    child.once('message', () => {
      clearTimeout(timer);
      resolve();
    });
    child.once('error', reject);
    child.once('exit', (code, signal) => {
      clearTimeout(timer);
      reject(new Error(`the sandbox child ended (${code ?? signal}): ${noise}`));
    });
  });
  ready.catch(() => undefined);
  return { process: child, ready, kill };
}
