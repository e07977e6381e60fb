import { documentAsText } from '../documents/documentAsText';
import { say } from '../messages/words';
import { describe, expect, it } from 'vitest';
import { technicianPaper } from '../../demo/technicianPaper';
import { drawForm } from '../forms/drawForm';
import { sumMarks } from '../marks';
import { BY_HAND, componentsOf } from '../scoring/components';
import { partsOfScript, unansweredCredits, scoreScript, type Script } from '../scoring/script';
import { marksOfPaper } from '../papers/paper';
import { isFullyMarked, type ComponentMark } from './componentMark';
import { buildResultSheet, type ResultInput } from './resultSheet';
import { totalOf } from './totals';

const paper = technicianPaper();
const script: Script = {
  paper,
  form: drawForm(paper, { seed: 'sheet', locale: 'en', transcripts: false, aids: [] }),
  locale: 'en',
  answers: {
    'parts-of-a-seed/A': { version: 1, response: { chosen: ['root'] } },
    'tray-14/B': { version: 1, response: { typed: '0.71' } },
    'tray-14/C': { version: 1, response: { filled: { a: 'kept', b: '65', c: 'third' } } },
  },
};
const nothing = { level: null };
const marked = [...scoreScript(script)].flatMap(([target, credits]) =>
  credits.map(({ component, hundredths, verdict, reasons }): ComponentMark => ({
    target,
    component,
    hundredths,
    verdict,
    reasons,
    ...nothing,
  })),
);
const person = (component: string, level: number, hundredths: number): ComponentMark => ({
  target: 'incident-note/A',
  component,
  hundredths,
  level,
  verdict: null,
  reasons: [],
});
const byPerson = [person('f', 3, 300), person('r', 3, 400), person('a', 2, 200), person('l', 1, 100)];
const input: ResultInput = {
  withheld: new Set(),
  state: 'confirmed',
  script,
  satAt: 1,
  handedInAt: Date.UTC(2026, 10, 24, 0, 30),
  finalBy: Date.UTC(2026, 11, 4),
  releasedAt: 2,
  timeZone: 'UTC',
  receipt: 'AAAA-BBBB-CCCC',
  marks: [...marked.filter((mark) => mark.target !== 'incident-note/A'), ...byPerson],
  judgements: {
    'incident-note/A': [
      {
        comment: 'Exact.',
        given: [],
        notes: [
          {
            id: 'b',
            anchor: { on: 'text', start: 9, end: 12, quote: 'K-4' },
            component: 'r',
            text: 'By which rule?',
          },
          {
            id: 'a',
            anchor: { on: 'text', start: 0, end: 5, quote: 'It is' },
            component: null,
            text: 'Say when.',
          },
        ],
      },
    ],
  },
  candidate: { name: 'Ilse Brandvold', reference: 'HR-2201' },
};
const sheet = buildResultSheet(input);
const counting = { copy: script.form.paper, of: 4800, withdrawn: 'scaled' } as const;

