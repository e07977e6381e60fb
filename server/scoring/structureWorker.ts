import { parentPort } from 'node:worker_threads';
import type { StructureRun } from '../../core/kinds/evidence';
import { scriptStructure } from './scriptStructure';

parentPort!.on('message', (run: StructureRun) => parentPort!.postMessage(scriptStructure(run)));
parentPort!.postMessage('ready');
