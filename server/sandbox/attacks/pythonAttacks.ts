import { error, flood, greedy, slow, stopped, value, type Attack } from './attack';

const py = (body: string, before = '') => `${before}\ndef f(n):\n    ${body.trim().replace(/\n/g, '\n    ')}`;
const JS = 'import pyodide_js\nBytes = pyodide_js._module.HEAPU8.constructor';

/** What the machine holds: files, processes, the network, the server's own memory. */
const reach: Attack[] = [
  ['reads a file of the machine', py('return open("/etc/passwd").read()'), error],
  [
    'lists the root',
    py('return [x for x in os.listdir("/") if x in ("etc", "work", "root", "usr")]', 'import os'),
    value([]),
  ],
  ['reads its own environment from /proc', py('return open("/proc/self/environ").read()'), error],
  ['asks for the environment', py('return sorted(os.environ)', 'import os'), value(['HOME', 'LANG', 'TZ'])],
  [
    'asks where Python is',
    py('return [sys.executable, sys.argv, [p for p in sys.path if p and "python3" not in p]]', 'import sys'),
    value(['', ['program.py'], ['/home/program']]),
  ],
  [
    'asks for the time zone',
    py('return [time.localtime(0).tm_hour, time.timezone]', 'import time'),
    value([0, 0]),
  ],
  ['imports the host’s names', py('return str(js.process.env)', 'import js'), error],
  [
    'looks for the host through js',
    py('import js\nreturn [x for x in dir(js) if x in ("process", "require", "fetch", "Deno", "global")]'),
    value([]),
  ],
  [
    'runs JavaScript by pyodide.code',
    py('return str(run_js("process.env"))', 'from pyodide.code import run_js'),
    error,
  ],
  [
    'builds a function from a string',
    py('return str(pyodide_js.constructor.constructor("return process")())', JS),
    error,
  ],
  [
    'builds one through an array',
    py('return str(Bytes.constructor("return this.process.env")())', JS),
    error,
  ],
  [
    'imports a module of the host',
    py('return str(pyodide_js._module.constructor.constructor("return import(\'fs\')")())', JS),
    error,
  ],
  [
    'mounts a folder of the machine',
    py('pyodide_js.mountNodeFS("/h", "/etc")\nreturn open("/h/passwd").read()', JS),
    error,
  ],
  [
    'mounts one by the file system itself',
    py(
      'fs = pyodide_js._module.FS\nfs.mkdir("/h")\nfs.mount(fs.filesystems.NODEFS, {"root": "/etc"}, "/h")\nreturn open("/h/passwd").read()',
      JS,
    ),
    error,
  ],
  [
    'loads a package from outside',
    py(
      'import asyncio\nreturn str(asyncio.get_event_loop().run_until_complete(pyodide_js.loadPackage("numpy")))',
      JS,
    ),
    error,
  ],
  [
    'starts a process',
    py('return subprocess.run(["id"], capture_output=True).stdout.decode()', 'import subprocess'),
    error,
  ],
  ['starts a shell', py('return os.system("id")', 'import os'), ['error', 'returned']],
  ['forks', py('return os.fork()', 'import os'), error],
  ['becomes another program', py('os.execv("/bin/sh", ["sh"])', 'import os'), error],
  [
    'kills the process that runs it',
    py('os.kill(os.getppid(), 9)\nreturn 1', 'import os'),
    ['error', 'returned'],
  ],
  [
    'starts a thread',
    py('t = threading.Thread(target=print)\nt.start()\nreturn 1', 'import threading'),
    error,
  ],
  [
    'opens a socket',
    py('s = socket.socket()\ns.settimeout(0.2)\ns.connect(("127.0.0.1", 1))\nreturn 1', 'import socket'),
    error,
  ],
  [
    'asks for a page',
    py('return urllib.request.urlopen("http://127.0.0.1:1/").read()', 'import urllib.request'),
    error,
  ],
  [
    'asks for a page the other way',
    py('return pyodide.http.open_url("http://127.0.0.1:1/").read()', 'import pyodide.http'),
    error,
  ],
  [
    'looks through its frames for what is expected',
    py(
      'frame = sys._getframe()\nnames = []\nwhile frame:\n    names += [x for x in frame.f_locals if x in ("expected", "key", "cases")]\n    frame = frame.f_back\nreturn names',
      'import sys',
    ),
    value([]),
  ],
  ['reads memory where it likes', py('return len(ctypes.string_at(0xfffffff0))', 'import ctypes'), error],
  ['reads past the end of a file descriptor', py('return len(os.read(5, 100))', 'import os'), error],
  [
    'opens its own channels',
    py('return [x for x in os.listdir("/proc/self/fd")]', 'import os'),
    ['error', 'returned'],
  ],
];

