import variant from '@jitl/quickjs-wasmfile-release-sync';
import { newQuickJSWASMModuleFromVariant, newVariant } from 'quickjs-emscripten-core';
import { transform } from 'sucrase';
import { faultReply } from '../../../core/programs/engine';
import { runJavascriptCase } from '../../../core/programs/javascriptCase';
import type { Engine, ProcessCase, RunCase } from './engine';
import type { ReadFile } from './engineFiles';
import { WARM_UP_JAVASCRIPT } from './warmUpPrograms';

const MOST_PAGES = 4096; // 256 MiB
const FIRST_PAGES = 256; // 16 MiB, as the engine asks for

interface Stripped {
  readonly program: string;
  readonly trouble: string | null;
}

/** TypeScript without its types; the lines keep their numbers. */
function withoutTypes({ language, program }: ProcessCase): Stripped {
  if (language !== 'typescript') return { program, trouble: null };
  try {
    const { code } = transform(program, { transforms: ['typescript'], disableESTransforms: true });
    return { program: code, trouble: null };
  } catch (error) {
    const text = (error as Error).message;
    return { program: '', trouble: faultReply('thrown', text) };
  }
}

/** QuickJS: a fresh instance for each case. `stackBytes` is what the thread has for it. */
export function loadJavascript(read: ReadFile, stackBytes: number): Engine {
  const wasmModule = new WebAssembly.Module(read('quickjs.wasm'));
  const fresh = async (): Promise<RunCase> => {
    const wasmMemory = new WebAssembly.Memory({ initial: FIRST_PAGES, maximum: MOST_PAGES });
    const quick = await newQuickJSWASMModuleFromVariant(newVariant(variant, { wasmMemory, wasmModule }));
    return (job, spentMs) => {
      const { program, trouble } = withoutTypes(job);
      if (trouble !== null) return { limit: 'none', printed: '', reply: trouble };
      const vm = quick.newRuntime().newContext();
      return runJavascriptCase(vm, { ...job, program }, { spentMs, stackBytes });
    };
  };
  return { fresh, warmUp: WARM_UP_JAVASCRIPT };
}
