import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: { include: ['{core,server,web,demo}/**/*.test.ts'], testTimeout: 60_000, hookTimeout: 60_000 },
});
