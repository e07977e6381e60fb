import { error, flood, greedy, slow, stopped, value, type Attack } from './attack';

const js = (body: string) => `function f(n) { ${body} }`;

export const javascriptAttacks: readonly Attack[] = [
  ['asks for the process', js('return process.env'), error],
  ['asks for a module', js('return require("fs").readFileSync("/etc/passwd", "utf8")'), error],
  [
    'imports a module',
    'async function f() { return (await import("fs")).readFileSync("/etc/passwd", "utf8") }',
    error,
  ],
  ['imports one of the engine', 'async function f() { return String(await import("std")) }', error],
  [
    'lists what is there of a host',
    js(
      'return ["process", "require", "fetch", "std", "os", "WebAssembly", "__write"].filter((x) => x in globalThis)',
    ),
    value([]),
  ],
  [
    'builds a function from a string',
    js('return typeof new Function("return this")().process'),
    value('undefined'),
  ],
  [
    'breaks out of the wrapper',
    '})(); globalThis.leak = 1; (function () {\nfunction f() { return typeof process }',
    value('undefined'),
  ],
  ['calls the harness’s caller', js('return String(f.caller && f.caller.name)'), ['returned', 'error']],
  [
    'asks a stack where it is',
    js('return ["/work", "/usr", "node:", "dist/"].filter((w) => new Error("x").stack.includes(w))'),
    value([]),
  ],
  ['asks for the time zone', js('return new Date(0).getTimezoneOffset()'), value(0)],
  ['loops for ever', js('for (;;);'), slow],
  ['makes promises for ever', js('const g = () => Promise.resolve().then(g); g(); for (;;) g()'), stopped],
  ['awaits for ever', 'async function f() { for (;;) await null }', slow],
  ['promises and never settles', js('return new Promise(() => {})'), error],
  ['is a thenable that never answers', js('return { then() {} }'), error],
  ['compares for ever', js('return [1, 2, 3].sort(() => { for (;;); })'), slow],
  ['matches a catastrophic pattern', js('return /^(a+)+$/.test("a".repeat(40) + "b")'), stopped],
  ['computes a tower of powers', js('return String(9n ** 9n ** 8n).length'), stopped],
  ['takes memory', js('const a = []; for (;;) a.push(new Uint8Array(1 << 20).fill(1))'), greedy],
  ['takes memory in strings', js('let s = "x"; for (;;) s += s + Math.random()'), stopped],
  [
    'takes memory in one piece',
    js('return new ArrayBuffer(2 ** 31).byteLength'),
    ['too-much-memory', 'error'],
  ],
  ['calls itself for ever', js('return f(n) + 1'), error],
  ['prints for ever', js('for (;;) console.log("x".repeat(10000))'), flood],
  [
    'prints more than it may in characters of four bytes',
    js('console.log("𝄞".repeat(6000)); return 1'),
    flood,
  ],
  ['returns 20 MB', js('return "x".repeat(2e7)'), flood],
  [
    'returns 300,000 keys',
    js('const o = {}; for (let i = 0; i < 3e5; i++) o[i] = i; return o'),
    ['too-much-output', 'too-slow', 'too-much-memory'],
  ],
  [
    'returns a list in a list in a list',
    js('let a = []; for (let i = 0; i < 5000; i++) a = [a]; return a'),
    error,
  ],
  ['returns a circle', js('const a = []; a.push(a); return a'), error],
  ['returns what is no number', js('return NaN'), value(NaN)],
  ['returns what JSON would lose', js('return new Map([[1, 2]])'), value({ 1: 2 })],
  [
    'replaces how values are written',
    'JSON.stringify = () => "FORGED"; Object.prototype.toJSON = () => "FORGED"; function f() { return 7 }',
    value(7),
  ],
  [
    'replaces the methods of lists',
    'Array.prototype.map = Array.prototype.join = () => "FORGED"; Object.keys = () => []; function f() { return [7] }',
    value([7]),
  ],
  ['returns something that watches', js('return new Proxy({}, { ownKeys() { for (;;); } })'), slow],
  ['throws nothing', js('throw null'), error],
  [
    'throws something that throws',
    js('throw { get message() { throw 1 }, get name() { for (;;); } }'),
    ['error', 'too-slow'],
  ],
  [
    'waits in shared memory',
    js('return Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0)'),
    error,
  ],
  ['is not a program', '}{', error],
];

export const typescriptAttacks: readonly Attack[] = [
  [
    'is nested more deeply than can be read',
    `function f(n: number) { return ${'('.repeat(20_000)}1${')'.repeat(20_000)} }`,
    [...stopped, 'returned'],
  ],
  [
    'asks for the process by its type',
    'declare const process: { env: object };\nfunction f(n: number): object { return process.env }',
    error,
  ],
  [
    'imports for its effect',
    'import fs from "fs";\nfunction f(n: number): string { return fs.readFileSync("/etc/passwd", "utf8") }',
    error,
  ],
  ['loops for ever', 'function f(n: number): never { for (;;); }', slow],
];

export const sqlAttacks: readonly Attack[] = [
  [
    'counts for ever',
    'with recursive n(i) as (select 1 union all select i + 1 from n) select count(*) from n',
    slow,
  ],
  [
    'gives more rows than it may',
    'with recursive n(i) as (select 1 union all select i + 1 from n limit 1000000) select i, hex(randomblob(20)) from n',
    ['too-much-output', 'too-slow'],
  ],
  [
    'attaches a file of the machine',
    "attach '/etc/passwd' as x; select * from x.sqlite_master",
    ['error', 'returned'],
  ],
  ['reads a file by a function', "select readfile('/etc/passwd')", error],
  ['loads an extension', "select load_extension('/usr/lib/x.so')", error],
  ['writes the database to a file', "vacuum into '/tmp/x'; select 1 as one", ['error', 'returned']],
  ['takes memory', 'select length(hex(zeroblob(400000000)))', stopped],
  ['returns bytes', "select x'00ff' as b", value({ columns: ['b'], rows: [['00ff']] })],
  ['returns more than a number holds', 'select 9007199254740993 as n', ['returned']],
  ['returns infinity', 'select 9e999 as n', ['returned']],
  ['is not a query', 'selekt 1', error],
];
