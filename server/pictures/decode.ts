import sharp from 'sharp';

const MOST_PIXELS = 40_000_000;
const LONGEST_SIDE = 2400;

export interface DecodedPicture {
  readonly type: 'image/png' | 'image/jpeg';
  readonly bytes: Uint8Array;
}

/** Decoded and written anew: PNG stays PNG, everything else becomes JPEG. Throws where it breaks off or is too large. */
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

/** How many pages a PDF document has; throws where it cannot be opened. Nothing in it is run. */
export async function pagesOfPdf(bytes: Uint8Array): Promise<number> {
  // Only where a document is read: loading it puts slow stand-ins in the place of what the language has, JSON among it.
  const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const task = getDocument({
    data: Uint8Array.from(bytes),
    isEvalSupported: false,
    useSystemFonts: false,
    verbosity: 0,
  });
  try {
    return (await task.promise).numPages;
  } finally {
    await task.destroy();
  }
}
