/* The sandbox by itself, in this process, as the server holds it. */
import Sqlite from 'better-sqlite3';
import { execFileSync } from 'node:child_process';
import path from 'node:path';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import type { ProgramRun } from '../../core/kinds/evidence';
import type { ProgramLanguage } from '../../core/programs/languages';
import { javascriptAttacks, sqlAttacks, typescriptAttacks } from '../../server/sandbox/attacks/otherAttacks';
import { pythonAttacks } from '../../server/sandbox/attacks/pythonAttacks';
import { runOf } from '../../core/testing/programRuns';
import { findWalls } from '../../server/sandbox/lanes/walls';
import { Sandbox } from '../../server/sandbox/sandbox';
import { CLASSICS } from './classics';

const FOLDER = path.resolve('dist/sandbox');
const RESOLUTION_MS = 2;
const limits = { milliseconds: 2000, megabytes: 64, outputBytes: 64 * 1024 };
const SQL_SET_UP = `create table lot (dish text, up int); with recursive n(i) as (select 1 union all select i + 1 from n where i < 1000)
insert into lot select 'd' || (i % 7), i % 100 from n;`;
const tenCases = (language: ProgramLanguage, program: string): ProgramRun =>
  runOf(
    language,
    program,
    Array.from({ length: 10 }, (_, i) => [i]),
    limits,
  );
const PROGRAMS = {
  python: tenCases('python', 'def f(n):\n    return sum(i * i for i in range(n * 10))'),
  javascript: tenCases(
    'javascript',
    'const f = (n) => [...Array(n * 10).keys()].reduce((s, i) => s + i * i, 0)',
  ),
  typescript: tenCases(
    'typescript',
    'function f(n: number): number { let s = 0; for (let i = 0; i < n * 10; i++) s += i * i; return s }',
  ),
  sql: runOf(
    'sql',
    'select dish, count(*), avg(up) from lot group by dish order by 2 desc',
    Array.from({ length: 10 }, () => [SQL_SET_UP]),
    limits,
  ),
} as const;

const quantile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))]!;

const round = (value: number, digits = 1): number => Number(value.toFixed(digits));

interface Rate {
  readonly perSecond: number;
  readonly p95Ms: number;
}

/** Submissions a second from many owners at once, and how long one takes that waits for nobody. */
async function rateOf(box: Sandbox, run: ProgramRun, count: number): Promise<Rate> {
  const alone: number[] = [];
  for (let i = 0; i < Math.max(5, count / 4); i++) {
    const from = performance.now();
    await box.run(run);
    alone.push(performance.now() - from);
  }
  const from = performance.now();
  await Promise.all(Array.from({ length: count }, (_, i) => box.run(run, `owner ${i}`)));
  return {
    perSecond: round((count * 1000) / (performance.now() - from), 2),
    p95Ms: Math.round(quantile(alone, 0.95)),
  };
}

/** Every attack, an honest program beside each: how long the loop of this process stood at most. */
async function underAttack(box: Sandbox): Promise<{ attacks: number; honest: number; loopMostMs: number }> {
  const delay = monitorEventLoopDelay({ resolution: RESOLUTION_MS });
  delay.enable();
  let honest = 0;
  const all = [
    ...pythonAttacks.map((attack) => ['python', attack] as const),
    ...javascriptAttacks.map((attack) => ['javascript', attack] as const),
    ...typescriptAttacks.map((attack) => ['typescript', attack] as const),
    ...sqlAttacks.map((attack) => ['sql', attack] as const),
  ];
  for (const [language, [title, program]] of all) {
    const [, [beside]] = await Promise.all([
      box.run(
        runOf(language, program, [language === 'sql' ? [''] : [1]], { ...limits, milliseconds: 500 }),
        title,
      ),
      box.run({ ...PROGRAMS.javascript, cases: PROGRAMS.javascript.cases.slice(3, 4) }, `beside ${title}`),
    ]);
    if (beside!.result === 'returned') honest++;
  }
  delay.disable();
  return { attacks: all.length, honest, loopMostMs: round(delay.max / 1e6 - RESOLUTION_MS) };
}

