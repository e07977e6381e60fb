import { expect, it } from 'vitest';
import { documentAsText } from '../../core/documents/documentAsText';
import { say } from '../../core/messages/words';
import { marksOfCounted } from '../../core/results/attempts';
import { answerOnSheet, buildResultSheet, type ResultSheet } from '../../core/results/resultSheet';
import { componentsOf } from '../../core/scoring/components';
import { plainForm } from '../../core/forms/drawForm';
import { kindNames } from '../../core/kinds/kindNames';
import { readPdf } from '../testing/readPdf';
import { bestOf, samplePaper } from '../testing/samplePaper';
import { printSheet } from './printSheet';

const paper = samplePaper();
const NOTE = 'Which of the two?';
const COMMENT = 'Clear; the last sentence says more than was seen.';

/** A whole script, answered as well as can be, marked with half of everything. */
function sheet(name: string): ResultSheet {
  const answers = Object.fromEntries(kindNames.map((kind) => [`the-${kind}/A`, bestOf(kind)]));
  const marks = [...componentsOf(paper)].flatMap(([target, components]) =>
    components.map(({ key, of }) => ({
      target,
      component: key,
      hundredths: Math.floor(of / 2),
      verdict: 'partly' as const,
      level: null,
      reasons: [],
    })),
  );
  const { marks: counted } = marksOfCounted([{ attempt: 1, marks, total: 0 }], { draws: false });
  return buildResultSheet({
    state: 'confirmed',
    marks: counted,
    withheld: new Set<string>(),
    judgements: {
      'the-writing/A': [
        {
          comment: COMMENT,
          given: [],
          notes: [
            // Behind “cooler” of “The cooler failed at four”.
            {
              id: 'a',
              anchor: { on: 'text', start: 4, end: 10, quote: 'cooler' },
              component: null,
              text: NOTE,
            },
          ],
        },
      ],
    },
    receipt: 'AAAA-BBBB-CCCC',
    script: { paper, form: plainForm(paper), answers, locale: 'en-GB' },
    candidate: { name, reference: 'HR-2201' },
    // Half past eleven at night in Oslo on the 24th is still the 24th in UTC, and half past midnight is not.
    satAt: Date.UTC(2026, 10, 23, 23, 30),
    handedInAt: Date.UTC(2026, 10, 24, 0, 30),
    finalBy: Date.UTC(2026, 11, 4),
    releasedAt: Date.UTC(2026, 11, 4),
    timeZone: 'Europe/Oslo',
  });
}

interface Node {
  readonly role?: string;
  readonly children?: readonly Node[];
}
const rolesIn = ({ role, children = [] }: Node): string[] => [
  ...(role ? [role] : []),
  ...children.flatMap(rolesIn),
];

async function read(bytes: Uint8Array) {
  const { pdf, pages, text } = await readPdf(bytes);
  const trees = (await Promise.all(pages.map((page) => page.getStructTree()))) as (Node | null)[];
  return { pdf, text, roles: trees.flatMap((tree) => (tree ? rolesIn(tree) : [])) };
}

/** Lines break where they want, and a hyphen may be among them. */
const plain = (text: string) => text.replace(/\s+/g, '');

it('the PDF says what the sheet says, and tells a screen reader what is a heading, a paragraph, a table', async () => {
  const own = sheet('Ilse Brandvold');
  const bytes = await printSheet(own, 'The archive');
  const { pdf, text, roles } = await read(bytes);
  const parts = own.questions.flatMap((q) => q.parts);
  const wanted = [
    'Ilse Brandvold',
    own.title,
    'AAAA-BBBB-CCCC',
    '24 November 2026',
    '4 December 2026',
    COMMENT,
    'The cooler [1] failed',
    `[1] ${NOTE}`,
    ...own.questions.map((q) => `Question ${q.number} · ${q.title}`),
    ...parts.map((part) => documentAsText(part.prompt, say)),
    // Line by line: a page may end between two of them.
    ...parts
      .filter((part) => part.notes.length === 0)
      .flatMap((part) => answerOnSheet(part, part.response, say).text.split('\n')),
    ...own.sections.map((section) => section.title),
  ];
  const missing = wanted.filter((one) => !plain(text).includes(plain(one)));
  expect(missing).toEqual([]);
  const count = (role: string) => roles.filter((one) => one === role).length;
  expect([count('H1'), count('H2')]).toEqual([1, own.questions.length]);
  const rows = own.sections.length;
  expect([count('Table'), count('TR'), count('TH'), count('TD')]).toEqual([1, rows, rows, rows]);
  // Answers of several entries, options among them, are read one by one; so are notes and points found.
  const lists = parts
    .map((part) => answerOnSheet(part, part.response, say))
    .filter(({ form, text: all }) => form === 'list' && all !== '');
  const noted = parts.filter((part) => part.notes.length > 0).length;
  const pointed = parts.flatMap((part) => part.components).filter((c) => (c.points ?? []).length > 0).length;
  expect(lists.length).toBeGreaterThan(6);
  // One that goes on on the next page is told of on both.
  expect(count('L')).toBeGreaterThanOrEqual(lists.length + noted + pointed);
  expect(count('LI')).toBe(count('LBody'));
  expect(count('LI')).toBeGreaterThanOrEqual(lists.flatMap(({ text: all }) => all.split('\n')).length);
  expect(Buffer.from(bytes).toString('latin1')).toMatch(/\/O \/Table\s*\/Scope \/Row/);
  expect(count('P')).toBeGreaterThan(parts.length * 3);
  expect((await pdf.getMarkInfo())?.Marked).toBe(true);
  expect((await pdf.getMetadata()).info).toMatchObject({ Title: expect.stringContaining('Ilse') as string });
});

it('signs that the fonts of the app lack are printed all the same', async () => {
  const { text } = await read(await printSheet(sheet('Ζωή Παππά ∑'), 'The archive'));
  expect(plain(text)).toContain('ΖωήΠαππά∑');
});
