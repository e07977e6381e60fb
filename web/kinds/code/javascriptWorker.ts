/* Runs one program in QuickJS inside this worker: the same engine and harness as the server's sandbox. */
import './useUtc';
import variant from '@jitl/quickjs-wasmfile-release-sync';
import { newQuickJSWASMModuleFromVariant } from 'quickjs-emscripten-core';
import type { CaseJob } from '../../../core/programs/engine';
import { runJavascriptCase } from '../../../core/programs/javascriptCase';

/** What a browser's thread has room for: some 1,500 calls deep. */
const STACK_BYTES = 256 * 1024;

/** An engine of its own for every case. */
const engine = () => newQuickJSWASMModuleFromVariant(variant);
let next = engine();

async function run(job: CaseJob) {
  const vm = (await next).newContext();
  next = engine();
  const from = performance.now();
  const spentMs = () => performance.now() - from;
  return runJavascriptCase(vm, job, { spentMs, stackBytes: STACK_BYTES });
}

self.onmessage = (event: MessageEvent<CaseJob>) => {
  void run(event.data).then((reply) => self.postMessage(reply));
};
next.then(
  () => self.postMessage({ ready: true }),
  (error: unknown) => self.postMessage({ failed: String(error) }),
);
