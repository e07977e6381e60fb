import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import path from 'node:path';

/** What stands around a process of the box besides the engine itself. */
export interface Walls {
  /** The path of bubblewrap, where it works: a name space with nothing in it but the engines. */
  readonly bubblewrap: string | null;
  /** Programs run as a user that owns nothing, where the server may change it. */
  readonly ownUser: boolean;
  /** A stack of 64 MiB can be had. */
  readonly deepStack: boolean;
}

/** A user without a name, to whom nothing belongs. */
export const NOBODY = 64_735;

const works = (command: string, args: string[]): boolean => {
  try {
    execFileSync(command, args, { stdio: 'ignore', timeout: 5000 });
    return true;
  } catch {
    return false;
  }
};

const emptyRoom = (folder: string): string[] => [
  ...['--unshare-all', '--die-with-parent', '--new-session', '--clearenv', '--cap-drop', 'ALL'],
  ...['--uid', String(NOBODY), '--gid', String(NOBODY), '--setenv', 'TZ', 'UTC'],
  ...['--ro-bind', '/usr', '/usr', '--symlink', 'usr/bin', '/bin'],
  ...['--symlink', 'usr/lib', '/lib', '--symlink', 'usr/lib64', '/lib64'],
  ...['--ro-bind', folder, '/box', '--ro-bind', process.execPath, '/node'],
  ...['--proc', '/proc', '--dev', '/dev', '--chdir', '/'],
];

const PLACES = ['/usr/bin/bwrap', '/usr/local/bin/bwrap', '/bin/bwrap'];

let found: Walls | null = null;

/** Tried once: a process finds the same walls as long as it lives. */
export const findWalls = (): Walls => (found ??= tryWalls());

function tryWalls(): Walls {
  const bubblewrap = PLACES.find((place) => existsSync(place)) ?? null;
  const usable =
    process.platform === 'linux' && bubblewrap && works(bubblewrap, [...emptyRoom('/tmp'), 'true']);
  return {
    bubblewrap: usable ? bubblewrap : null,
    ownUser: process.getuid?.() === 0,
    deepStack: process.platform !== 'win32' && works('/bin/sh', ['-c', DEEP]),
  };
}

export interface Launch {
  readonly folder: string;
  readonly script: string;
  readonly engine: string;
  /** Of Node. */
  readonly flags: readonly string[];
  readonly walls: Walls;
}

const LIMITS = 'ulimit -c 0; ulimit -f 0; unset PWD OLDPWD';
/** Room for deep calls, in KiB; V8's own limit lies below it. */
const DEEP = 'ulimit -s 65536';
export const DEEP_FLAG = '--stack-size=60000';

/** How a process of the box is started: no environment, no files but the engines', limits by the shell. */
export function commandLine({ folder, script, engine, flags, walls }: Launch): string[] {
  const { bubblewrap, deepStack } = walls;
  const [box, node] = bubblewrap ? ['/box', '/node'] : [folder, process.execPath];
  const room = bubblewrap ? [bubblewrap, ...emptyRoom(folder)] : [];
  const own = flags.map((flag) => flag.replace('BOX', box));
  const command = [...room, node, ...own, path.join(box, script), box, engine, String(NOBODY)];
  if (process.platform === 'win32') return command;
  return ['/bin/sh', '-c', `${LIMITS}; ${deepStack ? `${DEEP}; ` : ''}exec "$@"`, 'sh', ...command];
}
