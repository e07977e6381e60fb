import { describe, expect, it } from 'vitest';
import { technicianPaper } from '../../demo/technicianPaper';
import { drawForm } from '../forms/drawForm';
import { outlineSections } from './candidatePaper';
import { allParts, itemsOf, minutesOfItem } from './paper';

const paper = technicianPaper();
const draw = (seed: string) => drawForm(paper, { seed, locale: 'en', transcripts: false, aids: [] });
const copy = draw('a seed').paper;

describe('the candidate’s copy of a paper', () => {
  it('numbers the questions through all sections, with their marks', () => {
    expect(copy.questions.map((q) => q.number)).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10]);
    expect(copy.marks).toBe(4800);
    // Tray 14 has three parts of two marks
    expect(copy.questions[4]).toMatchObject({ title: 'Tray 14', marks: 600, section: 'B' });
  });

  it('is the same for the same seed and arranged otherwise for another', () => {
    expect(draw('a seed').paper).toEqual(copy);
    const orders = ['a', 'b', 'c', 'd', 'e'].map((seed) => {
      const [first] = draw(seed).paper.questions;
      return JSON.stringify(first!.parts[0]!.shown);
    });
    expect(new Set(orders).size).toBeGreaterThan(1);
  });

  it('holds no content of a part, only what its kind shows', () => {
    const text = JSON.stringify(copy);
    for (const key of ['"right":', '"accepted":', '"scheme":', '"groups":', '"tolerance":', '"content":'])
      expect(text).not.toContain(key);
    for (const { part } of allParts(paper))
      if (part.kind === 'code') expect(text).not.toContain(JSON.stringify(part.content));
  });

  it('tells of each section what the cover page shows', () => {
    expect(
      outlineSections(copy).map(({ key, questions, marks, limit }) => [key, questions, marks, limit]),
    ).toEqual([
      ['A', 4, 800, null],
      ['B', 3, 1300, null],
      ['C', 3, 2700, null],
    ]);
  });

  it('lets nothing of a source through but its tabs', () => {
    for (const { source } of copy.questions)
      if (source) {
        expect(Object.keys(source).sort()).toEqual(['key', 'tabs']);
        for (const tab of source.tabs) expect(Object.keys(tab).sort()).toEqual(['body', 'title']);
      }
  });
});

describe('minutes', () => {
  it('are the author’s, or the share of the marks where none are given', () => {
    const [first] = itemsOf(paper, paper.sections[0]!);
    expect(minutesOfItem(first!, paper)).toBe(first!.parts[0]!.minutes);
    const silent = { ...first!, parts: first!.parts.map((part) => ({ ...part, minutes: null })) };
    // one of 48 marks, of 60 minutes: 1.25
    expect(minutesOfItem(silent, paper)).toBeCloseTo(1.25);
  });

  it('refuses a paper that names an item it does not have', () => {
    const broken = { ...paper, bank: paper.bank.slice(1) };
    expect(() => drawForm(broken, { seed: 'x', locale: 'en', transcripts: false, aids: [] })).toThrow(
      'which is not with it',
    );
  });
});
