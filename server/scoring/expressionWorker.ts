import { parentPort } from 'node:worker_threads';
import type { ExpressionRun } from '../../core/kinds/evidence';
import { compareExpressions } from './compareExpressions';

parentPort!.on('message', (run: ExpressionRun) => parentPort!.postMessage(compareExpressions(run)));
parentPort!.postMessage('ready');
