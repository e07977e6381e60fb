import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['{core,server,web,demo}/**/*.test.ts'],
    testTimeout: 120_000,
    hookTimeout: 120_000,
    // Programs in the code box have limits in real time; a shared machine can stand still for a moment.
    retry: process.env.CI ? 1 : 0,
  },
});
