import { bundleServer } from './bundleServer';

await bundleServer();
