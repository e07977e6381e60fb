import { defineConfig } from '@playwright/test';
import { CAMERA_CLIP, CHROMIUM } from './e2e/paths';

const CHROMIUM_FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--use-fake-ui-for-media-stream',
  '--use-fake-device-for-media-stream',
  `--use-file-for-fake-video-capture=${CAMERA_CLIP}`,
];

export default defineConfig({
  testDir: './e2e',
  globalSetup: './e2e/prepare.ts',
  fullyParallel: true,
  workers: 2,
  // Generous: a shared machine can be five times slower for minutes. A story that fails is told once more in CI.
  timeout: 300_000,
  expect: { timeout: 30_000 },
  retries: process.env.CI ? 1 : 0,
  reporter: process.env.E2E_JSON ? [['list'], ['json', { outputFile: process.env.E2E_JSON }]] : 'list',
  use: {
    actionTimeout: 60_000,
    browserName: 'chromium',
    viewport: { width: 1280, height: 800 },
    timezoneId: 'Europe/London',
    locale: 'en-GB',
    // Keeping the desk for a time without a network takes a sixth of a story's processor time: it is allowed where the network goes away.
    serviceWorkers: 'block',
    // Recording costs a fifth of a story's time: only what has failed once is recorded at its second try.
    trace: 'on-first-retry',
    launchOptions: { executablePath: CHROMIUM, args: CHROMIUM_FLAGS },
  },
});
