import variant from '@jitl/quickjs-wasmfile-release-sync';
import { newQuickJSWASMModuleFromVariant, newVariant } from 'quickjs-emscripten-core';
import { runJavascriptCase } from '../../../core/programs/javascriptCase';
import { withoutTypes } from '../../../core/programs/withoutTypes';
import type { Engine, RunCase } from './engine';
import type { ReadFile } from './engineFiles';
import { WARM_UP_JAVASCRIPT } from './warmUpPrograms';

const MOST_PAGES = 4096; // 256 MiB
const FIRST_PAGES = 256; // 16 MiB, as the engine asks for

/** QuickJS: a fresh instance for each case. `stackBytes` is what the thread has for it. */
export function loadJavascript(read: ReadFile, stackBytes: number): Engine {
  const wasmModule = new WebAssembly.Module(read('quickjs.wasm'));
  const fresh = async (): Promise<RunCase> => {
    const wasmMemory = new WebAssembly.Memory({ initial: FIRST_PAGES, maximum: MOST_PAGES });
    const quick = await newQuickJSWASMModuleFromVariant(newVariant(variant, { wasmMemory, wasmModule }));
    return (job, spentMs) => {
      const plain = withoutTypes(job);
      if ('trouble' in plain) return { limit: 'none', memoryBytes: 0, printed: '', reply: plain.trouble };
      const vm = quick.newRuntime().newContext();
      return runJavascriptCase(vm, { ...job, files: plain.files }, { spentMs, stackBytes });
    };
  };
  return { fresh, warmUp: WARM_UP_JAVASCRIPT };
}