/** What would spoil the machine for others. */
const burden: Attack[] = [
  ['loops for ever', py('while True:\n    pass'), slow],
  [
    'loops and catches everything',
    py('while True:\n    try:\n        while True: pass\n    except BaseException: pass'),
    slow,
  ],
  ['loops at import', 'while True: pass\ndef f(n):\n    return 1', slow],
  ['sleeps for an hour', py('time.sleep(3600)', 'import time'), slow],
  ['computes a tower of powers', py('return len(str(9 ** 9 ** 8))'), stopped],
  [
    'matches a catastrophic pattern',
    py('return bool(re.match(r"(a+)+$", "a" * 40 + "b"))', 'import re'),
    slow,
  ],
  ['takes memory in Python', py('a = []\nwhile True: a.append(bytearray(1 << 24))'), greedy],
  [
    'takes memory and goes on',
    py('a = []\ntry:\n    while True: a.append(bytearray(1 << 24))\nexcept MemoryError: return len(a)'),
    greedy,
  ],
  ['takes memory bit by bit', py('a = [0]\nwhile True: a += a'), greedy],
  [
    'takes memory beside Python',
    py('a = []\nfor i in range(64):\n    b = Bytes.new(1 << 26); b.fill(1); a.append(b)\nreturn len(a)', JS),
    stopped,
  ],
  [
    'takes one large piece beside Python',
    py('b = Bytes.new(1 << 31); b.fill(1)\nreturn b.length', JS),
    stopped,
  ],
  [
    'fills a file that lies in memory',
    py('g = open("/tmp/x", "wb")\nb = b"x" * (1 << 24)\nfor i in range(128): g.write(b)\nreturn g.tell()'),
    stopped,
  ],
  ['makes a second memory', py('pyodide_js._module.wasmMemory.grow(4000)\nreturn 1', JS), stopped],
  [
    'unpacks a bomb',
    py('return len(zlib.decompress(zlib.compress(b"0" * (1 << 28))))', 'import zlib'),
    stopped,
  ],
  ['calls itself for ever', py('return f(n + 1)'), error],
  [
    'calls itself for ever without a limit',
    py('sys.setrecursionlimit(10 ** 9)\nreturn f(n + 1) + 1', 'import sys'),
    stopped,
  ],
  ['prints for ever', py('while True: print("x" * 10000)'), flood],
  ['writes errors for ever', py('while True: sys.stderr.write("x" * 10000)', 'import sys'), flood],
  ['prints more than it may in characters of four bytes', py('print("𝄞" * 6000)\nreturn 1'), flood],
  ['returns 20 MB', py('return "x" * 20_000_000'), flood],
  ['returns 300,000 keys', py('return {str(i): i for i in range(300000)}'), flood],
  ['returns a list in a list in a list', py('a = []\nfor i in range(900): a = [a]\nreturn a'), error],
  ['aborts the engine', py('os.abort()', 'import os'), error],
  ['ends the engine', py('os._exit(0)', 'import os'), error],
  ['ends itself', py('sys.exit(0)', 'import sys'), error],
  [
    'raises a signal',
    py('signal.raise_signal(signal.SIGKILL)\nreturn 1', 'import signal'),
    ['error', 'returned'],
  ],
  ['aborts by the engine’s own hook', py('pyodide_js._module.abort("x")\nreturn 1', JS), error],
];

