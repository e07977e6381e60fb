import { readFile } from 'node:fs/promises';
import sharp from 'sharp';
import { badRequest } from '../http/errors';
import { serveTasks } from '../helpers/serveTasks';
import { beginsAsPdf, decodedPicture, pagesOfPdf } from './decode';
import { sha256 } from '../secrets';
import type { ReadPage, SentFile } from './pictures';

/** Far more than a camera gives; a small file that unpacks to more is refused before it is unpacked. */
const MOST_PIXELS = 25_000_000;
const LONGEST_SIDE = 1600;
const QUALITY = 85;

sharp.concurrency(1);
sharp.cache(false);

/**
 * Decodes a JPEG and re-encodes it, turned as its camera meant it: what is kept is a picture and nothing else, without
 * place, device or hidden bytes.
 */
async function cleaned(bytes: Uint8Array): Promise<Uint8Array> {
  try {
    const picture = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'truncated' });
    const { format } = await picture.metadata();
    if (format !== 'jpeg') throw new Error(`a ${format}`);
    return await picture
      .rotate()
      .resize({ width: LONGEST_SIDE, height: LONGEST_SIDE, fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: QUALITY })
      .toBuffer();
  } catch {
    throw badRequest('pictureBroken');
  }
}

const MOST_PDF_PAGES = 20;

/** By its content alone, whatever its name or the device say. */
async function page({ path, hash }: SentFile): Promise<ReadPage | 'other bytes' | null> {
  const bytes = await readFile(path).catch(() => null);
  if (bytes === null || sha256(bytes) !== hash) return 'other bytes';
  try {
    if (!beginsAsPdf(bytes)) {
      const picture = await decodedPicture(bytes);
      return picture && { type: picture.type, view: picture.bytes };
    }
    const pages = await pagesOfPdf(bytes);
    return pages >= 1 && pages <= MOST_PDF_PAGES ? { type: 'application/pdf', view: null } : null;
  } catch {
    return null;
  }
}

serveTasks({ clean: cleaned, page });
