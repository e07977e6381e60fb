/* One command on a fresh machine: installs what is missing, builds, seeds the demo, starts, prints links. */
import { spawn, spawnSync } from 'node:child_process';
import { installDriver, installPackages, root } from './setUp.mjs';

await installPackages();
await installDriver();

const env = {
  CLEAR_SITTING_DATA: 'data/demo',
  CLEAR_SITTING_STANDIN_CAMERA: 'true',
  CLEAR_SITTING_DEMO: 'data/demo/people.json',
  LOG_LEVEL: 'warn',
  ...process.env,
};
const steps = [
  ['npm', ['run', '--silent', 'build', '--', '--logLevel', 'warn']],
  [process.execPath, ['--import', 'tsx', 'demo/main.ts']],
];
for (const [command, args] of steps) {
  const { status } = spawnSync(command, args, { cwd: root, stdio: 'inherit', env });
  if (status !== 0) process.exit(status ?? 1);
}
const server = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], {
  cwd: root,
  stdio: 'inherit',
  env,
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
