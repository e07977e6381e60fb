/* Runs one program in QuickJS inside this worker: the same engine and harness as the server's sandbox. */
import variant from '@jitl/quickjs-wasmfile-release-sync';
import { newQuickJSWASMModuleFromVariant } from 'quickjs-emscripten-core';
import { JAVASCRIPT_PRELUDE, javascriptHarness } from '../../../core/kinds/code/harness';
import type { WorkerCase } from './tryProgram';

const engine = newQuickJSWASMModuleFromVariant(variant);

async function run({ program, functionName, argumentsJson, outputBytes }: WorkerCase) {
  const vm = (await engine).newContext();
  let printed = '';
  const write = vm.newFunction('__write', (handle) => {
    printed += vm.getString(handle);
    if (printed.length > outputBytes) throw new Error('output limit');
  });
  vm.setProp(vm.global, '__write', write);
  vm.unwrapResult(vm.evalCode(JAVASCRIPT_PRELUDE)).dispose();
  const trouble = (error: unknown) => {
    const { name, message } = error as { name?: string; message?: string };
    return JSON.stringify({ error: `${name ?? 'Error'}: ${message ?? ''}` });
  };
  const made = vm.evalCode(javascriptHarness(program, functionName), 'program.js');
  if (made.error) return { reply: trouble(vm.dump(made.error)), printed };
  if (vm.typeof(made.value) !== 'function')
    return { reply: JSON.stringify({ error: `there is no function ${functionName}` }), printed };
  const call = vm.unwrapResult(
    vm.evalCode('(f,a)=>{const v=f(...JSON.parse(a));return JSON.stringify({value:v===undefined?null:v})}'),
  );
  const result = vm.callFunction(call, vm.undefined, made.value, vm.newString(argumentsJson));
  return { reply: result.error ? trouble(vm.dump(result.error)) : vm.getString(result.value), printed };
}

self.onmessage = (event: MessageEvent<WorkerCase>) => {
  const from = performance.now();
  void run(event.data).then((result) =>
    self.postMessage({ ...result, milliseconds: performance.now() - from }),
  );
};
void engine.then(() => self.postMessage({ ready: true }));
