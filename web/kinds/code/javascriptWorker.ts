/* Runs one program in QuickJS inside this worker: the same engine and harness as the server's sandbox. */
import './useUtc';
import variant from '@jitl/quickjs-wasmfile-release-sync';
import { newQuickJSWASMModuleFromVariant } from 'quickjs-emscripten-core';
import type { CaseJob, EngineReply } from '../../../core/programs/engine';
import { runJavascriptCase } from '../../../core/programs/javascriptCase';
import { withoutTypes } from '../../../core/programs/withoutTypes';
import { serveCases } from './runCase';

/** What a browser's thread has room for: some 1,500 calls deep. */
const STACK_BYTES = 256 * 1024;

/** An engine of its own for every case. */
const engine = () => newQuickJSWASMModuleFromVariant(variant);
let next = engine();

async function run(job: CaseJob): Promise<EngineReply> {
  const from = performance.now();
  const spentMs = () => performance.now() - from;
  const plain = withoutTypes(job);
  if ('trouble' in plain)
    return { limit: 'none', cpuMs: spentMs(), memoryBytes: 0, printed: '', reply: plain.trouble };
  const vm = (await next).newContext();
  next = engine();
  return runJavascriptCase(vm, { ...job, files: plain.files }, { spentMs, stackBytes: STACK_BYTES });
}

serveCases(next, run);
