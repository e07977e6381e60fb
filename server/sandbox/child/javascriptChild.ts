/* Runs the cases of ONE submission in QuickJS, each in a fresh instance, then is killed. Bundled by `build.ts`. */
import { readFileSync } from 'node:fs';
import variant from '@jitl/quickjs-wasmfile-release-sync';
import { newQuickJSWASMModuleFromVariant, newVariant } from 'quickjs-emscripten-core';
import { JAVASCRIPT_PRELUDE, javascriptHarness } from '../../../core/kinds/code/harness';
import type { CaseMessage, CaseReply } from './protocol';

const wasmModule = new WebAssembly.Module(readFileSync(process.argv[2]! + '/quickjs.wasm'));
const PAGES_PER_MEGABYTE = 16;
const STACK_BYTES = 256 * 1024;

function describe(error: unknown): { error: string } | { memory: true } {
  const thrown = error as { name?: string; message?: string } | string;
  const text = typeof thrown === 'object' && thrown ? `${thrown.name}: ${thrown.message}` : String(thrown);
  return /out of memory/i.test(text) ? { memory: true } : { error: text.slice(0, 400) };
}

async function runCase(message: CaseMessage): Promise<Omit<CaseReply, 'milliseconds'>> {
  const maximum = Math.max(256, message.megabytes * PAGES_PER_MEGABYTE);
  const wasmMemory = new WebAssembly.Memory({ initial: 256, maximum });
  const quick = await newQuickJSWASMModuleFromVariant(newVariant(variant, { wasmMemory, wasmModule }));
  const runtime = quick.newRuntime();
  runtime.setMaxStackSize(STACK_BYTES);
  const until = performance.now() + message.milliseconds;
  let limit: CaseReply['limit'] = 'none';
  runtime.setInterruptHandler(() => {
    if (performance.now() > until) limit = 'time';
    return limit !== 'none';
  });
  const vm = runtime.newContext();
  let printed = '';
  const write = vm.newFunction('__write', (handle) => {
    const text = vm.getString(handle);
    if (printed.length + text.length > message.outputBytes) limit = 'output';
    else printed += text;
  });
  vm.setProp(vm.global, '__write', write);
  vm.unwrapResult(vm.evalCode(JAVASCRIPT_PRELUDE)).dispose();
  const settle = (reply: object) => ({ index: message.index, reply: JSON.stringify(reply), limit, printed });
  try {
    const made = vm.evalCode(javascriptHarness(message.program, message.functionName), 'program.js');
    if (made.error) return settle(describe(vm.dump(made.error)));
    if (vm.typeof(made.value) !== 'function')
      return settle({ error: `there is no function ${message.functionName}` });
    const call = vm.unwrapResult(
      vm.evalCode('(f,a)=>{const v=f(...JSON.parse(a));return JSON.stringify({value:v===undefined?null:v})}'),
    );
    const result = vm.callFunction(call, vm.undefined, made.value, vm.newString(message.arguments));
    if (result.error) return settle(describe(vm.dump(result.error)));
    return { index: message.index, reply: vm.getString(result.value).slice(0, 1 << 20), limit, printed };
  } catch (trouble) {
    const text = String(trouble);
    return settle(/memory|unreachable|OOM/i.test(text) ? { memory: true } : { error: text.slice(0, 200) });
  }
}

process.on('message', (message: CaseMessage) => {
  const from = performance.now();
  void runCase(message).then((reply) => process.send!({ ...reply, milliseconds: performance.now() - from }));
});
const warmUp: CaseMessage = {
  program: '',
  functionName: 'f',
  index: -1,
  arguments: '[]',
  milliseconds: 1000,
  megabytes: 16,
  outputBytes: 0,
};
void runCase(warmUp).then(() => process.send!({ ready: true }));
