import { describe, expect, it } from 'vitest';
import { technicianPaper } from '../../demo/technicianPaper';
import { buildCandidatePaper } from '../papers/candidatePaper';
import { allParts } from '../papers/paper';
import { scoreScript } from '../scoring/scoreSitting';
import { buildResultSheet, type PartMark, type ResultInput } from './resultSheet';

const paper = technicianPaper();
const answers = {
  'parts-of-a-seed/A': { chosen: ['root'] },
  'tray-14/B': { typed: '0.71' },
  'tray-14/C': { filled: { a: 'kept', b: '65', c: 'third' } },
};
const machine = scoreScript(paper, answers, {}).scored.map(
  ({ target, hundredths, verdict, reasons }): PartMark => ({
    ...{ target, hundredths, verdict, reasons, levels: null, comment: '' },
  }),
);
const byPerson: PartMark = {
  target: 'incident-note/A',
  ...{ hundredths: 900, verdict: null, reasons: [], levels: { f: 3, r: 3, a: 2, l: 1 }, comment: 'Exact.' },
};
const input: ResultInput = {
  ...{
    state: 'confirmed',
    paper,
    form: buildCandidatePaper(paper, 'sheet'),
    answers,
    satAt: 1,
    releasedAt: 2,
    receipt: 'AAAA-BBBB-CCCC',
  },
  marks: machine.map((mark) => (mark.target === byPerson.target ? byPerson : mark)),
  candidate: { name: 'Ilse Brandvold', reference: 'HR-2201' },
};
const sheet = buildResultSheet(input);

describe('the result sheet', () => {
  it('adds up: parts to questions, questions to sections, sections to the total', () => {
    const sum = (list: readonly { hundredths: number }[]) => list.reduce((all, x) => all + x.hundredths, 0);
    expect(sum(sheet.sections)).toBe(sheet.hundredths);
    expect(sum(sheet.questions)).toBe(sheet.hundredths);
    for (const question of sheet.questions) expect(sum(question.parts)).toBe(question.hundredths);
    // 1 for the seed, 2/3 of 2 for the gaps, 9 by the person
    expect(sheet.hundredths).toBe(100 + 133 + 900);
    expect(sheet.of).toBe(4800);
  });

  it('names the band and where the next one begins', () => {
    expect(sheet.band).toEqual({ title: 'Beginning', from: 0, next: 2000 });
    const best = buildResultSheet({
      ...input,
      marks: allParts(paper).map(({ target, part }) => ({
        ...{ target, hundredths: part.marks, verdict: 'right', reasons: [], levels: null, comment: '' },
      })),
    });
    expect(best.band).toEqual({ title: 'Outstanding', from: 4100, next: null });
  });

  it('shows the right answer where something is wrong, and only where the paper allows it', () => {
    const partB = (of: typeof sheet) => of.questions[4]!.parts[1]!;
    expect(partB(sheet)).toMatchObject({ verdict: 'wrong', rightAnswer: '71.3 %', answerText: '0.71 %' });
    expect(sheet.questions[0]!.parts[0]!.rightAnswer).toBeNull();
    const silent = buildResultSheet({ ...input, paper: { ...paper, showRightAnswers: false } });
    expect(partB(silent).rightAnswer).toBeNull();
  });

  it('tells the level of each criterion with what it says, and the comment', () => {
    const note = sheet.questions[7]!.parts[0]!;
    expect(note.criteria.map((c) => [c.title, c.hundredths, c.of])).toEqual([
      ['Facts', 300, 300],
      ['Reasoning', expect.any(Number), 400],
      ['Action', 200, 300],
      ['Language', 100, 200],
    ]);
    expect([note.comment, note.verdict]).toEqual(['Exact.', 'partly']);
  });

  it('is not made while a part has no mark', () => {
    expect(() => buildResultSheet({ ...input, marks: machine.slice(1) })).toThrow('not ready');
  });
});
