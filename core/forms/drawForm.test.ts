import { describe, expect, it } from 'vitest';
import { technicianPaper } from '../../demo/technicianPaper';
import { fieldSchoolPaper } from '../../demo/fieldSchoolPaper';
import { demoFiles } from '../../demo/files';
import { issuesOfSections } from '../papers/sectionIssues';
import { marksOfPaper, type FullPaper } from '../papers/paper';
import { drawForm, plainForm, wholeForm, type FormTerms } from './drawForm';

const paper = technicianPaper();
const terms = (seed: string, more: Partial<FormTerms> = {}): FormTerms => ({
  seed,
  locale: 'en',
  transcripts: false,
  aids: [],
  ...more,
});

/** The first section draws two of its first three questions, which are made worth the same. */
function drawing(more: Partial<FullPaper['sections'][number]> = {}): FullPaper {
  const [first, ...others] = paper.sections;
  const items = first!.items.map((entry, i) => ({ ...entry, draw: i < 3 ? 'pool' : null }));
  const pool = items.slice(0, 3).map((entry) => entry.key);
  const bank = paper.bank.map((item) =>
    pool.includes(item.key) ? { ...item, parts: [{ ...item.parts[0]!, marks: 200 }] } : item,
  );
  return {
    ...paper,
    bank,
    sections: [{ ...first!, items, draws: [{ draw: 'pool', count: 2 }], ...more }, ...others],
  };
}

const itemsOf = (of: FullPaper, seed: string) =>
  drawForm(of, terms(seed)).paper.questions.map((question) => question.item);
const SEEDS = Array.from({ length: 40 }, (_, i) => `seed ${i}`);

describe('draws and order', () => {
  it('asks each candidate as many as are drawn, and gives every form the same marks', () => {
    const of = drawing();
    const forms = SEEDS.map((seed) => drawForm(of, terms(seed)).paper);
    const asked = new Set(
      forms.map((form) =>
        form.questions
          .slice(0, 2)
          .map((q) => q.item)
          .join(),
      ),
    );
    // Two of three, in the author's order: three ways.
    expect(asked.size).toBe(3);
    for (const form of forms) {
      expect(form.questions).toHaveLength(wholeForm(of).paper.questions.length - 1);
      expect(form.marks).toBe(marksOfPaper(of));
      expect(form.questions.map((q) => q.number)).toEqual(form.questions.map((_, i) => i + 1));
    }
    expect(itemsOf(of, 'one')).toEqual(itemsOf(of, 'one'));
  });

  it('shuffles questions within their section, and keeps those together that share a source', () => {
    const second = paper.sections[1]!;
    const of = {
      ...paper,
      sections: [paper.sections[0]!, { ...second, shuffled: true }, paper.sections[2]!],
    };
    const plain = plainForm(paper).paper.questions.map((q) => q.item);
    const orders = new Set(SEEDS.map((seed) => itemsOf(of, seed).join()));
    expect(orders.size).toBeGreaterThan(1);
    const sourceOf = new Map(paper.bank.map((item) => [item.key, item.source?.key]));
    for (const seed of SEEDS) {
      const items = itemsOf(of, seed);
      expect([...items].sort()).toEqual([...plain].sort());
      expect(items.slice(0, 4)).toEqual(plain.slice(0, 4));
      const sources = items.map((item) => sourceOf.get(item)).filter((key) => key !== undefined);
      // Each source in one run.
      const runs = sources.filter((key, i) => key !== sources[i - 1]);
      expect(runs.length).toBe(new Set(sources).size);
    }
  });

  it.each<[string, FullPaper, string[]]>([
    ['nothing', drawing(), []],
    ['too few', drawing({ draws: [{ draw: 'pool', count: 4 }] }), ['section.tooFew']],
    ['no number', drawing({ draws: [] }), ['section.noCount', 'section.noCount', 'section.noCount']],
    ['other marks', { ...drawing(), bank: paper.bank }, ['section.marks']],
    [
      'two calculators',
      drawing({ aids: ['calculator', 'scientific-calculator'] }),
      ['section.twoCalculators'],
    ],
    [
      'a page of several, forward only',
      drawing({
        navigation: 'forward only',
        draws: [],
        items: paper.sections[0]!.items.map((entry) => ({ ...entry, page: 'one' })),
      }),
      ['section.page'],
    ],
  ])('finds %s wrong', (_, of, codes) =>
    expect(issuesOfSections(of).map((issue) => issue.message.code)).toEqual(codes),
  );
});

describe('aids in a copy', () => {
  it('names those of each section, and of an arrangement, and no others', () => {
    const aids = (more: Partial<FormTerms> = {}) =>
      drawForm(paper, terms('aids', more)).paper.sections.map((section) => section.aids);
    expect(aids().map((own) => own.includes('calculator'))).toEqual([false, true, false]);
    expect(JSON.stringify(drawForm(paper, terms('aids')))).not.toContain('read-aloud');
    expect(aids({ aids: ['read-aloud'] }).every((own) => own.includes('read-aloud'))).toBe(true);
  });

  it('has no meaning of a word where meanings are not allowed, and keeps the word', async () => {
    const school = fieldSchoolPaper(await demoFiles());
    const without = { ...school, sections: school.sections.map((section) => ({ ...section, aids: [] })) };
    const copy = (of: FullPaper) => JSON.stringify(drawForm(of, terms('meanings')).paper);
    expect(copy(school)).toContain('small round stones on a beach');
    expect(copy(without)).not.toContain('small round stones on a beach');
    expect(copy(without)).not.toContain('"meaning"');
    expect(copy(without)).toContain('shingle');
  });
});
