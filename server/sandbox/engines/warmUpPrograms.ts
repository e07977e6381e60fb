import { MAIN_FILES, type CaseJob } from '../../../core/programs/engine';
import type { ProgramLanguage } from '../../../core/programs/languages';

const common = {
  inputFiles: [],
  milliseconds: 20_000,
  megabytes: 128,
  outputBytes: 10_000,
  seed: 1,
} as const;

const fileOf = (language: ProgramLanguage, text: string) => [{ name: MAIN_FILES[language], text }];

/** Uses what programs usually use: what is compiled here is shared by every fork that follows. */
export const WARM_UP_PYTHON: CaseJob = {
  ...common,
  language: 'python',
  functionName: 'f',
  input: '[["i","0"]]',
  files: fileOf(
    'python',
    `
import bisect, collections, datetime, functools, heapq, itertools, json, math, random, re, string, time
class Point:
    def __init__(self, x):
        self.x = x
    def get(self):
        return self.x
def fib(n):
    return n if n < 2 else fib(n - 1) + fib(n - 2)
def f(n):
    counts = {}
    for i in range(60000):
        counts[i % 977] = counts.get(i % 977, 0) + i * 3 // 7
    total = 0.0
    for i in range(1, 40000):
        total += math.sqrt(i) / i
    prime = [True] * 30000
    for i in range(2, 180):
        if prime[i]:
            for j in range(i * i, 30000, i):
                prime[j] = False
    pairs = [((i * 7919) % 10007, str(i)) for i in range(15000)]
    pairs.sort()
    pairs.sort(key=lambda pair: -pair[0])
    heap = []
    for x, _ in pairs[:4000]:
        heapq.heappush(heap, x)
    while heap:
        heapq.heappop(heap)
    letters = collections.Counter(''.join(text for _, text in pairs))
    queue = collections.deque(range(3000))
    while queue:
        queue.popleft()
    words = re.findall(r'[a-z]+', 'the quick brown fox ' * 500)
    points = [Point(i).get() for i in range(20000)]
    text = ' '.join(word.upper() for word in words).split()
    table = [[i * j for j in range(50)] for i in range(50)]
    large = 2 ** 500 * 3 ** 200 % 1000007
    fib(19)
    # Whatever is read when it is first used is read before the forks, which may read nothing.
    time.localtime(0), time.strftime('%c'), datetime.datetime.now().isoformat()
    print(len(letters), total, sorted(set(words)), len(table))
    try:
        {}['x']
    except KeyError:
        pass
    json.loads(json.dumps({'a': [1, 2.5, 'x', None, True]}))
    return [len(points), len(text), f'{total:.3f} {large:>10}']
`,
  ),
};

export const WARM_UP_JAVASCRIPT: CaseJob = {
  ...common,
  language: 'typescript',
  functionName: 'f',
  input: '[["i","0"]]',
  files: fileOf(
    'typescript',
    `
interface Pair { n: number; s: string }
function f(n: number): unknown {
  const counts = new Map<string, number>();
  for (let i = 0; i < 60000; i++) { const k = 'w' + (i % 977); counts.set(k, (counts.get(k) || 0) + 1) }
  const composite = new Uint8Array(60000);
  for (let i = 2; i * i < 60000; i++) if (!composite[i]) for (let j = i * i; j < 60000; j += i) composite[j] = 1;
  const fib = (k: number): number => (k < 2 ? k : fib(k - 1) + fib(k - 2));
  fib(18);
  const pairs: Pair[] = [];
  for (let i = 0; i < 20000; i++) pairs.push({ n: (i * 7919) % 10007, s: String(i) });
  pairs.sort((x, y) => x.n - y.n);
  const sum = pairs.map((x) => x.n).filter((k) => k % 2).reduce((s, k) => s + k, 0);
  class Point { #x; constructor(x: number) { this.#x = x } get x() { return this.#x } }
  let total = 0;
  for (let i = 0; i < 20000; i++) total += new Point(i).x;
  const words = 'the quick brown fox '.repeat(400).split(' ').filter((w) => /^[a-z]+$/.test(w));
  function* upTo() { for (let i = 0; i < 2000; i++) yield i }
  for (const x of upTo()) total += x;
  console.log(new Date(0).getTimezoneOffset(), new Date().toString(), new Date().toLocaleDateString());
  try { null!.x } catch (e) { total += String(e).length }
  console.log(total, Math.sqrt(2).toFixed(3), JSON.stringify(JSON.parse('{"a":[1,2.5,"x",null,true]}')));
  const { n: first, ...rest } = pairs[0]!;
  return [sum, new Set(words).size, String(first), Object.keys(rest).join(), [...counts.entries()].length];
}`,
  ),
};

export const WARM_UP_SQL: CaseJob = {
  ...common,
  language: 'sql',
  functionName: null,
  input: `create table lot (id int, dish text, up int); create table dish (name text, place text);
     with recursive n(i) as (select 1 union all select i + 1 from n where i < 2000)
     insert into lot select i, 'd' || (i % 7), i % 100 from n;
     insert into dish values ('d0', 'a'), ('d1', 'b');`,
  files: fileOf(
    'sql',
    `select d.place, avg(l.up) as mean, count(*) from lot l join dish d on d.name = l.dish
    group by 1 having count(*) > 1 order by 2 desc limit 5;
    select sqrt(2), ln(10), datetime(0, 'unixepoch', 'localtime');`,
  ),
};
