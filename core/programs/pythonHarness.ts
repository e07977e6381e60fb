/**
 * How a case is run in Python, the same in the browser's worker and in the server's sandbox: the program is executed,
 * its function called with the given arguments, and what it returns goes out as JSON. A coroutine is driven as long as
 * it only awaits other coroutines; there is no event loop that it could wait for.
 */
export const PYTHON_HARNESS = `
def __clear_sitting_case(program, name, arguments):
    import inspect, json, sys, traceback
    dumps, loads = json.dumps, json.loads

    def fault(code, text='', line=None):
        return dumps({'fault': code, 'text': str(text)[:400], 'line': line})

    scope = {'__name__': '__main__'}
    try:
        exec(compile(program, 'program.py', 'exec'), scope)
        if not callable(scope.get(name)):
            return fault('noFunction', name)
        value = scope[name](*loads(arguments))
        if inspect.iscoroutine(value):
            try:
                while value.send(None) is None:
                    pass
                value.close()
                return fault('waits')
            except StopIteration as end:
                value = end.value
        try:
            return dumps({'value': value}, allow_nan=False)
        except (TypeError, ValueError):
            what = repr(value) if isinstance(value, float) else type(value).__name__
            return fault('notComparable', what)
    except MemoryError:
        return dumps({'memory': True})
    except SystemExit:
        return fault('endedItself')
    except BaseException as trouble:
        lines = [f.lineno for f in traceback.extract_tb(sys.exc_info()[2]) if f.filename == 'program.py']
        line = getattr(trouble, 'lineno', None) if isinstance(trouble, SyntaxError) else (lines[-1] if lines else None)
        return fault('thrown', type(trouble).__name__ + ': ' + str(trouble)[:300], line)
`;

/** Before anything else: a program learns nothing of where it runs, and its clock says UTC. */
export const PYTHON_SETTINGS = `
import os, sys
os.environ.clear()
os.environ.update({'HOME': '/home/program', 'LANG': 'C.UTF-8', 'TZ': 'UTC'})
sys.executable = sys._base_executable = ''
sys.argv = sys.orig_argv = ['program.py']
os.makedirs('/home/program', exist_ok=True)
os.chdir('/home/program')
`;
