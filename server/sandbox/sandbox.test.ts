import { existsSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CaseOutcome, Json, ProgramRun } from '../../core/kinds/evidence';
import { findWrapping } from './child';
import { clampWasmMemory } from './clampWasmMemory';
import { parseReply } from './parseReply';
import { Sandbox } from './sandbox';

const folder = path.resolve('dist/sandbox');
const sandbox = new Sandbox(folder);
let listener: Server;
let reached = 0;
let port = 0;

beforeAll(async () => {
  listener = createServer((_, response) => {
    reached++;
    response.end('reached');
  }).listen(0, '127.0.0.1');
  await new Promise((resolve) => listener.once('listening', resolve));
  port = (listener.address() as AddressInfo).port;
  await sandbox.warmUp();
});
afterAll(() => {
  sandbox.close();
  listener.close();
});

async function runOne(
  language: ProgramRun['language'],
  program: string,
  args: Json[] = [1],
): Promise<CaseOutcome> {
  const limits = { milliseconds: 1500, megabytes: 64, outputBytes: 20_000 };
  const cases = [{ key: 'only', arguments: args }];
  return (await sandbox.run({ language, program, functionName: 'f', cases, limits }))[0]!;
}

describe('programs that do what is asked', () => {
  it.each([
    ['python', 'def f(lots):\n    return max(lots, key=lambda l: l["up"])["name"]'],
    ['javascript', 'function f(lots) { return lots.reduce((a, b) => (b.up > a.up ? b : a)).name }'],
  ] as const)('%s returns a value', async (language, program) => {
    const lots = [
      { name: 'K-1', up: 3 },
      { name: 'K-2', up: 8 },
    ];
    expect(await runOne(language, program, [lots])).toMatchObject({ result: 'returned', value: 'K-2' });
  });

  it('keeps printed text beside the value', async () => {
    const outcome = await runOne('python', 'def f(n):\n    print("n is", n)\n    return n + 1');
    expect(outcome).toMatchObject({ result: 'returned', value: 2, printed: 'n is 1\n' });
    expect(await runOne('javascript', 'const f = (n) => { console.log({ n }); return n + 1 }')).toMatchObject(
      {
        value: 2,
        printed: '{"n":1}\n',
      },
    );
  });

  it.each([
    ['python', 'def f(n):\n    return n / 0', 'ZeroDivisionError: division by zero (line 2)'],
    ['python', 'def f(n:\n    pass', 'SyntaxError'],
    ['python', 'x = 1', 'there is no function f'],
    ['javascript', 'function f() { return nothing.at.all }', 'ReferenceError'],
    ['javascript', '}{', 'SyntaxError'],
  ] as const)('%s: says what went wrong', async (language, program, message) => {
    const outcome = await runOne(language, program);
    expect(outcome.result).toBe('error');
    expect(outcome.result === 'error' && outcome.message).toContain(message);
  });
});

/* Each attack must end as an error or at a limit, or return only what a program can know by itself. */
const secret = /root:|PATH=|\/work|HOME/;
describe.each([
  ['python: read a file', 'python', 'def f(n):\n    return open("/etc/passwd").read()', 'error'],
  [
    'python: list the root',
    'python',
    'import os\ndef f(n):\n    return [x for x in os.listdir("/") if x in ("etc", "work", "root")]',
    [],
  ],
  [
    'python: the environment',
    'python',
    'import os\ndef f(n):\n    return [k for k in os.environ if k in ("PATH_INFO", "SSL_CERT_FILE", "NODE_CHANNEL_FD")]',
    [],
  ],
  ['python: the host through js', 'python', 'import js\ndef f(n):\n    return str(js.process.env)', 'error'],
  [
    'python: code from a string',
    'python',
    'import pyodide_js\ndef f(n):\n    return str(pyodide_js.constructor.constructor("return process")())',
    'error',
  ],
  [
    'python: mount the host',
    'python',
    'import pyodide_js\ndef f(n):\n    pyodide_js.mountNodeFS("/h", "/etc")\n    return open("/h/passwd").read()',
    'error',
  ],
  [
    'python: spawn',
    'python',
    'import subprocess\ndef f(n):\n    return subprocess.run(["id"], capture_output=True).stdout.decode()',
    'error',
  ],
  [
    'python: endless loop',
    'python',
    'def f(n):\n    while True:\n        try:\n            while True: pass\n        except BaseException: pass',
    'too-slow',
  ],
  [
    'python: memory',
    'python',
    'def f(n):\n    a = []\n    while True: a.append(bytearray(1 << 24))',
    'too-much-memory',
  ],
  ['python: flood', 'python', 'def f(n):\n    while True: print("x" * 10000)', 'too-much-output'],
  ['python: hard exit', 'python', 'import os\ndef f(n):\n    os._exit(0)', 'error'],
  ['javascript: the host', 'javascript', 'function f() { return process.env }', 'error'],
  [
    'javascript: a module',
    'javascript',
    'function f() { return require("fs").readFileSync("/etc/passwd", "utf8") }',
    'error',
  ],
  ['javascript: endless loop', 'javascript', 'function f() { for (;;); }', 'too-slow'],
  [
    'javascript: endless promise',
    'javascript',
    'function f() { const g = () => Promise.resolve().then(g); g(); for (;;) g() }',
    'too-slow|too-much-memory|error',
  ],
  [
    'javascript: memory',
    'javascript',
    'function f() { const a = []; for (;;) a.push(new Uint8Array(1 << 20)) }',
    'too-much-memory|error',
  ],
  [
    'javascript: flood',
    'javascript',
    'function f() { for (;;) console.log("x".repeat(10000)) }',
    'too-much-output',
  ],
] as const)('attack – %s', (_, language, program, expected) => {
  it('gets nowhere', async () => {
    const outcome = await runOne(language, program);
    expect(JSON.stringify(outcome)).not.toMatch(secret);
    if (typeof expected === 'string') expect(outcome.result).toMatch(new RegExp(`^(${expected})$`));
    else expect(outcome).toMatchObject({ result: 'returned', value: expected });
  });
});

