import { describe, expect, it } from 'vitest';
import { simulateAnswers } from '../../demo/answers';
import { technicianPaper } from '../../demo/technicianPaper';
import { drawForm } from '../forms/drawForm';
import { candidateKindOf } from '../kinds/candidateKindOf';
import type { Credit } from '../kinds/contract';
import type { KeyKinds } from '../kinds/keyKinds';
import { storeResponse } from '../kinds/stored';
import { sumMarks } from '../marks';
import { allParts } from '../papers/paper';
import { seededRandom } from '../random';
import { withoutMachine } from './components';
import { NonsenseError, scorePart } from './scorePart';
import { evidenceFor, isForPeople, partsOfScript, scoreScript, toScore } from './script';

const paper = technicianPaper();
const form = drawForm(paper, { seed: 'scoring', locale: 'en', transcripts: false, aids: [] });
const kindAt = new Map(allParts(paper).map(({ target, part }) => [target, part.kind]));
const script = (responses: Record<string, unknown>) => ({
  paper,
  form,
  locale: 'en',
  answers: Object.fromEntries(
    Object.entries(responses).map(([target, one]) => [target, storeResponse(kindAt.get(target)!, one)]),
  ),
});
const total = (credits: readonly Credit[]) => sumMarks(credits.map((c) => c.hundredths));
const note = (text: string) => ({
  text: { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text }] }] },
});

describe('scoring a script', () => {
  it('gives nothing for nothing, to every component at once', () => {
    const scored = [...scoreScript(script({})).values()].flat();
    expect(scored.every((c) => c.hundredths === 0 && c.verdict === 'unanswered')).toBe(true);
    expect(sumMarks(scored.map((c) => c.of))).toBe(4800);
    expect(partsOfScript(script({})).filter(isForPeople)).toEqual([]);
  });

  it.each([
    ['parts-of-a-seed/A', { chosen: ['root'] }, 100],
    ['which-trays/A', { chosen: ['t12', 't13'] }, 0], // one right of two, one wrong of two: 1/2 − 1/2
    ['reading-the-dial/A', { typed: '−19' }, 200],
    ['tray-14/B', { typed: '71.3' }, 200],
    ['tray-14/C', { filled: { a: 'kept', b: '65', c: 'third' } }, 134], // shares of 200: 67, 67 and 66
    ['a-day-of-counting/A', { sequence: ['take', 'read', 'count', 'write', 'back'] }, 300],
  ])('%s', (target, response, hundredths) => {
    expect(total(scoreScript(script({ [target]: response })).get(target)!)).toBe(hundredths);
  });

  it('leaves writing to people once something is written', () => {
    const parts = partsOfScript(script({ 'incident-note/A': note('A note.') }));
    expect(parts.filter(isForPeople).map((p) => p.target)).toEqual(['incident-note/A']);
  });

  it('lets a broken answer cost its own part only', () => {
    const answers = {
      'tray-14/B': { version: 1, response: { typed: 7 } },
      'which-trays/A': { chosen: ['t12'] }, // without its version
      'parts-of-a-seed/A': { version: 1, response: { chosen: ['root'] } },
      'tray-14/A': { version: 1, response: { chosen: ['no-such'] } },
    };
    const scored = scoreScript({ ...script({}), answers });
    expect(total(scored.get('parts-of-a-seed/A')!)).toBe(100);
    for (const target of ['tray-14/B', 'which-trays/A', 'tray-14/A'])
      expect(scored.get(target)![0]!.verdict).toBe('unanswered');
  });

  it('asks for runs of programs that were written, with hidden cases and without what is expected', () => {
    const program = 'def strongest(lots):\n    return ""\n';
    const parts = partsOfScript(
      script({
        'strongest-lot/A': { language: 'python', programs: { python: { 'program.py': program } } },
        'days-to-half/A': { language: 'python', programs: {} },
      }),
    );
    const asked = parts.filter((part) => evidenceFor(part).length > 0);
    expect(asked.map((part) => part.target)).toEqual(['strongest-lot/A']);
    const [request] = evidenceFor(asked[0]!);
    if (request?.sort !== 'program') throw new Error('a program is run');
    expect(Object.keys(request.run.cases[0]!).sort()).toEqual(['files', 'input', 'key']);
  });
});

describe('what a kind gives back', () => {
  const parts = partsOfScript(script({ 'tray-14/B': { typed: '71.3' } }));
  const own = toScore(
    parts.find((p) => p.target === 'tray-14/B')!,
    parts,
    {},
  );
  const kindThat = (score: () => unknown) =>
    ({ number: { ...parts.find((p) => p.target === own.target)!.kind, score } }) as unknown as KeyKinds;
  const good = { component: 'whole', hundredths: 200, of: 200, verdict: 'right', reasons: [] };

  it('is told the figures of the other parts of its item', () => {
    expect(Object.keys(own.siblings)).toEqual(['A', 'C']);
  });

  it.each([
    ['nothing', undefined],
    ['no list', { ...good }],
    ['too few', []],
    ['too many', [good, good]],
    ['another component', [{ ...good, component: 'x' }]],
    ['more than there is', [{ ...good, hundredths: 201 }]],
    ['less than the penalty can be', [{ ...good, hundredths: -201 }]],
    ['a fraction of a hundredth', [{ ...good, hundredths: 0.5 }]],
    ['no number', [{ ...good, hundredths: NaN }]],
    ['another maximum', [{ ...good, of: 100 }]],
    ['a sentence for a reason', [{ ...good, reasons: ['Because.'] }]],
  ])('is nonsense where it is %s', (_, credits) => {
    expect(() =>
      scorePart(
        kindThat(() => credits),
        own,
      ),
    ).toThrow(NonsenseError);
    expect(
      scorePart(
        kindThat(() => [good]),
        own,
      ),
    ).toEqual([good]);
  });

  it('can be replaced by people: one component of all that the machine would have given', () => {
    const components = partsOfScript(script({})).find((p) => p.target === 'days-to-half/A')!.components;
    expect(withoutMachine(components).map((c) => [c.key, c.by, c.of])).toEqual([
      ['by-hand', 'people', 700],
      ['r', 'people', 200],
    ]);
  });
});

describe('the simulated candidates', () => {
  it('answer what the paper can take, and able ones score more', () => {
    const shown = new Map(form.paper.questions.flatMap((q) => q.parts).map((p) => [p.target, p]));
    const totalOf = (ability: number, n: number) => {
      const simulated = simulateAnswers(ability, seededRandom(`script ${n}`));
      for (const { target, response } of simulated) {
        const part = shown.get(target)!;
        expect(candidateKindOf(part.kind).misfit(part.shown, response)).toBeNull();
      }
      const machine = simulated.filter(({ target }) => !/strongest|half/.test(target));
      const responses = Object.fromEntries(machine.map(({ target, response }) => [target, response]));
      return sumMarks([...scoreScript(script(responses)).values()].map(total));
    };
    const mean = (ability: number) =>
      Array.from({ length: 30 }, (_, n) => totalOf(ability, n)).reduce((a, b) => a + b, 0) / 30;
    expect(mean(0.95)).toBeGreaterThan(mean(0.6));
    expect(mean(0.6)).toBeGreaterThan(mean(0.2));
  });
});
