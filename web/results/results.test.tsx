import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { technicianPaper } from '../../demo/technicianPaper';
import { drawForm } from '../../core/forms/drawForm';
import { storeResponse } from '../../core/kinds/stored';
import type { ComponentMark } from '../../core/results/componentMark';
import { buildResultSheet, type ResultSheet } from '../../core/results/resultSheet';
import { scoreScript, type Script } from '../../core/scoring/script';
import { fakeServer, Refused } from '../testing/fakeServer';
import { ResultView } from './ResultView';

afterEach(() => vi.unstubAllGlobals());

const paper = technicianPaper();
const written = { type: 'paragraph', content: [{ type: 'text', text: 'It got warm.' }] };
const script: Script = {
  paper,
  form: drawForm(paper, { seed: 'sheet', locale: 'en', transcripts: false, aids: [] }),
  locale: 'en',
  answers: {
    'parts-of-a-seed/A': storeResponse('choice', { chosen: ['root'] }),
    'tray-14/B': storeResponse('number', { typed: '12.5' }),
    'incident-note/A': storeResponse('writing', { text: { type: 'doc', content: [written] } }),
  },
};
const nothing = { level: null };
const byPerson = (component: string, level: number, hundredths: number): ComponentMark => ({
  target: 'incident-note/A',
  component,
  hundredths,
  level,
  verdict: null,
  reasons: [],
});
const sheetOf = (change: Partial<ResultSheet> = {}): ResultSheet => {
  const machine = [...scoreScript(script)].flatMap(([target, credits]) =>
    credits.map(({ component, hundredths, verdict, reasons }): ComponentMark => ({
      target,
      component,
      hundredths,
      verdict,
      reasons,
      ...nothing,
    })),
  );
  const first = byPerson('f', 3, 300);
  const people = [first, byPerson('r', 2, 200), byPerson('a', 3, 300), byPerson('l', 1, 100)];
  const sheet = buildResultSheet({
    state: 'confirmed',
    script,
    marks: [...machine, ...people],
    judgements: {
      'incident-note/A': [
        {
          comment: 'Exact, and no word too many.',
          given: [],
          notes: [
            {
              id: 'a',
              anchor: { on: 'text', start: 7, end: 11, quote: 'warm' },
              component: 'f',
              text: 'How warm?',
            },
          ],
        },
      ],
    },
    withheld: new Set(),
    candidate: { name: 'Ilse Brandvold', reference: 'HR-2201' },
    satAt: Date.UTC(2026, 10, 24),
    handedInAt: Date.UTC(2026, 10, 24, 0, 30),
    finalBy: Date.UTC(2026, 11, 4),
    releasedAt: Date.UTC(2026, 11, 4),
    timeZone: 'UTC',
    receipt: 'AAAA-BBBB-CCCC',
  });
  return { ...sheet, ...change };
};
async function open(sheet: ResultSheet) {
  fakeServer({ 'GET /result': () => sheet });
  render(<ResultView practice={null} attempt={null} home="/i/x" marked={null} />);
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
    // The note is numbered in its place, and stands beside the answer.
    expect(note.getByRole('group', { name: 'Your answer' })).toHaveTextContent('It got warm1.');
    expect(note.getByRole('list', { name: 'Notes of the assessors' })).toHaveTextContent(
      '1 Facts: How warm?',
    );
    // Each criterion with its level's own words.
    const criteria = sheetOf().questions.find((q) => q.number === 8)!.parts[0]!.components;
    expect(criteria).toHaveLength(4);
    for (const { name, level } of criteria) {
      expect(note.getByText(String(name!.values!.text))).toBeVisible();
      expect(note.getByText(level!.says)).toBeVisible();
    }
    // What was right is drawn as an answer of its kind, beside what was wrong.
    const right = card(/^Question 5 /).getAllByRole('group', { name: 'The right answer' });
    expect(right.map((one) => one.textContent).join()).toContain('71.3 %');
  });

  it('has an index with notes and marks, which leads to a question and back, and can leave out what lost nothing', async () => {
    await open(sheetOf());
    const index = within(screen.getByRole('navigation', { name: 'Questions on this sheet' }));
    const all = sheetOf().questions;
    expect(index.getAllByRole('link')).toHaveLength(all.length);
    const note = index.getByRole('link', { name: /^Question 8 / });
    // One margin note, and the comment on the whole answer.
    expect(note).toHaveTextContent('2 notes');
    await userEvent.click(note);
    expect(document.getElementById('question-8')).toHaveFocus();
    expect(card(/^Question 8 /).getByRole('link', { name: 'Back to the list of questions' })).toHaveAttribute(
      'href',
      '#questions',
    );
    await userEvent.click(index.getByRole('checkbox', { name: 'Only where marks were lost' }));
    const lost = all.filter((one) => one.hundredths < one.of).length;
    expect(lost).toBeLessThan(all.length);
    expect(index.getAllByRole('link')).toHaveLength(lost);
    expect(screen.getAllByRole('article')).toHaveLength(lost);
    expect(screen.queryByRole('heading', { level: 2, name: /^Question 1 / })).toBeNull();
    // Why it is right, by the author.
    expect(card(/^Question 5 /).getByRole('group', { name: 'Explanation' })).toHaveTextContent(
      '171 ÷ 240 = 0.7125',
    );
  });

  it('that may still change says so, who reads, and when it is final', async () => {
    const whole = sheetOf();
    const questions = whole.questions.map((one) =>
      one.number === 8
        ? {
            ...one,
            parts: one.parts.map((part) => ({
              ...part,
              components: part.components.map((c) => ({ ...c, verdict: 'not marked' as const })),
            })),
          }
        : one,
    );
    await open({ ...whole, questions, state: 'provisional' });
    const box = screen.getByRole('region', { name: 'This result is provisional' });
    expect(box).toHaveTextContent('It is not final and may still change.');
    expect(box).toHaveTextContent('4 December 2026');
    expect(box).toHaveTextContent('Assessors are still marking: Incident note.');
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
    render(<ResultView practice={null} attempt={null} home="/i/x" marked={null} />);
    expect(await screen.findByText('Your result comes by 4 December.')).toBeVisible();
  });
});
