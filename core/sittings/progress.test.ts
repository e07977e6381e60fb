import { describe, expect, it } from 'vitest';
import { technicianPaper } from '../../demo/technicianPaper';
import { applyChange, emptyDesk, type Desk } from '../journal/desk';
import { drawForm } from '../forms/drawForm';
import { storeResponse } from '../kinds/stored';
import { openQuestions, progressAfter, progressOfPaper, progressOfQuestion, stillDemanded } from './progress';

const { paper } = drawForm(technicianPaper(), {
  seed: 'progress',
  locale: 'en',
  transcripts: false,
  aids: [],
});
const [seed, trays, , , tray14] = paper.questions;
const partAt = (target: string) => paper.questions.flatMap((q) => q.parts).find((p) => p.target === target)!;
const put = (desk: Desk, target: string, response: unknown) =>
  applyChange(desk, { about: 'answer', target, value: storeResponse(partAt(target).kind, response) });

describe('how far a question is', () => {
  it('goes from unopened over looked at and part done to done', () => {
    const at = (desk: Desk) => progressOfQuestion(desk, trays!).state;
    const opened = applyChange(emptyDesk, { about: 'opened', target: trays!.item, value: true });
    const one = put(opened, trays!.parts[0]!.target, { chosen: ['t12'] });
    const two = put(one, trays!.parts[0]!.target, { chosen: ['t12', 't14'] });
    expect([emptyDesk, opened, one, two].map(at)).toEqual(['unopened', 'looked at', 'part done', 'done']);
  });

  it('says what is missing part by part, and counts the marks that are open', () => {
    const desk = put(emptyDesk, 'tray-14/A', { chosen: ['k-2'] });
    expect(progressOfQuestion(desk, tray14!)).toMatchObject({
      state: 'part done',
      open: 600,
      missing: [
        { part: 'A', what: { code: 'choice.chooseMore', values: { count: 1 } } },
        { part: 'B', what: { code: 'number.empty' } },
        { part: 'C', what: { code: 'gaps.allEmpty', values: { count: 3 } } },
      ],
    });
    const more = put(desk, 'tray-14/A', { chosen: ['k-2', 'k-4'] });
    expect(progressOfQuestion(more, tray14!).open).toBe(400);
  });

  it('says nothing of what is missing before the question was opened', () => {
    expect(progressOfQuestion(emptyDesk, seed!).missing).toEqual([]);
  });

  it('is computed again only for the question an entry is about', () => {
    const before = progressOfPaper(emptyDesk, paper);
    const desk = put(emptyDesk, 'tray-14/B', { typed: '71.3' });
    const after = progressAfter(before, desk, 'tray-14/B');
    expect(after).toEqual(progressOfPaper(desk, paper));
    expect(after.filter((p, i) => p !== before[i]).map((p) => p.question.item)).toEqual(['tray-14']);
  });
});

describe('a section that demands every answer', () => {
  const demanding = {
    ...paper,
    sections: paper.sections.map((section) =>
      section.key === 'A' ? { ...section, navigation: 'free, all answered' as const } : section,
    ),
  };
  const own = paper.questions.filter(({ section }) => section === 'A');

  it('names its questions until each of their parts has an answer, however good', () => {
    const numbers = (desk: Desk) => stillDemanded(demanding, desk).map(({ number }) => number);
    expect(numbers(emptyDesk)).toEqual(own.map(({ number }) => number));
    // One of two that are to be chosen is an answer.
    expect(numbers(put(emptyDesk, trays!.parts[0]!.target, { chosen: ['t12'] }))).not.toContain(
      trays!.number,
    );
    expect(stillDemanded(paper, emptyDesk)).toEqual([]);
  });
});

describe('what hand-in leaves open', () => {
  it('is told with its state', () => {
    let desk: Desk = emptyDesk;
    for (const { item } of paper.questions)
      desk = applyChange(desk, { about: 'opened', target: item, value: true });
    desk = { ...desk, opened: { ...desk.opened, [tray14!.item]: false } };
    desk = put(desk, 'which-trays/A', { chosen: ['t12'] });
    const open = openQuestions(progressOfPaper(desk, paper));
    expect(open).toHaveLength(10);
    expect([0, 1, 4].map((n) => open[n]!.state)).toEqual(['looked at', 'part done', 'unopened']);
  });
});
