import { describe, expect, it } from 'vitest';
import { simulateAnswers } from '../../demo/answers';
import { technicianPaper } from '../../demo/technicianPaper';
import { kindOf } from '../kinds/registry';
import { allParts } from '../papers/paper';
import { seededRandom } from '../random';
import { answerToScore, runsOfScript, scoreScript } from './scoreSitting';

const paper = technicianPaper();
const place = (target: string) => allParts(paper).find((p) => p.target === target)!;
const scoreOf = (answers: Record<string, unknown>, target: string) =>
  scoreScript(paper, answers, {}).scored.find((s) => s.target === target);

describe('scoring a script', () => {
  it('gives nothing for nothing, to every part at once', () => {
    const { scored, forPeople } = scoreScript(paper, {}, {});
    expect(scored).toHaveLength(allParts(paper).length);
    expect(scored.every((s) => s.hundredths === 0 && s.verdict === 'unanswered')).toBe(true);
    expect(forPeople).toEqual([]);
  });

  it.each([
    ['parts-of-a-seed/A', { chosen: ['root'] }, 100],
    ['which-trays/A', { chosen: ['t12', 't13'] }, 0], // one right of two, one wrong of two: 1/2 − 1/2
    ['reading-the-dial/A', { typed: '−19' }, 200],
    ['tray-14/B', { typed: '71,3' }, 200],
    ['tray-14/C', { filled: { a: 'kept', b: '65', c: 'third' } }, 133], // two gaps of three of 200
    ['a-day-of-counting/A', { sequence: ['take', 'read', 'count', 'write', 'back'] }, 300],
  ])('%s', (target, value, hundredths) => {
    expect(scoreOf({ [target]: value }, target)?.hundredths).toBe(hundredths);
  });

  it('leaves writing to people once something is written', () => {
    const text = {
      type: 'doc',
      content: [{ type: 'paragraph', content: [{ type: 'text', text: 'A note.' }] }],
    };
    const { scored, forPeople } = scoreScript(paper, { 'incident-note/A': { text } }, {});
    expect(forPeople).toEqual(['incident-note/A']);
    expect(scored.some((s) => s.target === 'incident-note/A')).toBe(false);
  });

  it('lets a broken value cost its own part only', () => {
    const answers = { 'tray-14/B': { typed: 7 }, 'parts-of-a-seed/A': { chosen: ['root'] } };
    expect(scoreOf(answers, 'tray-14/B')).toMatchObject({ hundredths: 0, verdict: 'unanswered' });
    expect(scoreOf(answers, 'parts-of-a-seed/A')?.hundredths).toBe(100);
    expect(
      answerToScore({ 'parts-of-a-seed/A': { chosen: ['no-such'] } }, place('parts-of-a-seed/A')),
    ).toEqual({
      chosen: [],
    });
  });

  it('asks for runs of programs that were written, with hidden cases and without what is expected', () => {
    const program = 'def strongest(lots):\n    return ""\n';
    const runs = runsOfScript(paper, {
      'strongest-lot/A': { language: 'python', programs: { python: program } },
      'days-to-half/A': { language: 'python', programs: {} },
    });
    expect(runs.map((r) => r.target)).toEqual(['strongest-lot/A']);
    expect(Object.keys(runs[0]!.run.cases[0]!).sort()).toEqual(['arguments', 'key']);
  });
});

describe('the simulated candidates', () => {
  it('answer what the paper can take, and able ones score more', () => {
    const total = (ability: number, n: number) => {
      const answers = Object.fromEntries(
        simulateAnswers(ability, seededRandom(`script ${n}`)).map(({ target, value }) => [target, value]),
      );
      for (const [target, value] of Object.entries(answers)) {
        const { kind, content } = place(target).part;
        expect(kindOf(kind).misfit(kindOf(kind).show(content), value)).toBeNull();
      }
      const machine = Object.entries(answers).filter(([target]) => !/strongest|half/.test(target));
      const { scored } = scoreScript(paper, Object.fromEntries(machine), {});
      return scored.reduce((sum, s) => sum + s.hundredths, 0);
    };
    const mean = (ability: number) =>
      Array.from({ length: 30 }, (_, n) => total(ability, n)).reduce((a, b) => a + b, 0) / 30;
    expect(mean(0.95)).toBeGreaterThan(mean(0.6));
    expect(mean(0.6)).toBeGreaterThan(mean(0.2));
  });
});
