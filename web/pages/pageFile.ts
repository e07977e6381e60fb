import { MOST_PAGE_BYTES, type Page, type PageType } from '../../core/files/pages';
import { hashOf } from './hashOf';

/** A page as this device keeps and sends it. */
export interface PageFile {
  readonly page: Page;
  readonly blob: Blob;
}

/** Why a file cannot be a page; what to do about it is said in words. */
export type PageRefusal = 'empty' | 'noPage' | 'unreadable' | 'heic' | 'pdfTooLarge' | 'tooLarge';

export class PageProblem extends Error {
  readonly refusal: PageRefusal;
  constructor(refusal: PageRefusal) {
    super(refusal);
    this.refusal = refusal;
  }
}

/** Enough to read handwriting on a whole sheet; in pixels. */
const LONGEST_SIDE = 2000;
const QUALITY = 0.82;
/** No camera's picture is as large; nothing is read into memory beyond it. */
const MOST_FILE_BYTES = 80 * 1024 * 1024;

/** What a file is by its first bytes, whatever its name says. */
function contentOf(head: Uint8Array): 'picture' | 'heic' | 'pdf' | null {
  const text = String.fromCharCode(...head);
  if (text.startsWith('\u00ff\u00d8\u00ff') || text.startsWith('\u0089PNG')) return 'picture';
  if (text.startsWith('RIFF') && text.slice(8, 12) === 'WEBP') return 'picture';
  if (text.slice(4, 8) === 'ftyp' && /^(hei|hev|mif|msf|avif)/.test(text.slice(8, 12))) return 'heic';
  return text.includes('%PDF-') ? 'pdf' : null;
}

/** A part of a picture, in shares (0..1) of its width and height. */
export interface Crop {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export const WHOLE: Crop = { x: 0, y: 0, width: 1, height: 1 };

function jpegOf(canvas: HTMLCanvasElement): Promise<Blob> {
  return new Promise((done, failed) =>
    canvas.toBlob(
      (blob) => (blob ? done(blob) : failed(new PageProblem('unreadable'))),
      'image/jpeg',
      QUALITY,
    ),
  );
}

function sheetOf(width: number, height: number) {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [Math.max(1, Math.round(width)), Math.max(1, Math.round(height))];
  const pen = canvas.getContext('2d')!;
  // A see-through picture is read on white.
  pen.fillStyle = '#fff';
  pen.fillRect(0, 0, canvas.width, canvas.height);
  return { canvas, pen };
}

/**
 * Draws a picture again: smaller, upright as its camera meant it, and without what else its file holds, as the place where
 * it was taken.
 */
function drawnAnew(picture: ImageBitmap, { x, y, width, height }: Crop): Promise<Blob> {
  const [w, h] = [picture.width * width, picture.height * height];
  const scale = Math.min(1, LONGEST_SIDE / Math.max(w, h));
  const { canvas, pen } = sheetOf(w * scale, h * scale);
  const from = [picture.width * x, picture.height * y, w, h] as const;
  pen.drawImage(picture, ...from, 0, 0, canvas.width, canvas.height);
  return jpegOf(canvas);
}

/** A picture turned clockwise by a quarter. */
export async function turnedPicture(file: Blob): Promise<Blob> {
  const picture = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST_SIDE / Math.max(picture.width, picture.height));
  const { canvas, pen } = sheetOf(picture.height * scale, picture.width * scale);
  pen.translate(canvas.width, 0);
  pen.rotate(Math.PI / 2);
  pen.drawImage(picture, 0, 0, canvas.height, canvas.width);
  picture.close();
  return jpegOf(canvas);
}

async function named(blob: Blob, type: PageType): Promise<PageFile> {
  const bytes = new Uint8Array(await blob.arrayBuffer());
  const page: Page = { hash: await hashOf(bytes), bytes: bytes.length, type, turn: 0 };
  return { page, blob: new Blob([bytes], { type }) };
}

/** Makes a page of a file, by what it holds. Throws a `PageProblem` where it can be none. */
export async function pageOfFile(file: Blob, crop: Crop = WHOLE): Promise<PageFile> {
  if (file.size === 0) throw new PageProblem('empty');
  if (file.size > MOST_FILE_BYTES) throw new PageProblem('tooLarge');
  const content = contentOf(new Uint8Array(await file.slice(0, 1024).arrayBuffer()));
  if (content === null) throw new PageProblem('noPage');
  if (content === 'pdf') {
    if (file.size > MOST_PAGE_BYTES) throw new PageProblem('pdfTooLarge');
    return named(file, 'application/pdf');
  }
  const picture = await createImageBitmap(file).catch(() => {
    throw new PageProblem(content === 'heic' ? 'heic' : 'unreadable');
  });
  try {
    return await named(await drawnAnew(picture, crop), 'image/jpeg');
  } finally {
    picture.close();
  }
}
