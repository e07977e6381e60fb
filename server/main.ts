import { readConfig } from './config';
import { start } from './start';

start(readConfig(process.env));
