import { spawn, type ChildProcess } from 'node:child_process';
import {
  appendFileSync,
  cpSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  readlinkSync,
  rmSync,
} from 'node:fs';
import { setPriority, tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import type { CaseOutcome, Json, ProgramRun } from '../../core/kinds/evidence';
import type { ProgramLanguage } from '../../core/programs/languages';
import { plainOutcome, runOf, usualLimits } from '../../core/testing/programRuns';
import { livingProcesses, processesBelow } from '../testing/processes';
import { clampWasmMemory } from './clampWasmMemory';
import { findWalls } from './lanes/walls';
import { NICENESS } from './processes/niceness';
import { MachineTrouble, Sandbox } from './sandbox';

const folder = path.resolve('dist/sandbox');
const walls = { ...findWalls(), bubblewrap: null };
/** Outcomes with their values as JSON. */
const ran = async (box: Sandbox, run: ProgramRun, owner?: string) =>
  (await box.run(run, owner)).map((outcome) => plainOutcome(outcome) as CaseOutcome);

const burners: ChildProcess[] = [];
/** Keeps cores busy, with the same right to them as a program of the box has: the other tests go on meanwhile. */
const burn = (count: number) => {
  for (let i = 0; i < count; i++) {
    const burner = spawn(process.execPath, ['-e', 'for (;;);'], { stdio: 'ignore' });
    setPriority(burner.pid!, NICENESS);
    burners.push(burner);
  }
};
afterEach(() => burners.splice(0).forEach((one) => one.kill('SIGKILL')));

const lots = [
  { name: 'K-1', up: 3 },
  { name: 'K-2', up: 8 },
];
const LEAVES = `
import builtins, json, math, os, random, sys
try:
    import pyodide_js
    engine = pyodide_js._module
except ImportError:
    engine = None
def f(n):
    seen = [hasattr(builtins, 'left'), 'left' in sys.modules, os.path.exists('/tmp/left'), math.pi == 3,
            os.environ.get('LEFT'), getattr(engine, 'left', None), sys.getrecursionlimit()]
    builtins.left = 1; sys.modules['left'] = sys; open('/tmp/left', 'w').write('x'); math.pi = 3
    os.environ['LEFT'] = '1'; engine.left = 7; sys.setrecursionlimit(4321); json.dumps = lambda *a, **k: '{"value":"spoiled"}'
    return seen`;
const LEAVES_JAVASCRIPT = `
globalThis.left = (globalThis.left ?? 0) + 1;
Array.prototype.left = (Array.prototype.left ?? 0) + 1;
const f = () => [globalThis.left, [].left]`;

describe.each([['best'], ['portable']] as const)('the sandbox (%s)', (rule) => {
  const box = new Sandbox(folder, { rule, walls });
  const one = async (language: ProgramLanguage, program: string, given: Json[] = [1]): Promise<CaseOutcome> =>
    (await ran(box, runOf(language, program, [given])))[0]!;
  beforeAll(() => box.warmUp());
  afterAll(() => box.close());

  it.each([
    ['python', 'def f(lots):\n    return max(lots, key=lambda l: l["up"])["name"]'],
    [
      'python',
      'async def g(lots):\n    return lots[1]["name"]\nasync def f(lots):\n    return await g(lots)',
    ],
    ['javascript', 'function f(lots) { return lots.reduce((a, b) => (b.up > a.up ? b : a)).name }'],
    ['javascript', 'const f = async (lots) => { await null; return lots[1].name }'],
    [
      'typescript',
      'enum E { A }\nfunction f(lots: { name: string; up: number }[]): string { return lots[1]!.name }',
    ],
  ] as const)('%s returns a value: %s', async (language, program) => {
    expect(await one(language, program, [lots])).toMatchObject({ result: 'returned', value: 'K-2' });
  });

  it('is not held up by what a program leaves behind in its engine: every case has its verdict, and so have others', async () => {
    // A promise of the engine that is settled goes on as soon as anything is waited for, outside of any case.
    const program = `
from pyodide.ffi import create_proxy
import pyodide_js
def forever(*_):
    while True:
        pass
def f(n):
    pyodide_js._api.lockFilePromise.then(create_proxy(forever))
    return n`;
    const run = runOf('python', program, [[1], [2]], { milliseconds: 1000 });
    const [first, again, honest] = await Promise.all([
      ran(box, run, 'a'),
      ran(box, run, 'a'),
      ran(box, runOf('python', 'def f(n):\n    return n + 1', [[41]]), 'b'),
    ]);
    for (const outcomes of [first, again]) {
      expect(outcomes).toHaveLength(2);
      for (const { result } of outcomes) expect(['returned', 'error', 'too-slow']).toContain(result);
    }
    expect(honest).toMatchObject([{ result: 'returned', value: 42 }]);
    expect(box.health().trouble).toBeNull();
  }, 120_000);

  it('answers a query by the rows of its last statement', async () => {
    const setUp = "create table lot (name text, up int); insert into lot values ('K-1', 3), ('K-2', 8);";
    const outcome = await one(
      'sql',
      'update lot set up = up + 1; select name, up from lot order by up desc',
      [setUp],
    );
    expect(outcome).toMatchObject({
      value: {
        columns: ['name', 'up'],
        rows: [
          ['K-2', 9],
          ['K-1', 4],
        ],
      },
    });
  });

  it.each([
    ['python', 'def f(n):\n    return n / 0', 'thrown', 'ZeroDivisionError: division by zero', 2],
    ['python', 'def f(n:\n    pass', 'thrown', "SyntaxError: '(' was never closed", 1],
    ['python', 'e = SyntaxError("own")\ne.lineno = 10 ** 30\nraise e', 'thrown', 'SyntaxError: own', 3],
    ['python', 'x = 1', 'noFunction', 'f', null],
    ['python', 'def f(n):\n    return object()', 'notComparable', 'object', null],
    ['javascript', 'function f() {\n return nothing.at.all }', 'thrown', "ReferenceError: 'nothing'", 2],
    ['javascript', 'const f = () => Symbol("a")', 'notComparable', 'symbol', null],
    ['javascript', 'const f = async () => { throw new TypeError("no") }', 'thrown', 'TypeError: no', null],
    ['typescript', 'function f(n: number) { return <<< }', 'thrown', 'SyntaxError: Unexpected token', 1],
    ['sql', 'select 1\0, absent', 'nulCharacter', '', null],
    ['sql', 'select absent', 'thrown', 'no such column: absent', null],
  ] as const)('%s says what went wrong: %s', async (language, program, fault, text, line) => {
    const outcome = await one(language, program, language === 'sql' ? [''] : [1]);
    const at = line === null ? [] : [expect.objectContaining({ line })];
    expect(outcome).toMatchObject({ result: 'error', fault, at });
    expect(outcome.result === 'error' && outcome.text).toContain(text);
  });

  it('gives whole numbers as they are, however long, and texts with a NUL whole', async () => {
    const outcomes = await box.run(
      runOf('python', 'def f(n):\n    return [2 ** 53 + 1, 10 ** 400, n]', [['9']]),
    );
    expect(outcomes).toMatchObject([
      { value: ['l', ['i', '9007199254740993'], ['i', `1${'0'.repeat(400)}`], '9'] },
    ]);
    const [sql] = await box.run(runOf('sql', "select 'a' || char(0) || 'b', 9007199254740993", [['']]));
    expect(sql).toMatchObject({
      value: ['m', 'columns', {}, 'rows', ['l', ['l', 'a\0b', ['i', '9007199254740993']]]],
    });
  });

  it('runs a program that reads an input and writes an output, with its other files and the files of its case', async () => {
    const python = {
      language: 'python',
      files: [
        {
          name: 'program.py',
          text: 'import sys, store\nprint(store.twice(int(input())))\nprint(open("more.txt").read(), file=sys.stderr)',
        },
        { name: 'store.py', text: 'def twice(n):\n    return 2 * n' },
      ],
    } as const;
    const typescript = {
      language: 'typescript',
      files: [
        {
          name: 'program.ts',
          text: 'import { twice } from "./store";\nconsole.log(twice(Number(readLine())), readLine(), readFile("more.txt"));',
        },
        { name: 'store.ts', text: 'export const twice = (n: number): number => 2 * n;' },
      ],
    } as const;
    const cases = [{ key: 'a', input: '21\n', files: [{ name: 'more.txt', text: 'more' }] }];
    const of = (program: Pick<ProgramRun, 'language' | 'files'>) =>
      box.run({ ...program, functionName: null, cases, limits: usualLimits });
    expect(await of(python)).toMatchObject([{ value: '42\n', printed: 'more\n' }]);
    expect(await of(typescript)).toMatchObject([{ value: '42 null more\n' }]);
    const broken = {
      ...python,
      files: [python.files[0], { name: 'store.py', text: 'def twice(n):\n    return n / 0' }],
    };
    expect(await of(broken)).toMatchObject([
      {
        at: [
          { file: 'program.py', line: 2, in: '' },
          { file: 'store.py', line: 2, in: 'twice' },
        ],
      },
    ]);
  });

  it('keeps what is printed, counted in bytes', async () => {
    // Ten characters of four bytes each: 40 bytes.
    const print = 'def f(n):\n    print("𝄞" * 10, end="")\n    return 1';
    const [within] = await ran(box, runOf('python', print, [[1]], { outputBytes: 40 }));
    expect(within).toMatchObject({ result: 'returned', printed: '𝄞'.repeat(10) });
    const log = 'const f = () => { console.log("𝄞".repeat(10)); return 1 }';
    for (const [language, program] of [
      ['python', print],
      ['javascript', log],
    ] as const) {
      const [beyond] = await ran(box, runOf(language, program, [[1]], { outputBytes: 39 }));
      expect(beyond!.result).toBe('too-much-output');
    }
  });

  it('runs every case in a state in which nothing has run', async () => {
    const python = await ran(box, runOf('python', LEAVES, [[1], [2], [3]]));
    const [first] = python;
    expect(first).toMatchObject({
      result: 'returned',
      value: [false, false, false, false, null, null, 1000],
    });
    for (const outcome of python) expect(outcome).toMatchObject({ value: (first as { value: Json }).value });
    const javascript = await ran(box, runOf('javascript', LEAVES_JAVASCRIPT, [[1], [2], [3]]));
    for (const outcome of javascript) expect(outcome).toMatchObject({ value: [1, 1] });
  });

  it('draws by chance again in every case', async () => {
    const python = 'import os, random\ndef f(n):\n    return [random.random(), os.urandom(8).hex()]';
    const draws = await ran(box, runOf('python', python, [[1], [2]]));
    const more = await ran(box, runOf('javascript', 'const f = () => Math.random()', [[1], [2]]));
    for (const [a, b] of [draws, more])
      expect((a as { value: Json }).value).not.toEqual((b as { value: Json }).value);
  });

  it('calls 10,000 deep', async () => {
    const python = 'import sys\nsys.setrecursionlimit(20000)\ndef f(n):\n    return n and 1 + f(n - 1)';
    expect(await one('python', python, [10_000])).toMatchObject({ value: 10_000 });
    const javascript = 'const f = (n) => (n ? 1 + f(n - 1) : 0)';
    expect(await one('javascript', javascript, [10_000])).toMatchObject({ value: 10_000 });
  });

  it('lets a slow case cost only itself, and tells verdicts by processor time', async () => {
    const slow = runOf('javascript', 'function f(n) { if (n === 1) for (;;); return n }', [[0], [1], [2]], {
      milliseconds: 300,
    });
    const outcomes = await ran(box, slow);
    expect(outcomes.map((o) => o.result)).toEqual(['returned', 'too-slow', 'returned']);
    expect(outcomes.map((o) => o.milliseconds > 300)).toEqual([false, true, false]);
  });

  it('judges a call that nothing interrupts by the limit of its own case, not by that of all', async () => {
    // One call of the engine, with no place in it at which the engine would look at a clock.
    const program = 'const f = (n) => (n === 0 ? "a".repeat(200000).indexOf("a".repeat(100000) + "b") : n)';
    const python = 'def f(n):\n    return n if n else pow(7, 10 ** 8) and 1';
    for (const [language, text] of [
      ['javascript', program],
      ['python', python],
    ] as const) {
      const cases = Array.from({ length: 8 }, (_, n) => [n]);
      const outcomes = await ran(box, runOf(language, text, cases, { milliseconds: 400 }));
      const [first, ...others] = outcomes;
      expect(first!.result, language).toBe('too-slow');
      // It has not had the time of all eight.
      expect(first!.milliseconds, language).toBeLessThan(8 * 400);
      expect(others.map((one) => (one as { value?: Json }).value)).toEqual([1, 2, 3, 4, 5, 6, 7]);
    }
  });

  it('believes that a case is too slow once nothing ran beside it, and after three of a program at once', async () => {
    const warn = vi.fn<(facts: { why?: string }) => void>();
    const quiet = new Sandbox(folder, {
      rule,
      walls,
      log: { warn },
      processorTime: () => ({ all: 0, taken: 0 }),
    });
    const loops = 'const f = () => { for (;;); }';
    const run = runOf('javascript', loops, [[1], [2], [3], [4], [5]], { milliseconds: 100 });
    const beside = runOf('javascript', loops, [[1]], { milliseconds: 3000 });
    const doubted = () => warn.mock.calls.filter(([{ why }]) => why?.startsWith('too slow')).length;
    await ran(quiet, run);
    expect(doubted()).toBe(0);
    const [slow] = await Promise.all([ran(quiet, run, 'a'), ran(quiet, beside, 'b')]);
    expect(slow.map(({ result }) => result)).toEqual(Array.from({ length: 5 }, () => 'too-slow'));
    expect(doubted()).toBeGreaterThan(0);
    expect(doubted()).toBeLessThanOrEqual(4);
    quiet.close();
  });

  it('holds against a case only the memory that it takes itself', async () => {
    // Ten times 40 MB, each within the 64 MB of a case; together more than a process may have.
    const fill = 'const f = (n) => { const a = new Uint8Array(40 << 20).fill(n); return a[7] }';
    const ten = Array.from({ length: 10 }, (_, n) => [n]);
    const outcomes = await ran(box, runOf('javascript', fill, ten, { milliseconds: 5000 }));
    expect(outcomes.map((o) => (o as { value?: Json }).value)).toEqual(ten.flat());
    const greedy = 'const f = (n) => new Uint8Array((n === 3 ? 90 : 1) << 20).fill(n)[7]';
    const one = await ran(box, runOf('javascript', greedy, ten.slice(0, 5), { milliseconds: 5000 }));
    expect(one.map((o) => o.result)).toEqual(
      [0, 1, 2, 3, 4].map((n) => (n === 3 ? 'too-much-memory' : 'returned')),
    );
  });

  it('is fair on a busy machine: at half its limit a program passes, at five times it never does', async () => {
    burn(2);
    const work = 'def f(n):\n    s = 0\n    for i in range(n):\n        s += i * i % 7\n    return s';
    const counts = [100_000, 100_000, 100_000, 100_000, 100_000];
    /** The longest of five at the same load: the noise of the machine is part of what an author would see. */
    const longest = async () => {
      const cases = counts.map((n) => [n]);
      const outcomes = await ran(box, runOf('python', work, cases, { milliseconds: 20_000 }));
      return Math.max(...outcomes.map((o) => o.milliseconds));
    };
    let milliseconds = 0;
    const times = (factor: number, cases: number) =>
      runOf(
        'python',
        work,
        Array.from({ length: cases }, () => [100_000 * factor]),
        { milliseconds },
      );
    const judged = async () => {
      const before = await longest();
      milliseconds = 2 * before;
      const half = (await Promise.all(['a', 'b'].map((owner) => box.run(times(1, 10), owner)))).flat();
      const over = await ran(box, times(10, 3));
      const returned = (some: readonly CaseOutcome[]) => some.filter((o) => o.result === 'returned');
      const tooSlow = over.filter((o) => o.result === 'too-slow').length;
      const found = { returned: returned(half).length, tooSlow };
      if (found.returned === 20 && found.tooSlow === 3) return { ...found, steady: true };
      // A processor that is itself half as slow again a moment later, or as fast again, tells nothing of the box.
      const now = await longest();
      const most = Math.max(now, ...returned(half).map((o) => o.milliseconds));
      const least = Math.min(now, ...returned(over).map((o) => o.milliseconds / 10));
      return { ...found, steady: most < 1.5 * before && least > before / 1.5 };
    };
    let found = await judged();
    for (let tries = 1; !found.steady && tries < 8; tries++) found = await judged();
    expect(found).toEqual({ returned: 20, tooSlow: 3, steady: true });
  });

  it('believes that a program is too slow the second time only while the host takes the processors', async () => {
    const program = 'const f = (n) => { for (;;) if (n !== 2) return n; }';
    const run = runOf('javascript', program, [[1], [2], [3]], { milliseconds: 100 });
    for (const [share, again] of [
      [0.2, true],
      [0.05, false],
    ] as const) {
      // A second has passed whenever it is asked for, on ten processors.
      let seconds = 0;
      const processorTime = () => ({ all: 10 * ++seconds, taken: 10 * seconds * share });
      const warn = vi.fn<(facts: { why?: string }) => void>();
      const shared = new Sandbox(folder, { rule, walls, processorTime, log: { warn } });
      const results = (await ran(shared, run)).map(({ result }) => result);
      expect(results).toEqual(['returned', 'too-slow', 'returned']);
      const doubted = warn.mock.calls.filter(([{ why }]) => why?.startsWith('too slow'));
      expect(doubted).toHaveLength(again ? 1 : 0);
      shared.close();
    }
  });

  it('costs nobody a mark when its processes are killed', async () => {
    const script = rule === 'best' ? 'zygote.cjs' : 'portableChild.cjs';
    const slowly = runOf('python', 'def f(n):\n    for i in range(2_000_000): n += i % 3\n    return n', [
      [1],
      [2],
    ]);
    const expected = (await ran(box, slowly)).map((o) => (o as { value: Json }).value);
    const running = ran(box, slowly);
    for (let n = 0; n < 2; n++) {
      for (const pid of processesBelow(process.pid, [script])) process.kill(pid, 'SIGKILL');
      expect(await one('javascript', 'const f = (n) => n + 1')).toMatchObject({ value: 2 });
    }
    expect((await running).map((o) => (o as { value: Json }).value)).toEqual(expected);
    expect(box.health().triedAgain).toBeGreaterThan(0);
  });

  it('runs nothing where an engine’s file is damaged, and says so', async () => {
    const copy = mkdtempSync(path.join(tmpdir(), 'code-box-'));
    cpSync(folder, copy, { recursive: true });
    appendFileSync(path.join(copy, 'quickjs.wasm'), ' ');
    const broken = new Sandbox(copy, { rule, walls });
    await expect(broken.run(runOf('javascript', 'const f = () => 1'))).rejects.toThrow(MachineTrouble);
    expect(broken.health().trouble).toContain('quickjs.wasm is damaged');
    expect(await ran(broken, runOf('python', 'def f(n):\n    return n'))).toMatchObject([{ value: 1 }]);
    broken.close();
    rmSync(copy, { recursive: true });
  });
});

describe('around the sandbox', () => {
  it('where a second wall is asked for and there is none, nothing is run', async () => {
    const rule = 'require-isolation';
    const none = new Sandbox(folder, { rule, walls, forks: false });
    expect([none.allowed, none.isolated]).toEqual([false, false]);
    await expect(none.run(runOf('python', 'def f(n):\n    return n'))).rejects.toThrow('no second wall');
    const walled = new Sandbox(folder, {
      rule,
      walls: { ...walls, bubblewrap: '/usr/bin/bwrap' },
      forks: false,
    });
    expect(walled.allowed).toBe(true);
  });

  it('its processes end with the server, whatever they are running', async () => {
    const server = spawn(process.execPath, ['--import', 'tsx', 'server/sandbox/testing/loopForEver.ts'], {
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    await new Promise((begun) => server.stdout.once('data', begun));
    const box = processesBelow(server.pid!, ['zygote.cjs', 'portableChild.cjs']);
    // A process that forks, its fork, and a portable one at the least.
    expect(box.length).toBeGreaterThanOrEqual(3);
    for (const pid of box) {
      if (process.getuid!() === 0)
        expect(readFileSync(`/proc/${pid}/status`, 'utf8')).toMatch(/^Uid:\t64735\t64735/m);
      expect(readFileSync(`/proc/${pid}/environ`, 'latin1')).toBe('TZ=UTC\0');
    }
    // What is open in a fork: the channel of its replies, and nothing else that leads anywhere.
    const forks = box.filter((pid) => box.includes(livingProcesses().get(pid)!));
    expect(forks).toHaveLength(1);
    const open = readdirSync(`/proc/${forks[0]}/fd`).map((n) => readlinkSync(`/proc/${forks[0]}/fd/${n}`));
    expect(open.filter((where) => where !== '/dev/null')).toEqual([expect.stringMatching(/^(socket|pipe):/)]);
    server.kill('SIGKILL');
    const left = () => box.filter((pid) => livingProcesses().has(pid));
    await vi.waitFor(() => expect(left()).toEqual([]), { timeout: 20_000 });
  });

  it('clamps only binaries that have a memory', () => {
    // magic, version, memory section (5) of 3 bytes: one memory, no maximum, at least 1 page
    const module = Uint8Array.from([0, 0x61, 0x73, 0x6d, 1, 0, 0, 0, 5, 3, 1, 0, 1]);
    const clamped = clampWasmMemory(module, 200);
    // now flags 1 with maximum 200 = 0xc8 0x01 in LEB128, so the section has 5 bytes
    expect([...clamped.slice(8)]).toEqual([5, 5, 1, 1, 1, 0xc8, 1]);
    expect(() => clampWasmMemory(module.slice(0, 8), 200)).toThrow('no memory');
  });
});
