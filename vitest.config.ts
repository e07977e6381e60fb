import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    testTimeout: 120_000,
    hookTimeout: 120_000,
    // Programs in the sandbox have limits in real time; a shared machine can stand still for a moment.
    // As many as a machine of this kind has cores; the usual is one fewer.
    maxWorkers: 2,
    // No test changes what another file sees; what all import is loaded once: a sixth of the time.
    isolate: false,
    // For a machine that stands still for a moment; what needed it is printed.
    retry: process.env.CI ? 1 : 0,
    projects: [
      {
        extends: true,
        test: { name: 'plain', include: ['{core,server,web,demo,scripts}/**/*.test.ts'] },
      },
      {
        extends: true,
        test: {
          name: 'screens',
          include: ['web/**/*.test.tsx'],
          environment: 'jsdom',
          setupFiles: ['web/testing/setUp.ts'],
        },
      },
    ],
  },
});
