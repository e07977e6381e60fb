import sharp from 'sharp';
import { openPdf } from '../documents/openPdf';

const MOST_PIXELS = 40_000_000;
const LONGEST_SIDE = 2400;

export interface DecodedPicture {
  readonly type: 'image/png' | 'image/jpeg';
  readonly bytes: Uint8Array;
}

/** Decoded and re-encoded: PNG stays PNG, everything else becomes JPEG. Throws where it breaks off or is too large. */
export async function decodedPicture(bytes: Uint8Array): Promise<DecodedPicture | null> {
  const read = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'truncated' });
  const { format } = await read.metadata();
  if (!['jpeg', 'png', 'webp'].includes(format)) return null;
  const fitted = read.rotate().resize({
    width: LONGEST_SIDE,
    height: LONGEST_SIDE,
    fit: 'inside',
    withoutEnlargement: true,
  });
  const made = await (format === 'png' ? fitted.png() : fitted.jpeg({ quality: 88 })).toBuffer();
  return { type: format === 'png' ? 'image/png' : 'image/jpeg', bytes: made };
}

/** Does it begin as a PDF document does (ISO 32000-2, 7.5.2)? */
export const beginsAsPdf = (bytes: Uint8Array): boolean =>
  Buffer.from(bytes.subarray(0, 5)).toString('latin1') === '%PDF-';

/** How many pages a PDF document has; throws where it cannot be opened. */
export async function pagesOfPdf(bytes: Uint8Array): Promise<number> {
  const task = await openPdf(bytes);
  try {
    return (await task.promise).numPages;
  } finally {
    await task.destroy();
  }
}
