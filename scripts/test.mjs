/* Everything that must hold, in one command; closes with `N passed, N failed`. */
import { spawn } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { stripVTControlCharacters } from 'node:util';
import { watchMachine } from './machineSpeed.mjs';
import { installDriver, installFromDebian, installPackages, root } from './setUp.mjs';

const speedOfMachine = watchMachine();
await installPackages();
// On a fresh machine it is compiled for a minute or two: what only looks at the sources does not wait for it.
let ready = false;
const machine = Promise.all([installDriver(), installFromDebian()]).then(() => (ready = true));

const reports = path.join(root, '.cache/reports');
rmSync(reports, { recursive: true, force: true });
mkdirSync(reports, { recursive: true });
const report = (name) => path.join(reports, `${name.replaceAll(' ', '-')}.json`);
const read = (name) => JSON.parse(readFileSync(report(name), 'utf8'));

/** A check counts as one; the suites count their tests. */
const one = (ok) => ({ passed: ok ? 1 : 0, failed: ok ? 0 : 1 });
/** What passed only at its second try, with what had failed: the retry guards against a starved machine, and hides nothing. */
const retried = [];
const firstLine = (text = '') => stripVTControlCharacters(text).split('\n').slice(0, 3).join(' ');
const unitCounts = (name) => {
  const { numPassedTests, numFailedTests, testResults } = read(name);
  for (const { assertionResults } of testResults)
    for (const { status, fullName, failureMessages } of assertionResults)
      if (status === 'passed' && failureMessages.length > 0)
        retried.push(`${fullName}: ${firstLine(failureMessages[0])}`);
  // A file that cannot even be loaded has failed without a test of its own.
  const broken = testResults.filter((f) => f.status === 'failed' && f.assertionResults.length === 0).length;
  return { passed: numPassedTests, failed: numFailedTests + broken };
};
const storyCounts = () => {
  const { stats, suites } = read('e2e');
  const { expected, unexpected, flaky } = stats;
  const walk = (suite) => {
    for (const inner of suite.suites ?? []) walk(inner);
    for (const { title, tests } of suite.specs ?? [])
      for (const { status, results } of tests)
        if (status === 'flaky') retried.push(`${title}: ${firstLine(results[0].error?.message)}`);
  };
  suites.forEach(walk);
  return { passed: expected + flaky, failed: unexpected };
};

/**
 * Go's programs spend a third of their processor time on collecting a gigabyte that this machine can spare; collected it is
 * only where they would take more than four.
 */
const SPARE_MEMORY = { GOGC: 'off', GOMEMLIMIT: '4GiB' };
/** What only looks at the sources: two chains beside each other, as many as there are cores. */
const checks = [
  [
    { name: 'lint', args: ['run', 'lint'], env: SPARE_MEMORY },
    { name: 'types', args: ['run', 'typecheck', '--', '--singleThreaded'], env: SPARE_MEMORY },
  ],
  [
    { name: 'format', args: ['run', 'format:check'] },
    { name: 'boundaries', args: ['run', 'boundaries'] },
    { name: 'regular expressions', args: ['run', 'regular-expressions'] },
    { name: 'build', args: ['run', 'build', '--', '--logLevel', 'warn'] },
  ],
];
/** Of all folders, or of some. */
const unit = (name, folders = []) => ({
  name,
  args: [
    ...['run', 'unit', '--', '--reporter=default', '--reporter=json'],
    `--outputFile.json=${report(name)}`,
    ...folders,
  ],
  // Helpers and workers of the servers under test start bundled: far faster than through tsx.
  env: { CLEAR_SITTING_BUNDLED: 'true' },
  counts: () => unitCounts(name),
});
/** Half of its time it waits for what it has broken to come back: others run meanwhile. */
const faults = { name: 'faults, short form', args: ['run', 'faults', '--', '--short'] };
const stories = {
  name: 'browser tests',
  args: ['run', 'e2e'],
  env: { E2E_JSON: report('e2e') },
  counts: storyCounts,
};

const total = { passed: 0, failed: 0 };
function count({ name, counts }, ok, from) {
  let result = one(ok);
  try {
    if (counts) result = counts();
  } catch {
    result = one(false);
  }
  // A suite that ends badly without a failed test (it could not start, say) has failed all the same.
  if (!ok && result.failed === 0) result.failed = 1;
  total.passed += result.passed;
  total.failed += result.failed;
  console.log(`── ${name}: ${ok ? 'well' : 'FAILED'} in ${Math.round((Date.now() - from) / 1000)} s`);
}

/** Runs a step; what it says is kept until its end where others run beside it. */
function run({ args, env }, beside) {
  const child = spawn('npm', ['--silent', ...args], {
    cwd: root,
    stdio: ['ignore', beside ? 'pipe' : 'inherit', beside ? 'pipe' : 'inherit'],
    env: { ...process.env, ...env },
  });
  let said = '';
  for (const stream of [child.stdout, child.stderr]) stream?.on('data', (text) => (said += text));
  return new Promise((done) => child.once('close', (status) => done({ ok: status === 0, said })));
}

async function runChain(steps, beside) {
  for (const step of steps) {
    const from = Date.now();
    if (!beside) console.log(`\n── ${step.name}`);
    const { ok, said } = await run(step, beside);
    if (said.trim() !== '') console.log(`\n── ${step.name}\n${said}`);
    count(step, ok, from);
  }
}

await Promise.all(checks.map((chain) => runChain(chain, true)));
let unitTests = [unit('unit tests')];
if (!ready) {
  // Those that open no database need not wait for its driver either.
  await runChain([unit('unit tests of core and web', ['core/', 'web/'])], false);
  unitTests = [unit('unit tests of server and demo', ['server/', 'demo/', 'scripts/'])];
  await machine;
}
await Promise.all([runChain(unitTests, false), runChain([faults], true)]);
await runChain([stories], false);
if (retried.length > 0) console.log(`\nPassed only at the second try:\n- ${retried.join('\n- ')}`);
console.log(`\n── ${speedOfMachine()}`);
console.log(`\n${total.passed} passed, ${total.failed} failed`);
process.exit(total.failed > 0 ? 1 : 0);
