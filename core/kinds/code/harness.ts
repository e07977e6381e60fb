/**
 * How one case of a program is run, the same in the browser's worker and in the server's sandbox: the program is
 * executed, its function called with the given arguments, and what it returns goes out as JSON. What is expected is
 * never there.
 */
export const PYTHON_HARNESS = `
def __clear_sitting_case(program, name, arguments):
    import json, sys, traceback
    scope = {'__name__': '__main__'}
    try:
        exec(compile(program, 'program.py', 'exec'), scope)
        if not callable(scope.get(name)):
            return json.dumps({'error': 'there is no function ' + name})
        value = scope[name](*json.loads(arguments))
        try:
            return json.dumps({'value': value}, allow_nan=False)
        except (TypeError, ValueError):
            return json.dumps({'error': 'the function returned a ' + type(value).__name__ + ', which cannot be compared'})
    except MemoryError:
        return json.dumps({'memory': True})
    except SystemExit:
        return json.dumps({'error': 'the program ended itself before it returned anything'})
    except BaseException as trouble:
        lines = [f.lineno for f in traceback.extract_tb(sys.exc_info()[2]) if f.filename == 'program.py']
        line = getattr(trouble, 'lineno', None) if isinstance(trouble, SyntaxError) else (lines[-1] if lines else None)
        place = '' if line is None else ' (line ' + str(line) + ')'
        return json.dumps({'error': type(trouble).__name__ + ': ' + str(trouble)[:300] + place})
`;

/** Wrapped in a function: QuickJS runs loops at the top level some two hundred times slower. */
export const javascriptHarness = (program: string, functionName: string): string =>
  `(function(){${program}\n;return typeof ${functionName}==='function'?${functionName}:undefined})()`;

/** Given before the program: `console.log` writes through `__write`, which then cannot be reached otherwise. */
export const JAVASCRIPT_PRELUDE = `(()=>{'use strict';const write=__write;delete globalThis.__write;
const show=v=>typeof v==='string'?v:typeof v==='object'&&v!==null?JSON.stringify(v):String(v);
globalThis.console={log:(...a)=>write(a.map(show).join(' ')+'\\n')};})()`;

export type HarnessReply =
  { readonly value: unknown } | { readonly error: string } | { readonly memory: true };
