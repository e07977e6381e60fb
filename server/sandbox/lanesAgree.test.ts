import path from 'node:path';
import { expect, it } from 'vitest';
import type { ProgramLanguage } from '../../core/programs/languages';
import { JAVASCRIPT, PYTHON, SET_UP, SQL, TYPESCRIPT } from '../../core/testing/programs';
import { runOf } from '../../core/testing/programRuns';
import { findWalls } from './lanes/walls';
import { Sandbox } from './sandbox';

const folder = path.resolve('dist/sandbox');
const walls = { ...findWalls(), bubblewrap: null };
const GIVEN = 6;

const LISTS: readonly (readonly [ProgramLanguage, readonly string[]])[] = [
  ['python', PYTHON],
  ['javascript', JAVASCRIPT],
  ['typescript', TYPESCRIPT],
  ['sql', SQL],
];
/** The portable lane takes a second for each Python: every third of those. The browser's story has them all. */
const chosen = (language: ProgramLanguage, programs: readonly string[]) =>
  language === 'python' ? programs.filter((_, i) => i % 3 === 0) : programs;

const withoutTime = (outcome: object): object => ({ ...outcome, milliseconds: null, memoryBytes: null });

it('there are at least 150 honest programs in four languages', () => {
  expect(LISTS.reduce((sum, [, programs]) => sum + programs.length, 0)).toBeGreaterThanOrEqual(150);
});

it.each(LISTS)('both lanes come to the same: %s', async (language, programs) => {
  const [forks, portable] = (['best', 'portable'] as const).map(
    (rule) => new Sandbox(folder, { rule, walls }),
  );
  const given = [language === 'sql' ? SET_UP : GIVEN];
  for (const program of chosen(language, programs)) {
    const run = runOf(language, program, [given], { milliseconds: 5000 });
    const [[a], [b]] = await Promise.all([forks!.run(run), portable!.run(run)]);
    expect.soft(withoutTime(a!), program).toEqual(withoutTime(b!));
    const honest = a!.result === 'returned' || (a!.result === 'error' && a!.fault !== 'forbidden');
    expect.soft(honest, `${program}: ${JSON.stringify(a).slice(0, 200)}`).toBe(true);
  }
  forks!.close();
  portable!.close();
});
