import type { measurePrograms } from './measurePrograms';

/** What was measured of programs, as rows of the printed table. */
export function programRows({ handIns, fork, portable }: Awaited<ReturnType<typeof measurePrograms>>) {
  const rows: Record<string, Record<string, string>> = {};
  const goals = {
    fork: { python: '≥ 5/s, ≤ 2 s', javascript: '≥ 20/s', typescript: '≥ 20/s', sql: '≥ 20/s' },
    portable: { python: '≥ 0.5/s, ≤ 5 s', javascript: '', typescript: '', sql: '' },
  };
  for (const [name, lane] of [
    ['fork', fork],
    ['portable', portable],
  ] as const)
    for (const language of ['python', 'javascript', 'typescript', 'sql'] as const)
      rows[`programs of ten cases, ${language}, ${name}`] = {
        figure: `${lane[language].perSecond}/s`,
        p50: `alone p95 ${lane[language].p95Ms} ms`,
        goal: goals[name][language],
      };
  for (const [name, { attacks, honest, loopMostMs }] of [
    ['fork', fork.underAttack],
    ['portable', portable.underAttack],
  ] as const)
    rows[`${attacks} attacks, ${name}: honest programs beside them`] = {
      figure: `${honest} with a verdict`,
      p50: `the loop stood ${loopMostMs} ms at most`,
      goal: '≤ 50 ms',
    };
  rows[`${handIns.handIns} hand-ins in two minutes`] = {
    figure: `${handIns.scored} scored, ${handIns.twice} twice`,
    p50: `the last after ${handIns.scoredAfterTheLastMs} ms`,
    p99: `loop p99 ${handIns.loopP99Ms} ms, saves p99 ${handIns.saveP99Ms} ms`,
    goal: 'loop p99 ≤ 20 ms',
  };
  rows['1,000 hostile programs: memory of the server'] = {
    figure: `${fork.memoryMb.before} → ${fork.memoryMb.after} MB`,
    goal: 'unchanged',
  };
  for (const [name, { python, javascript }] of Object.entries(fork.slowDown))
    rows[`slower than python3 and node: ${name}`] = { figure: `${python} ×, ${javascript} ×`, goal: '' };
  rows['slower than SQLite itself: a join of 200,000 rows'] = { figure: `${fork.slowerSql} ×`, goal: '' };
  return rows;
}
