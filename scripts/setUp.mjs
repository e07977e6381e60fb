/* Brings a fresh machine to where the project runs: packages, the compiled database driver, Debian's Chromium. */
import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { copyFileSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { homedir } from 'node:os';
import path from 'node:path';

export const root = path.resolve(import.meta.dirname, '..');
const at = (...parts) => path.join(root, ...parts);

const STAMP = at('node_modules/.clear-sitting-stamp');
const DRIVER = 'node_modules/better-sqlite3/build/Release/better_sqlite3.node';
const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell';

/** Runs a command with its output in view; ends the whole script when it fails. */
function must(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  if (error || status !== 0) {
    console.error(`\n${command} ${args.join(' ')} failed${error ? `: ${error.message}` : ''}.`);
    process.exit(1);
  }
}

/** The compiled driver is kept by version, ABI and architecture: compiling it takes minutes. */
function driverCache() {
  const { version } = JSON.parse(readFileSync(at('node_modules/better-sqlite3/package.json'), 'utf8'));
  const name = `better-sqlite3-${version}-${process.versions.modules}-${process.platform}-${process.arch}.node`;
  return path.join(process.env.XDG_CACHE_HOME ?? path.join(homedir(), '.cache'), 'clear-sitting', name);
}

const driverWorks = () =>
  spawnSync(process.execPath, ['-e', "new (require('better-sqlite3'))(':memory:').close()"], {
    cwd: root,
    stdio: 'ignore',
  }).status === 0;

function putDriver() {
  const cached = driverCache();
  if (existsSync(cached)) {
    mkdirSync(path.dirname(at(DRIVER)), { recursive: true });
    copyFileSync(cached, at(DRIVER));
    if (driverWorks()) return;
  }
  console.log('Building the database driver (some minutes, the first time on a machine) …');
  must('npm', ['rebuild', 'better-sqlite3']);
  if (!driverWorks()) {
    console.error('The database driver does not load. It needs python3, make and g++; see the output above.');
    process.exit(1);
  }
  mkdirSync(path.dirname(cached), { recursive: true });
  copyFileSync(at(DRIVER), cached);
}

export function installPackages() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major !== 20 || minor < 19) {
    console.error(
      `Clear Sitting runs on Node 20.19 or later of the 20 line; this is ${process.versions.node}.`,
    );
    process.exit(1);
  }
  const lock = createHash('sha256')
    .update(readFileSync(at('package-lock.json')))
    .digest('hex');
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === lock && driverWorks()) return;
  must('npm', ['ci', '--ignore-scripts', '--no-audit', '--no-fund']);
  putDriver();
  writeFileSync(STAMP, lock);
}

/** Debian's Chromium for the browser stories, where this user may install it. */
const canInstall = () =>
  process.getuid?.() === 0 && spawnSync('apt-get', ['--version'], { stdio: 'ignore' }).status === 0;

function installFromDebian(names) {
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  execFileSync('apt-get', ['update', '-q'], { stdio: 'ignore', env });
  must('apt-get', ['install', '-y', '-q', '--no-install-recommends', ...names], {
    env,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
}

export function installChromium() {
  if (existsSync(CHROMIUM)) return;
  if (canInstall()) return installFromDebian(['chromium-headless-shell']);
  console.error(
    `There is no ${CHROMIUM}. Install Debian's package "chromium-headless-shell", or set CHROMIUM to a browser.`,
  );
  process.exit(1);
}

/** Attacks on the code box are tried with bubblewrap too, where it can be had. */
export function installBubblewrap() {
  if (process.platform !== 'linux' || existsSync('/usr/bin/bwrap')) return;
  if (canInstall()) installFromDebian(['bubblewrap']);
  else console.log('There is no bubblewrap: the code box is tried without it only.');
}