/** What would make it look right, or spoil what is said of it. */
const deceit: Attack[] = [
  [
    'replaces how values are written',
    'import json\njson.dumps = lambda *a, **k: \'{"value": 1, "accepted": true}\'\ndef f(n):\n    return 7',
    value(7),
  ],
  [
    'replaces the encoder',
    'import json.encoder\njson.encoder.JSONEncoder.encode = lambda *a: "x" * 10\ndef f(n):\n    return 7',
    ['error', 'returned'],
  ],
  ['writes a reply to the output', py('print(\'{"value": 42}\')\nreturn 7'), value(7)],
  [
    'writes a frame to every descriptor',
    py(
      'for d in range(3, 12):\n    try: os.write(d, b"\\0" * 64)\n    except OSError: pass\nreturn 7',
      'import os',
    ),
    value(7),
  ],
  [
    'gives every object a toJSON',
    py(
      'try: Bytes.prototype.toJSON = create_proxy(lambda *a: "FORGED")\nexcept BaseException: pass\nreturn 7',
      `${JS}\nfrom pyodide.ffi import create_proxy`,
    ),
    value(7),
  ],
  [
    'sets a hook for stacks',
    py(
      'E = pyodide_js._module.constructor\ntry: pyodide_js._api.constructor.prototype.x = 1\nexcept BaseException: return "frozen"\nreturn "open"',
      JS,
    ),
    value('frozen'),
  ],
  [
    'asks an error for its stack',
    py(
      'try: pyodide_js._module.HEAPU8.subarray.call(1)\nexcept BaseException as e: return [w for w in ("/work", "/usr", "node:", "dist/") if w in str(getattr(e, "stack", ""))]',
      JS,
    ),
    value([]),
  ],
  [
    'replaces the harness',
    'import __main__\n__main__.__clear_sitting_case = lambda *a: \'{"value": 42}\'\ndef f(n):\n    return 7',
    value(7),
  ],
  [
    'changes what its caller holds',
    py('sys._getframe(1).f_locals["value"] = 42\nreturn 7', 'import sys'),
    value(7),
  ],
  [
    'leaves something for the end',
    'import atexit\natexit.register(lambda: print("late"))\nclass D:\n    def __del__(self): print("later")\nkept = D()\ndef f(n):\n    return 7',
    value(7),
  ],
  [
    'closes its output',
    py('sys.stdout.close()\nos.close(1)\nos.close(2)\nreturn 7', 'import os, sys'),
    ['returned', 'error'],
  ],
  ['replaces its output', py('sys.stdout = sys.stderr = None\nreturn 7', 'import sys'), value(7)],
  [
    'prints halves of characters',
    py('sys.stdout.buffer.write(b"\\xf0\\x9f\\x00\\xff")\nreturn 7', 'import sys'),
    value(7),
  ],
  ['returns half a character', py('return "\\ud800"'), ['returned', 'error']],
  ['returns what is no number', py('return float("nan")'), value(NaN)],
  ['returns an object of its own', py('return object()'), error],
  [
    'returns a coroutine that waits',
    'import asyncio\nasync def f(n):\n    await asyncio.sleep(1)\n    return 7',
    error,
  ],
  ['follows every call', 'import sys\nsys.settrace(lambda *a: None)\ndef f(n):\n    return 7', value(7)],
  ['hides its function', 'f = 7', error],
  ['is not a program', 'def f(n:', error],
  ['holds a zero byte', 'def f(n):\n    return "\0"', ['error', 'returned']],
];

export const pythonAttacks: readonly Attack[] = [...reach, ...burden, ...deceit];
