import { defineConfig } from '@playwright/test';
import stories from './playwright.config';

/** Takes the pictures in docs/screenshots again, from the demo data with its simulated scripts. */
export default defineConfig({
  ...stories,
  testDir: './e2e/pictures',
  testMatch: '*.pictures.ts',
  workers: 1,
  timeout: 300_000,
  reporter: 'list',
});
