import { BenchApp } from './BenchApp';
import { measureDesk } from './desk';
import { drawClip } from '../e2e/prepare';
drawClip();
const app = await BenchApp.open();
try {
  console.log(JSON.stringify(await measureDesk(app), null, 1));
} finally {
  await app.close();
}
process.exit(0);
