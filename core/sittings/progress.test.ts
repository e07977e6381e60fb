import { describe, expect, it } from 'vitest';
import { technicianPaper } from '../../demo/technicianPaper';
import { applyChange, emptyDesk, type Desk } from '../journal/desk';
import { showMarks } from '../marks';
import { buildCandidatePaper } from '../papers/candidatePaper';
import { namesOfOpen, progressAfter, progressOfPaper, progressOfQuestion } from './progress';

const paper = buildCandidatePaper(technicianPaper(), 'progress');
const [seed, trays, , , tray14] = paper.questions;
const put = (desk: Desk, target: string, value: unknown) =>
  applyChange(desk, { about: 'answer', target, value });

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
      missing: ['Part A: choose 1 more', 'Part B: enter a figure', 'Part C: 3 gaps are empty'],
      open: 600,
    });
    const more = put(desk, 'tray-14/A', { chosen: ['k-2', 'k-4'] });
    expect(progressOfQuestion(more, tray14!).open).toBe(400);
  });

  it('says nothing of what is missing before the question was opened', () => {
    expect(progressOfQuestion(emptyDesk, seed!).missing).toEqual([]);
  });

  it('is worked out anew only for the question an entry is about', () => {
    const before = progressOfPaper(emptyDesk, paper);
    const desk = put(emptyDesk, 'tray-14/B', { typed: '71.3' });
    const after = progressAfter(before, desk, 'tray-14/B');
    expect(after).toEqual(progressOfPaper(desk, paper));
    expect(after.filter((p, i) => p !== before[i]).map((p) => p.question.item)).toEqual(['tray-14']);
  });
});

describe('what hand-in leaves open', () => {
  it('is named with its marks and state', () => {
    let desk: Desk = emptyDesk;
    for (const { item } of paper.questions)
      desk = applyChange(desk, { about: 'opened', target: item, value: true });
    desk = { ...desk, opened: { ...desk.opened, [tray14!.item]: false } };
    desk = put(desk, 'which-trays/A', { chosen: ['t12'] });
    const lines = namesOfOpen(progressOfPaper(desk, paper), showMarks);
    expect(lines).toHaveLength(10);
    expect(lines[0]).toBe('Question 1, worth 1 mark, is looked at, but not answered.');
    expect(lines[1]).toBe('Question 2, worth 2 marks, is part done.');
    expect(lines[4]).toBe('Question 5, worth 6 marks, is unopened.');
  });
});
