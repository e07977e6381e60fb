/* Brings a fresh machine to where the project runs: packages, the compiled database driver, Debian's Chromium. */
import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { createHash } from 'node:crypto';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { homedir } from 'node:os';
import path from 'node:path';

export const root = path.resolve(import.meta.dirname, '..');
const at = (...parts) => path.join(root, ...parts);

const STAMP = at('node_modules/.clear-sitting-stamp');
const DRIVER = 'node_modules/better-sqlite3/build/Release/better_sqlite3.node';
const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell';

/** Runs a command with its output in view; ends the whole script when it fails. */
async function must(command, args, options = {}) {
  const child = spawn(command, args, { cwd: root, stdio: 'inherit', ...options });
  const [status] = await once(child, 'close').catch((error) => [error.message]);
  if (status === 0) return;
  console.error(`\n${command} ${args.join(' ')} failed: ${status}.`);
  process.exit(1);
}

/** What is kept on this machine from one run to the next. */
export const CACHE = path.join(process.env.XDG_CACHE_HOME ?? path.join(homedir(), '.cache'), 'clear-sitting');
const MACHINE = `${process.versions.modules}-${process.platform}-${process.arch}`;

/** The compiled driver is kept by version, ABI and architecture: compiling it takes minutes. */
function driverCache() {
  const { version } = JSON.parse(readFileSync(at('node_modules/better-sqlite3/package.json'), 'utf8'));
  return path.join(CACHE, `better-sqlite3-${version}-${MACHINE}.node`);
}

const driverWorks = () =>
  spawnSync(process.execPath, ['-e', "new (require('better-sqlite3'))(':memory:').close()"], {
    cwd: root,
    stdio: 'ignore',
  }).status === 0;

const lockHash = () =>
  createHash('sha256')
    .update(readFileSync(at('package-lock.json')))
    .digest('hex');
const isInstalled = () => existsSync(STAMP) && readFileSync(STAMP, 'utf8') === lockHash() && driverWorks();

async function putDriver() {
  const cached = driverCache();
  if (existsSync(cached)) {
    mkdirSync(path.dirname(at(DRIVER)), { recursive: true });
    copyFileSync(cached, at(DRIVER));
    if (driverWorks()) return;
  }
  console.log('Building the database driver (a minute or two, the first time on a machine) …');
  // What SQLite's makers recommend: as fast as the usual -O3, and compiled in two thirds of the time.
  await must('npm', ['rebuild', 'better-sqlite3'], {
    env: { ...process.env, CFLAGS: '-O2', CXXFLAGS: '-O2', MAKEFLAGS: '-j2' },
  });
  if (!driverWorks()) {
    console.error('The database driver does not load. It needs python3, make and g++; see the output above.');
    process.exit(1);
  }
  mkdirSync(path.dirname(cached), { recursive: true });
  copyFileSync(at(DRIVER), cached);
}

/** Packages as `npm ci` laid them out, kept by the lock file: unpacking 35,000 files takes the better part of a minute. */
const packageCache = () => path.join(CACHE, `packages-${lockHash().slice(0, 16)}-${MACHINE}`);

const remove = (folder) => rmSync(folder, { recursive: true, force: true });

/** A copy that breaks off leaves nothing behind; nor does one of what another run took away meanwhile. */
function copied(from, to) {
  remove(to);
  if (spawnSync('cp', ['-a', from, to], { stdio: 'ignore' }).status === 0 && existsSync(from)) return true;
  remove(to);
  return false;
}

function isRunning(pid) {
  try {
    return process.kill(pid, 0);
  } catch {
    return false;
  }
}

/** Those of one lock file only. What cannot be kept is unpacked again the next time. */
function keepPackages() {
  const own = path.join(CACHE, `copy-${process.pid}`);
  try {
    mkdirSync(CACHE, { recursive: true });
    for (const name of readdirSync(CACHE)) {
      const [what, which] = name.split('-');
      const kept = path.join(CACHE, name);
      // A run that was ended in the middle of a copy left it.
      if (what === 'copy' && !isRunning(Number(which))) remove(kept);
      if (what !== 'packages') continue;
      // At once out of the way of whoever looks for them, then removed.
      renameSync(kept, own);
      remove(own);
    }
    if (copied(at('node_modules'), own)) renameSync(own, packageCache());
  } catch {
    // Another run was first, or nothing can be kept here.
    remove(own);
  }
}

/** All but the compiled driver of the database, which `installDriver` brings: what does not open one need not wait for it. */
export async function installPackages() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major !== 20 || minor < 19) {
    console.error(
      `Clear Sitting runs on Node 20.19 or later of the 20 line; this is ${process.versions.node}.`,
    );
    process.exit(1);
  }
  if (isInstalled()) return;
  if (existsSync(packageCache()) && copied(packageCache(), at('node_modules'))) return;
  // All of them, whatever this machine is set to leave out: they are kept for the next run too.
  const all = ['--include=dev', '--include=optional'];
  await must('npm', ['ci', '--ignore-scripts', '--no-audit', '--no-fund', ...all]);
  keepPackages();
}

export async function installDriver() {
  if (isInstalled()) return;
  await putDriver();
  writeFileSync(STAMP, lockHash());
}

/** What tests need of Debian's: a browser, and bubblewrap where it can be had, for attacks on the sandbox behind it too. */
export async function installFromDebian() {
  const chromium = existsSync(CHROMIUM) ? [] : ['chromium-headless-shell'];
  const bubblewrap = process.platform !== 'linux' || existsSync('/usr/bin/bwrap') ? [] : ['bubblewrap'];
  const wanted = [...chromium, ...bubblewrap];
  if (wanted.length === 0) return;
  const can =
    process.getuid?.() === 0 && spawnSync('apt-get', ['--version'], { stdio: 'ignore' }).status === 0;
  if (can) {
    const options = {
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
      stdio: ['ignore', 'ignore', 'inherit'],
    };
    await must('apt-get', ['update', '-q'], options);
    await must('apt-get', ['install', '-y', '-q', '--no-install-recommends', ...wanted], options);
    return;
  }
  if (bubblewrap.length > 0) console.log('There is no bubblewrap: the sandbox is tried without it only.');
  if (chromium.length === 0) return;
  console.error(
    `There is no ${CHROMIUM}. Install Debian's package "chromium-headless-shell", or set CHROMIUM to a browser.`,
  );
  process.exit(1);
}
