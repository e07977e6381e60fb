import { beforeAll, describe, expect, it } from 'vitest';
import { demoFiles } from '../../demo/files';
import { fieldSchoolPaper } from '../../demo/fieldSchoolPaper';
import { galleryPaper, rehearsalPaper } from '../../demo/rehearsalPaper';
import { technicianPaper } from '../../demo/technicianPaper';
import { plainForm } from '../forms/drawForm';
import { allParts, itemsOf, marksOfPaper, navigations, type FullPaper } from '../papers/paper';
import { rehearsalLike } from './rehearsalLike';

let gallery: FullPaper;
let fieldSchool: FullPaper;
beforeAll(async () => {
  const files = await demoFiles();
  gallery = galleryPaper(files);
  fieldSchool = fieldSchoolPaper(files);
});
const like = (paper: FullPaper) => rehearsalLike(paper, [rehearsalPaper(), gallery]);
const kindsBySection = (paper: FullPaper) =>
  paper.sections.map((section) => [
    section.key,
    [...new Set(itemsOf(paper, section).flatMap(({ parts }) => parts.map(({ kind }) => kind)))].toSorted(),
  ]);
/** Everything written in a document, a list, a paper; how one goes through a section is no text. */
const textsIn = (value: unknown): string[] =>
  typeof value === 'string'
    ? value.length > 12 && !(navigations as readonly string[]).includes(value)
      ? [value]
      : []
    : value !== null && typeof value === 'object'
      ? Object.values(value).flatMap(textsIn)
      : [];

describe('the rehearsal of a round', () => {
  it.each([
    ['technician', () => technicianPaper(2)],
    ['field school', () => fieldSchool],
  ])('has the sections, ways, aids, limits and kinds of the %s paper', (_, paperOf) => {
    const real = paperOf();
    const made = like(real);
    expect(kindsBySection(made)).toEqual(kindsBySection(real));
    const shape = ({ sections }: FullPaper) =>
      sections.map(({ key, navigation, aids, minutes, handouts }) => ({
        key,
        navigation,
        aids,
        limited: minutes !== null,
        handouts: handouts.length > 0,
      }));
    expect(shape(made)).toEqual(shape(real));
    for (const [i, section] of made.sections.entries()) {
      expect(section.items.length).toBeGreaterThanOrEqual(2);
      if (section.minutes !== null) expect(section.minutes).toBeLessThanOrEqual(real.sections[i]!.minutes!);
    }
    // Every target is named once, and the whole can be drawn.
    const targets = allParts(made).map(({ target }) => target);
    expect(new Set(targets).size).toBe(targets.length);
    expect(plainForm(made).paper.questions).toHaveLength(made.bank.length);
    expect(plainForm(made).paper.marks).toBe(marksOfPaper(made));
  });

  it('holds no sentence of the real paper', () => {
    const real = technicianPaper(2);
    const known = new Set([...textsIn(rehearsalPaper()), ...textsIn(gallery)]);
    const own = new Set(textsIn(real).filter((text) => !known.has(text)));
    expect(own.size).toBeGreaterThan(50);
    expect(textsIn(like(real)).filter((text) => own.has(text))).toEqual([]);
  });

  it('asks beside a source what the real paper asks there', () => {
    const real = {
      ...gallery,
      sections: gallery.sections.map((one) => ({ ...one, items: one.items.slice(-2) })),
    };
    const made = like(real);
    const inSource = (paper: FullPaper) =>
      allParts(paper).some(({ part, item }) => part.kind === 'select-text' && item.source !== null);
    expect([inSource(real), inSource(made)]).toEqual([true, true]);
  });

  it('leaves out what nobody made up, and is the usual rehearsal where nothing is left', () => {
    const usual = rehearsalPaper();
    // The usual rehearsal alone has six kinds; a grid is none of them.
    const grid = { ...gallery, sections: gallery.sections.map((one) => ({ ...one })) };
    const only = (kind: string): FullPaper => ({
      ...grid,
      sections: grid.sections.map((section) => ({
        ...section,
        items: section.items.filter(({ key }) =>
          gallery.bank.some((item) => item.key === key && item.parts.some((part) => part.kind === kind)),
        ),
      })),
    });
    expect(rehearsalLike(only('grid-choice'), [usual])).toBe(usual);
    // One question of a kind alone is asked again under another name: two make a way through.
    const [section] = rehearsalLike(only('order'), [usual]).sections;
    expect(section!.items.map(({ key }) => key)).toEqual(['making-coffee', 'making-coffee-a']);
  });
});