describe('the result sheet', () => {
  it('adds up: components to parts, parts to questions, questions to sections, sections to the total', () => {
    const sum = (list: readonly { hundredths: number }[]) => list.reduce((all, x) => all + x.hundredths, 0);
    expect(sum(sheet.sections)).toBe(sheet.hundredths);
    for (const question of sheet.questions) {
      expect(sum(question.parts)).toBe(question.hundredths);
      for (const part of question.parts) expect(sum(part.components)).toBe(part.hundredths);
    }
    // 1 for the seed, 0.67 + 0.67 for two gaps, 10 by the person
    expect(sheet.hundredths).toBe(100 + 134 + 1000);
    expect(sheet.hundredths).toBe(totalOf(counting, input.marks).hundredths);
    expect(sheet.of).toBe(4800);
  });

  it('lets penalties take a section to nothing, never below', () => {
    const penalty = { target: 'parts-of-a-seed/A', component: 'whole', hundredths: -100 };
    const marks = input.marks.map((m) => (m.target === penalty.target ? { ...m, ...penalty } : m));
    const lost = buildResultSheet({ ...input, marks });
    expect(lost.sections[0]!.hundredths).toBe(0);
    expect(lost.hundredths).toBe(134 + 1000);
    expect(totalOf(counting, marks).hundredths).toBe(lost.hundredths);
  });

  it('names the band and where the next one begins', () => {
    expect(sheet.band).toEqual({ title: 'Beginning', from: 0, next: 2000 });
    const all = partsOfScript(script).flatMap((part) =>
      unansweredCredits(part).map(({ component, of }) => ({
        target: part.target,
        component,
        hundredths: of,
        verdict: 'right' as const,
        reasons: [],
        ...nothing,
      })),
    );
    const best = buildResultSheet({ ...input, marks: all });
    expect(best.band).toEqual({ title: 'Outstanding', from: 4100, next: null });
  });

  it('gives the right answer where something is wrong, and only where the paper allows it', () => {
    const partB = (of: typeof sheet) => of.questions[4]!.parts[1]!;
    expect(partB(sheet)).toMatchObject({
      verdict: 'wrong',
      right: { typed: '71.3' },
      response: { typed: '0.71' },
    });
    expect(sheet.questions[0]!.parts[0]!.right).toBeNull();
    const silent = { ...script, paper: { ...paper, showRightAnswers: false } };
    expect(partB(buildResultSheet({ ...input, script: silent })).right).toBeNull();
    // Kept back for others who are still asked it, and told so once.
    const later = buildResultSheet({ ...input, withheld: new Set(['tray-14']) });
    expect([partB(later).right, later.rightLater, sheet.rightLater]).toEqual([null, true, false]);
    expect(buildResultSheet({ ...input, script: silent, withheld: new Set(['tray-14']) }).rightLater).toBe(
      false,
    );
  });

  it('gives the model answer of what people judge with the right answers, and a word on the whole script', () => {
    const note = (of: typeof sheet) => of.questions.find((q) => q.item === 'incident-note')!.parts[0]!;
    const told = (of: typeof sheet) => [note(of).modelAnswer !== null, of.comment];
    const comment = 'Clear throughout.';
    expect(told(buildResultSheet({ ...input, comment }))).toEqual([true, comment]);
    expect(told(buildResultSheet({ ...input, comment, shown: 'feedback' }))).toEqual([false, comment]);
    expect(told(buildResultSheet({ ...input, comment, shown: 'marks' }))).toEqual([false, null]);
    expect(told(buildResultSheet({ ...input, withheld: new Set(['incident-note']) }))).toEqual([false, null]);
  });

  it('gives the author’s explanation and the next level where right answers are shown, and nowhere else', () => {
    const toldIn = (change: Partial<ResultInput>) => {
      const made = buildResultSheet({ ...input, ...change });
      const [, action, language] = made.questions
        .find((q) => q.item === 'incident-note')!
        .parts[0]!.components.filter((c) => c.key !== 'f');
      return [
        made.questions[4]!.parts[1]!.explanation &&
          documentAsText(made.questions[4]!.parts[1]!.explanation, say),
        action!.otherLevels.map(({ label }) => label).join('; '),
        language!.otherLevels.map(({ label }) => label).join('; '),
      ];
    };
    // 171 ÷ 240 = 0.7125. Of the levels above “clear” and “readable” the nearest ones.
    expect(toldIn({})).toEqual([
      expect.stringContaining('171 ÷ 240 = 0.7125'),
      'clear, ordered',
      'plain, exact',
    ]);
    expect(toldIn({ shown: 'feedback' })).toEqual([null, '', '']);
    expect(toldIn({ shown: 'marks' })).toEqual([null, '', '']);
    expect(toldIn({ withheld: new Set(['tray-14', 'incident-note']) })).toEqual([null, '', '']);
    // Or all that were not reached, as the round says.
    const [, all] = toldIn({ shown: 'levels' });
    expect(String(all).split('; ')).toHaveLength(3);
    expect(all).toContain('clear, ordered');
    // Never on a candidate's copy.
    expect(JSON.stringify(script.form.paper)).not.toContain('0.7125');
  });

  it('names the two levels between which a mark lies, where such marks can be given', () => {
    /** The script with a step on that criterion, or none. */
    const withStep = (step: 50 | undefined) => {
      const own = structuredClone(script);
      const part = own.paper.bank.find(({ key }) => key === 'incident-note')!.parts[0]!;
      const { rubric } = part.content.key as { rubric: { criteria: { key: string; step?: number }[] } };
      const criterion = rubric.criteria.find(({ key }) => key === 'a')!;
      if (step) criterion.step = step;
      return own;
    };
    const half = (of: typeof script) => {
      const marks = input.marks.map((m) =>
        m.target === 'incident-note/A' && m.component === 'a' ? { ...m, hundredths: 150, level: null } : m,
      );
      const made = buildResultSheet({ ...input, script: of, marks });
      const parts = made.questions.find((q) => q.item === 'incident-note')!.parts[0]!;
      const { level, upTo, otherLevels } = parts.components.find(({ key }) => key === 'a')!;
      return [level?.hundredths ?? null, upTo?.hundredths ?? null, otherLevels.length];
    };
    expect(half(withStep(undefined))).toEqual([null, null, 0]);
    expect(half(withStep(50))).toEqual([100, 200, 0]);
  });

  it('numbers margin notes in the order of the answer', () => {
    const [note] = sheet.questions.find((q) => q.title === 'Incident note')!.parts;
    expect(note!.notes.map(({ number, text, about }) => [number, text, about?.values?.text ?? null])).toEqual(
      [
        [1, 'Say when.', null],
        [2, 'By which rule?', 'Reasoning'],
      ],
    );
  });

  it('shows no more than the round lets candidates see', () => {
    const parts = (shown: ResultInput['shown']) =>
      buildResultSheet({ ...input, shown }).questions.flatMap((q) => q.parts);
    expect(parts('key').some((part) => part.right !== null)).toBe(true);
    expect(parts('feedback').every((part) => part.right === null)).toBe(true);
    expect(parts('feedback').flatMap((part) => part.comments)).toEqual(['Exact.']);
    const bare = parts('marks');
    expect(
      bare.flatMap((part) => [...part.comments, ...part.notes, ...part.components.flatMap((c) => c.reasons)]),
    ).toEqual([]);
    expect(bare.map((part) => part.hundredths)).toEqual(parts('key').map((part) => part.hundredths));
  });

  it('is provisional while people read: what is open counts for nothing, and no band is told', () => {
    const early = buildResultSheet({
      ...input,
      state: 'provisional',
      marks: marked.filter((m) => m.target !== 'incident-note/A'),
    });
    // The incident note is worth 12 marks.
    expect([early.open, early.band]).toEqual([1200, null]);
    expect(early.questions.find((q) => q.title === 'Incident note')!.parts[0]!.verdict).toBe('not marked');
    expect(early.hundredths).toBe(sheet.hundredths - 1000);
    expect(() => buildResultSheet({ ...input, marks: [] })).toThrow('no mark');
  });

  it('tells the level of each criterion with what it says, and the comment', () => {
    const written = sheet.questions[7]!.parts[0]!;
    expect(written.components.map((c) => [c.name?.values?.text, c.hundredths, c.of, c.level?.label])).toEqual(
      [
        ['Facts', 300, 300, 'all'],
        ['Reasoning', 400, 400, 'explained'],
        ['Action', 200, 300, 'clear'],
        ['Language', 100, 200, 'readable'],
      ],
    );
    expect([written.comments, written.verdict]).toEqual([['Exact.'], 'partly']);
  });

  it('has one mark by people for all that the machine could not score', () => {
    const rest = input.marks.filter((m) => m.target !== 'tray-14/C');
    const hand: ComponentMark = { ...person(BY_HAND, 0, 150), target: 'tray-14/C', level: null };
    const part = buildResultSheet({ ...input, marks: [...rest, hand] }).questions[4]!.parts[2]!;
    expect(part.components).toMatchObject([{ hundredths: 150, of: 200, name: { code: 'component.byHand' } }]);
    expect([part.hundredths, part.verdict]).toEqual([150, 'partly']);
    expect(isFullyMarked(componentsOf(paper), [...rest, hand], marksOfPaper(paper))).toBe(true);
    expect(isFullyMarked(componentsOf(paper), rest, marksOfPaper(paper))).toBe(false);
  });

  it('is not made while a component has no mark', () => {
    expect(sumMarks(input.marks.map((m) => m.hundredths))).toBe(sheet.hundredths);
    expect(() => buildResultSheet({ ...input, marks: input.marks.slice(1) })).toThrow('not ready');
  });
});
