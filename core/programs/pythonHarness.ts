/**
 * How a case is run in Python, the same in the browser's worker and in the server's sandbox: the files are written, the
 * first one is executed, and its function called with the given arguments, if it is to have one. What it returned goes
 * out as a value in JSON. A coroutine is driven as long as it only awaits other coroutines; there is no event loop that it
 * could wait for.
 */
export const PYTHON_HARNESS = `
def __clear_sitting_case(job):
    import inspect, io, json, os, sys, traceback
    dumps, loads, walk = json.dumps, json.loads, traceback.walk_tb
    home = '/home/program'
    job = loads(job)
    name, lengths = job['functionName'], {}

    class Odd(Exception):
        pass

    class Deep(Exception):
        pass

    def fault(code, text='', at=()):
        return dumps({'fault': code, 'text': str(text)[:400], 'at': list(at)})

    def given(value):
        if type(value) is not list:
            return value
        kind, items = value[0], value[1:]
        if kind == 'i':
            return int(items[0])
        if kind == 'f':
            return float(items[0])
        if kind == 'l' or kind == 's':
            return [given(one) for one in items]
        if kind == 'b':
            return bytes.fromhex(items[0])
        if kind == 'd':
            import decimal
            return decimal.Decimal(items[0])
        return {given(items[i]): given(items[i + 1]) for i in range(0, len(items), 2)}

    def whole(value):
        return str(value) if value.bit_length() <= 13000 else hex(value)

    def tagged(value, depth):
        if value is None or value is True or value is False:
            return value
        if depth > 400:
            raise Deep()
        if isinstance(value, str):
            return str.__str__(value)
        if isinstance(value, int):
            return ['i', whole(int(value))]
        if isinstance(value, float):
            return ['f', repr(float(value))]
        if isinstance(value, (list, tuple)):
            return ['l', *[tagged(one, depth + 1) for one in value]]
        if isinstance(value, dict):
            out = ['m']
            for key, one in value.items():
                out.append(tagged(key, depth + 1))
                out.append(tagged(one, depth + 1))
            return out
        if isinstance(value, (set, frozenset)):
            return ['s', *[tagged(one, depth + 1) for one in value]]
        if isinstance(value, (bytes, bytearray)):
            return ['b', bytes(value).hex()]
        kind = type(value)
        if kind.__module__ == 'decimal' and kind.__name__ == 'Decimal' and value.is_finite():
            return ['d', str(value)]
        raise Odd(kind.__name__)

    def place(file, line, within):
        if file not in lengths or type(line) is not int or not 0 < line <= lengths[file]:
            return []
        return [{'file': file, 'line': line, 'in': '' if within == '<module>' else str(within)[:60]}]

    def own(path):
        path = path if type(path) is str else ''
        return path[len(home) + 1:] if path.startswith(home + '/') else path

    def places(trouble):
        found = []
        if isinstance(trouble, SyntaxError):
            found = place(own(trouble.filename), trouble.lineno, '')
        if not found:
            for frame, line in walk(trouble.__traceback__):
                found += place(own(frame.f_code.co_filename), line, frame.f_code.co_name)
        return found if len(found) <= 10 else found[:3] + found[-7:]

    def words(trouble):
        try:
            text = trouble.msg if isinstance(trouble, SyntaxError) and type(trouble.msg) is str else str(trouble)
        except BaseException:
            text = ''
        return type(trouble).__name__ + (': ' + text[:300] if text else '')

    try:
        for file in os.listdir(home):
            if os.path.isfile(home + '/' + file):
                os.remove(home + '/' + file)
        for file in job['files'] + job['inputFiles']:
            with open(home + '/' + file['name'], 'w', newline='') as out:
                out.write(file['text'])
        for file in job['files']:
            lengths[file['name']] = file['text'].count('\\n') + 1
            sys.modules.pop(file['name'].removesuffix('.py'), None)
        main = job['files'][0]
        streams = name is None
        bytes_in = job['input'].encode('utf-8', 'surrogatepass') if streams else b''
        sys.stdin = io.TextIOWrapper(io.BytesIO(bytes_in), encoding='utf-8', errors='replace')
        scope = {'__name__': '__main__', '__file__': main['name']}
    except MemoryError:
        return dumps({'memory': True})
    except BaseException:
        return fault('disturbed')
    try:
        exec(compile(main['text'], main['name'], 'exec'), scope)
        if streams:
            return dumps({'value': None})
        if not callable(scope.get(name)):
            return fault('noFunction', name)
        value = scope[name](*[given(one) for one in loads(job['input'])])
        if inspect.iscoroutine(value):
            try:
                while value.send(None) is None:
                    pass
                value.close()
                return fault('waits')
            except StopIteration as end:
                value = end.value
        try:
            return dumps({'value': tagged(value, 0)})
        except (Deep, RecursionError):
            return fault('tooDeep')
        except Odd as odd:
            return fault('notComparable', odd)
    except MemoryError:
        return dumps({'memory': True})
    except SystemExit as end:
        if streams and end.code in (None, 0):
            return dumps({'value': None})
        return fault('endedItself')
    except BaseException as trouble:
        return fault('thrown', words(trouble), places(trouble))
`;

/** Before anything else: a program learns nothing of where it runs, and its clock says UTC. */
export const PYTHON_SETTINGS = `
import os, sys
os.environ.clear()
os.environ.update({'HOME': '/home/program', 'LANG': 'C.UTF-8', 'TZ': 'UTC'})
sys.executable = sys._base_executable = ''
sys.argv = sys.orig_argv = ['program.py']
sys.dont_write_bytecode = True
os.makedirs('/home/program', exist_ok=True)
os.chdir('/home/program')
sys.path.insert(0, '/home/program')
`;