/** Memory of this process before and after many hostile programs, in MB. */
async function memoryAfter(box: Sandbox, count: number): Promise<{ before: number; after: number }> {
  const hostile = ['ends the engine', 'returns 300,000 keys', 'prints for ever', 'aborts the engine'];
  const programs = pythonAttacks.filter(([title]) => hostile.includes(title)).map(([, program]) => program);
  const run = (n: number) =>
    box.run(
      runOf('python', programs[n % programs.length]!, [[1]], { ...limits, milliseconds: 300 }),
      `hostile ${n}`,
    );
  const resident = () => {
    globalThis.gc?.();
    return Math.round(process.memoryUsage.rss() / 2 ** 20);
  };
  for (let n = 0; n < 50; n++) await run(n);
  const before = resident();
  for (let n = 0; n < count; n += 10) await Promise.all(Array.from({ length: 10 }, (_, i) => run(n + i)));
  return { before, after: resident() };
}

/** A query in the box beside the machine's own SQLite, in processor time. */
async function slowerSql(box: Sandbox): Promise<number> {
  const setUp = `create table n (i int); with recursive k(i) as (select 1 union all select i + 1 from k where i < 200000) insert into n select i from k;`;
  const query = 'select a.i % 97, count(*), sum(a.i) from n a join n b on b.rowid = a.rowid group by 1';
  const [outcome] = await box.run(runOf('sql', query, [[setUp]], { ...limits, milliseconds: 20_000 }));
  const native = new Sqlite(':memory:');
  const from = process.cpuUsage();
  native.exec(setUp);
  native.prepare(query).all();
  const { user, system } = process.cpuUsage(from);
  native.close();
  return round((outcome!.milliseconds * 1000) / (user + system));
}

/** How much slower five classic programs are in the box than in the machine's own python3 and node, in CPU time. */
async function slowDown(box: Sandbox): Promise<Record<string, Record<string, number>>> {
  const found: Record<string, Record<string, number>> = {};
  for (const { name, python, javascript } of CLASSICS) {
    const inBox = async (language: 'python' | 'javascript', program: string) => {
      const run = { ...tenCases(language, program), limits: { ...limits, milliseconds: 20_000 } };
      const outcomes = await box.run({ ...run, cases: run.cases.slice(0, 3) });
      return quantile(
        outcomes.map((o) => o.milliseconds),
        0.5,
      );
    };
    const native = (command: string, flag: string, code: string) =>
      Number(execFileSync(command, [flag, code]));
    const pythonMs = native(
      'python3',
      '-c',
      `${python}\nimport time\nfrom_ = time.process_time()\nf(1)\nprint((time.process_time() - from_) * 1000)`,
    );
    const javascriptMs = native(
      process.execPath,
      '-e',
      `${javascript}\nconst from_ = process.cpuUsage(); f(1); const { user, system } = process.cpuUsage(from_); console.log((user + system) / 1000)`,
    );
    found[name] = {
      python: round((await inBox('python', python)) / pythonMs),
      javascript: round((await inBox('javascript', javascript)) / javascriptMs),
    };
  }
  return found;
}

export async function measureBox() {
  const walls = findWalls();
  const open = async (rule: 'best' | 'portable') => {
    const box = new Sandbox(FOLDER, { rule, walls });
    await box.warmUp();
    return box;
  };
  const best = await open('best');
  const fork = {
    lanes: best.health().lanes,
    walls: best.health().walls,
    python: await rateOf(best, PROGRAMS.python, 40),
    javascript: await rateOf(best, PROGRAMS.javascript, 100),
    typescript: await rateOf(best, PROGRAMS.typescript, 100),
    sql: await rateOf(best, PROGRAMS.sql, 100),
    underAttack: await underAttack(best),
    slowDown: await slowDown(best),
    slowerSql: await slowerSql(best),
    memoryMb: await memoryAfter(best, 1000),
    triedAgain: best.health().triedAgain,
  };
  best.close();
  const other = await open('portable');
  const portable = {
    python: await rateOf(other, PROGRAMS.python, 8),
    javascript: await rateOf(other, PROGRAMS.javascript, 20),
    typescript: await rateOf(other, PROGRAMS.typescript, 20),
    sql: await rateOf(other, PROGRAMS.sql, 20),
    underAttack: await underAttack(other),
  };
  other.close();
  return { fork, portable };
}
