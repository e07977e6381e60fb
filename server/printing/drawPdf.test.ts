import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import PDFDocument from 'pdfkit';
import sharp from 'sharp';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { readPdf } from '../testing/readPdf';
import { Printer } from './printer';
import { TaggedPdf } from './TaggedPdf';

const folder = mkdtempSync(path.join(tmpdir(), 'draw-pdf-'));
const printer = new Printer();
afterAll(() => {
  printer.close();
  rmSync(folder, { recursive: true });
});

const written = path.join(folder, 'written.pdf');
beforeAll(async () => {
  const pdf = new PDFDocument({ size: 'A4' });
  const pieces: Buffer[] = [];
  pdf.on('data', (piece: Buffer) => pieces.push(piece));
  const ended = new Promise((done) => pdf.on('end', done));
  pdf.rect(0, 0, 595, 842).fill('#cc0000');
  pdf.addPage({ size: [600, 300] }).text('240 seeds');
  pdf.end();
  await ended;
  writeFileSync(written, Buffer.concat(pieces));
});

it('draws each page of a document upright and whole, with the same sides', async () => {
  const pages = (await printer.pagesOfPdf(written))!;
  const sizes = await Promise.all(pages.map((page) => sharp(page).metadata()));
  // A4 is 595.28 × 841.89 points: 1,100 pixels wide it is 1,555.7 high. 600 × 300 is twice as wide as it is high.
  expect(sizes.map(({ format, width, height }) => [format, width, height])).toEqual([
    ['jpeg', 1100, 1556],
    ['jpeg', 1100, 550],
  ]);
  const [red, white] = await Promise.all(pages.map((page) => sharp(page).stats()));
  expect(red!.dominant).toMatchObject({ r: 200, g: 8, b: 8 });
  expect(white!.channels.every(({ mean }) => mean > 240)).toBe(true);
});

it('gives no pages of what cannot be drawn, and goes on with the next', async () => {
  const broken = path.join(folder, 'broken.pdf');
  writeFileSync(broken, '%PDF-1.7\nno more of it');
  expect(await printer.pagesOfPdf(broken)).toEqual([]);
  expect(await printer.pagesOfPdf(path.join(folder, 'gone.pdf'))).toEqual([]);
  expect(await printer.pagesOfPdf(written)).toHaveLength(2);
});

it('tells what could not be drawn now from what has no pages', async () => {
  const stopped = new Printer();
  stopped.close();
  expect(await stopped.pagesOfPdf(written)).toBeNull();
});

it('prints pages with the notes on them, each a figure that says what it is', async () => {
  const pdf = new TaggedPdf({ title: 'A sheet', author: 'The archive', language: 'en-GB' });
  const [first] = (await printer.pagesOfPdf(written))!;
  const notes = [{ number: 7, shape: 'point' as const, points: [[0.5, 0.5]] as [number, number][] }];
  pdf.picture(first!, { words: 'Page 1 of the answer', turn: 0, notes });
  pdf.picture(Uint8Array.of(1, 2, 3), { words: 'Page 2 of the answer', turn: 0, notes: [] });
  const { pages, text } = await readPdf(await pdf.end(() => 'foot'));
  expect(JSON.stringify(await pages[0]!.getStructTree())).toMatch(
    /"role":"Figure",.*"alt":"Page 1 of the answer"/,
  );
  expect(text).toMatch(/7 .*Page 2 of the answer/);
});
