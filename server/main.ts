import { readConfig } from './config';
import { start } from './start';
import { startTrouble } from './startTrouble';

try {
  start(readConfig(process.env));
} catch (error) {
  const says = startTrouble(error, process.env.CLEAR_SITTING_DATA ?? 'data');
  if (says === null) throw error;
  console.error(`Clear Sitting cannot start. ${says}`);
  process.exit(1);
}