describe('attacks on what is around the box', () => {
  it('no network is reached', async () => {
    const python = `import socket\ndef f(n):\n    s = socket.socket(); s.settimeout(0.5); s.connect(("127.0.0.1", ${port})); s.send(b"GET / HTTP/1.0\\r\\n\\r\\n"); return 1`;
    await runOne('python', python);
    await runOne(
      'python',
      `import pyodide.http\ndef f(n):\n    return pyodide.http.open_url("http://127.0.0.1:${port}/").read()`,
    );
    await runOne('javascript', `function f() { return fetch("http://127.0.0.1:${port}/") }`);
    expect(reached).toBe(0);
  });

  it('nothing of one case or submission reaches the next', async () => {
    await runOne('python', 'import builtins\nbuiltins.left_behind = 7\ndef f(n):\n    return 1');
    const next = await runOne(
      'python',
      'import builtins\ndef f(n):\n    return hasattr(builtins, "left_behind")',
    );
    expect(next).toMatchObject({ result: 'returned', value: false });
  });

  it('a slow case costs only itself', async () => {
    const outcomes = await sandbox.run({
      language: 'javascript',
      program: 'function f(n) { if (n === 1) for (;;); return n }',
      functionName: 'f',
      cases: [0, 1, 2].map((n) => ({ key: `c${n}`, arguments: [n] })),
      limits: { milliseconds: 300, megabytes: 64, outputBytes: 1000 },
    });
    expect(outcomes.map((o) => o.result)).toEqual(['returned', 'too-slow', 'returned']);
  });

  it('forged and malformed messages are errors of the program', () => {
    const honest = { index: 3, reply: '{"value":1}', limit: 'none', printed: '', milliseconds: 1 };
    expect(parseReply(honest, 3, 'k', 5)).toMatchObject({ result: 'returned', value: 1 });
    const forged = [
      null,
      'accepted',
      { ...honest, index: 4 },
      { ...honest, verdict: 'accepted' },
      { ...honest, limit: 'passed' },
      { ...honest, reply: '{"value":1' },
      { ...honest, reply: '{"value":1,"accepted":true}' },
      { ...honest, reply: '"x"'.repeat(1 << 20) },
      { ...honest, milliseconds: '0' },
    ];
    for (const message of forged) expect(parseReply(message, 3, 'k', 5).result).toBe('error');
    expect(parseReply({ ...honest, milliseconds: 9e9 }, 3, 'k', 5).milliseconds).toBe(5);
  });

  it('names its wrapping, and works without any', async () => {
    expect(typeof findWrapping().prlimit).toBe('boolean');
    const bare = new Sandbox(folder, { prlimit: false, bubblewrap: false });
    const cases = [{ key: 'a', arguments: [2] }];
    const limits = { milliseconds: 1000, megabytes: 64, outputBytes: 1000 };
    const program = 'def f(n):\n    return open("/etc/passwd").read()';
    const [outcome] = await bare.run({ language: 'python', program, functionName: 'f', cases, limits });
    expect(outcome!.result).toBe('error');
    bare.close();
  });

  it('clamps only binaries that have a memory', () => {
    expect(existsSync(path.join(folder, 'python.snapshot'))).toBe(true);
    // magic, version, memory section (5) of 3 bytes: one memory, no maximum, at least 1 page
    const module = Uint8Array.from([0, 0x61, 0x73, 0x6d, 1, 0, 0, 0, 5, 3, 1, 0, 1]);
    const clamped = clampWasmMemory(module, 200);
    // now flags 1 with maximum 200 = 0xc8 0x01 in LEB128, so the section has 5 bytes
    expect([...clamped.slice(8)]).toEqual([5, 5, 1, 1, 1, 0xc8, 1]);
    expect(() => clampWasmMemory(module.slice(0, 8), 200)).toThrow('no memory');
  });
});
