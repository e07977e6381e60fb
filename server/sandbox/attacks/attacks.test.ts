import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CaseOutcome, ProgramRun } from '../../../core/kinds/evidence';
import type { ProgramLanguage } from '../../../core/programs/languages';
import { plainOutcome, runOf } from '../../../core/testing/programRuns';
import { findWalls } from '../lanes/walls';
import { Sandbox } from '../sandbox';
import type { Attack } from './attack';
import { javascriptAttacks, sqlAttacks, typescriptAttacks } from './otherAttacks';
import { pythonAttacks } from './pythonAttacks';

const folder = path.resolve('dist/sandbox');
const walls = findWalls();
const short = { milliseconds: 300, megabytes: 64, outputBytes: 20_000 };
/** For what must not end by time: on a host that took 39 % of the processors, one of these was charged all of its 300 ms. */
const ample = { ...short, milliseconds: 2000 };
const secret = /root:|\/work\/|\/usr\/|PATH=|NODE_/;

const all: readonly (readonly [ProgramLanguage, readonly Attack[]])[] = [
  ['python', pythonAttacks],
  ['javascript', javascriptAttacks],
  ['typescript', typescriptAttacks],
  ['sql', sqlAttacks],
];
const honest = runOf('javascript', 'const f = (n) => n * 2', [[21]], ample);

/** Programs that run an attack given as an argument: where a process costs a second, one runs many of them. */
const RUNNERS: Partial<Record<ProgramLanguage, string>> = {
  python:
    'def f(code):\n    scope = {"__name__": "__main__"}\n    exec(compile(code, "program.py", "exec"), scope)\n    return scope["f"](1)',
  javascript: 'const f = (code) => (0, eval)(`(function(){${code}\n;return f(1)})()`)',
};

interface Group {
  readonly run: ProgramRun;
  readonly attacks: readonly Attack[];
}

const mayEndByTime = ([, , ends]: Attack) => !('value' in ends) && ends.includes('too-slow');
const limitsOf = (attack: Attack) => (mayEndByTime(attack) ? short : ample);

const alone = (language: ProgramLanguage, attack: Attack): Group => ({
  run: runOf(language, attack[1], [language === 'sql' ? [''] : [1]], limitsOf(attack)),
  attacks: [attack],
});
const together = (language: ProgramLanguage, program: string, attacks: readonly Attack[]): Group => ({
  run: runOf(
    language,
    program,
    attacks.map(([, code]) => [code]),
    limitsOf(attacks[0]!),
  ),
  attacks,
});

function groupsOf(language: ProgramLanguage, attacks: readonly Attack[], inGroups: boolean): Group[] {
  const runner = RUNNERS[language];
  if (!inGroups || runner === undefined) return attacks.map((attack) => alone(language, attack));
  return [true, false].flatMap((byTime) => {
    const some = attacks.filter((attack) => mayEndByTime(attack) === byTime);
    return [0, 1].map((half) =>
      together(
        language,
        runner,
        some.filter((_, i) => i % 2 === half),
      ),
    );
  });
}

function expectEnd(outcome: CaseOutcome, [title, , ends]: Attack): void {
  expect.soft(JSON.stringify(outcome), title).not.toMatch(secret);
  if ('value' in ends)
    expect.soft(plainOutcome(outcome), title).toMatchObject({ result: 'returned', value: ends.value });
  else expect.soft(ends, `${title}: ${JSON.stringify(outcome).slice(0, 300)}`).toContain(outcome.result);
}

const lanes = [
  { rule: 'best', bubblewrap: null },
  { rule: 'best', bubblewrap: walls.bubblewrap },
  { rule: 'portable', bubblewrap: null },
  { rule: 'portable', bubblewrap: walls.bubblewrap },
] as const;

/* A machine without bubblewrap runs the two without it; CI has it. */
describe.each(lanes.filter((lane, i) => i % 2 === 0 || lane.bubblewrap))(
  'attacks ($rule, bubblewrap: $bubblewrap)',
  ({ rule, bubblewrap }) => {
    const box = new Sandbox(folder, { rule, walls: { ...walls, bubblewrap } });
    beforeAll(() => box.warmUp());
    afterAll(() => box.close());

    // The portable way holds Python by the same wall with and without bubblewrap, and takes a second a case.
    const slow = rule === 'portable' && bubblewrap !== null;

    it.each(all.filter(([language]) => !slow || language !== 'python'))(
      '%s: none gets anywhere, and honest programs have their verdicts',
      async (language, attacks) => {
        const groups = groupsOf(language, attacks, rule === 'portable');
        // Two at a time, as many as there are slots; an honest program is asked for at the moment of each.
        const lane = async () => {
          for (let next = groups.shift(); next; next = groups.shift()) {
            const title = next.attacks[0]![0];
            const [outcomes, [beside]] = await Promise.all([
              box.run(next.run, `attacker ${title}`),
              box.run(honest, `honest ${title}`),
            ]);
            for (const [i, outcome] of outcomes.entries()) expectEnd(outcome, next.attacks[i]!);
            expect.soft(beside, `beside: ${title}`).toMatchObject({ result: 'returned', value: ['i', '42'] });
          }
        };
        await Promise.all([lane(), lane()]);
      },
    );
  },
);

it('there are as many attacks as were promised, each with a title of its own', () => {
  const titles = all.flatMap(([language, attacks]) => attacks.map(([title]) => `${language}: ${title}`));
  expect(titles.length).toBeGreaterThanOrEqual(70);
  expect(new Set(titles).size).toBe(titles.length);
});
