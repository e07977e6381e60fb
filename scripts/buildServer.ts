import { bundleServer } from './bundleServer';

// The demo's data for browser stories: seeded in half the time.
await bundleServer(['demo/main.ts']);
