import { render, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { technicianPaper } from '../../demo/technicianPaper';
import { buildResultSheet, type PartMark, type ResultSheet } from '../../core/results/resultSheet';
import { buildCandidatePaper } from '../../core/papers/candidatePaper';
import { scoreScript } from '../../core/scoring/scoreSitting';
import { fakeServer, Refused } from '../testing/fakeServer';
import { ResultView } from './ResultView';

afterEach(() => vi.unstubAllGlobals());

const paper = technicianPaper();
const answers = {
  'parts-of-a-seed/A': { chosen: ['root'] },
  'incident-note/A': {
    text: {
      type: 'doc',
      content: [{ type: 'paragraph', content: [{ type: 'text', text: 'It got warm.' }] }],
    },
  },
};
const nothing = { levels: null, comment: '' };
const sheetOf = (change: Partial<ResultSheet> = {}): ResultSheet => {
  const { scored } = scoreScript(paper, answers, {});
  const byPerson: PartMark = {
    ...{ target: 'incident-note/A', hundredths: 900, verdict: null, reasons: [] },
    ...{ levels: { f: 3, r: 3, a: 2, l: 1 }, comment: 'Exact, and no word too many.' },
  };
  const marks = scored.map(({ target, hundredths, verdict, reasons }): PartMark => ({
    ...{ target, hundredths, verdict, reasons },
    ...nothing,
  }));
  const sheet = buildResultSheet({
    ...{
      state: 'confirmed',
      paper,
      form: buildCandidatePaper(paper, 'sheet'),
      answers,
      marks: [...marks, byPerson],
    },
    candidate: { name: 'Ilse Brandvold', reference: 'HR-2201' },
    ...{ satAt: Date.UTC(2026, 10, 24), releasedAt: Date.UTC(2026, 11, 4), receipt: 'AAAA-BBBB-CCCC' },
  });
  return { ...sheet, ...change };
};
async function open(sheet: ResultSheet) {
  fakeServer({ 'GET /result': () => sheet });
  render(<ResultView />);
  await screen.findByRole('heading', { level: 1, name: 'Ilse Brandvold' });
}
const card = (name: RegExp) => within(screen.getByRole('heading', { level: 2, name }).closest('article')!);

describe('the result', () => {
  it('begins with whose it is, the marks in all, the band and the next one', async () => {
    await open(sheetOf());
    // 1 for the seed and 9 by the assessor, of 48
    expect(screen.getByText('10')).toBeVisible();
    expect(screen.getByText('of 48')).toBeVisible();
    expect(screen.getByText('Beginning')).toBeVisible();
    expect(screen.getByText('from 0; next from 20')).toBeVisible();
    expect(screen.getByText('confirmed')).toBeVisible();
    expect(screen.getByText('Receipt AAAA-BBBB-CCCC')).toBeVisible();
    expect(screen.getByRole('link', { name: 'PDF' })).toHaveAttribute('href', '/api/result.pdf');
    const sections = within(screen.getByRole('region', { name: 'Marks by section' }));
    for (const { title } of sheetOf().sections) expect(sections.getByText(title)).toBeVisible();
  });

  it('gives each question its marks and the reasons, in words', async () => {
    await open(sheetOf());
    expect(card(/^Question 1 /).getByText('right')).toBeVisible();
    expect(card(/^Question 2 /).getByText('not answered')).toBeVisible();
    const note = card(/^Question 8 /);
    expect(note.getByText('Exact, and no word too many.')).toBeVisible();
    expect(note.getByText('It got warm.')).toBeVisible();
    // Each criterion with its level's own words.
    const criteria = sheetOf().questions.find((q) => q.number === 8)!.parts[0]!.criteria;
    expect(criteria).toHaveLength(4);
    for (const { title, says } of criteria) {
      expect(note.getByText(title)).toBeVisible();
      expect(note.getByText(says)).toBeVisible();
    }
  });

  it('of no marks in a section, and without bands, is drawn all the same', async () => {
    const sheet = sheetOf();
    const sections = sheet.sections.map((s) => ({ ...s, hundredths: -100 }));
    await open({ ...sheet, band: null, state: 'provisional', sections });
    expect(screen.getByText('provisional')).toBeVisible();
    expect(screen.queryByText('Band')).toBeNull();
    expect(screen.getAllByText('−1')).toHaveLength(sections.length);
  });

  it('says why it cannot be seen yet', async () => {
    fakeServer({ 'GET /result': () => new Refused(409, 'not-released', 'Your result comes by 4 December.') });
    render(<ResultView />);
    expect(await screen.findByText('Your result comes by 4 December.')).toBeVisible();
  });
});
