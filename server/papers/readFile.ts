import { parseBuffer } from 'music-metadata';
import type { FileFacts } from '../documents/fileFacts';
import { beginsAsPdf, decodedPicture, pagesOfPdf } from '../pictures/decode';
import { sha256 } from '../secrets';

export interface ImportedFile {
  readonly facts: FileFacts;
  readonly type: string;
  readonly bytes: Uint8Array;
}

const LONGEST_S = 4 * 60 * 60;

/** Containers that browsers play, by how they begin (RFC 7845, 9559, 9639; ISO 14496-12), and what they are as sound and film. */
const CONTAINERS: readonly (readonly [RegExp, audio: string, video: string | null])[] = [
  [/^OggS/, 'audio/ogg', null],
  [/^(ID3|\xff[\xe2-\xfb])/, 'audio/mpeg', null],
  [/^RIFF....WAVE/s, 'audio/wav', null],
  [/^fLaC/, 'audio/flac', null],
  [/^.E\xdf\xa3/s, 'audio/webm', 'video/webm'],
  [/^....ftyp/s, 'audio/mp4', 'video/mp4'],
];

async function recording(bytes: Uint8Array): Promise<ImportedFile | null> {
  const begin = Buffer.from(bytes.subarray(0, 16)).toString('latin1');
  const container = CONTAINERS.find(([sign]) => sign.test(begin));
  if (!container) return null;
  const { format } = await parseBuffer(bytes, undefined, { duration: true, skipCovers: true });
  const seconds = format.duration ?? 0;
  if (!(seconds > 0 && seconds <= LONGEST_S)) return null;
  const [, audio, video] = container;
  const is = format.hasVideo && video !== null ? 'video' : 'audio';
  const facts: FileFacts = { is, hash: sha256(bytes), seconds: Math.round(seconds * 10) / 10 };
  return { facts, type: is === 'video' ? video! : audio, bytes };
}

/** Captions in WebVTT: text of UTF-8 that begins with its name and has at least one cue. */
function captions(bytes: Uint8Array): ImportedFile | null {
  const text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  if (!/^\ufeff?WEBVTT(\s|$)/.test(text) || !/\d\d:\d\d\.\d{3}\s+-->\s+/.test(text)) return null;
  return { facts: { is: 'captions', hash: sha256(bytes) }, type: 'text/vtt', bytes };
}

async function picture(bytes: Uint8Array): Promise<ImportedFile | null> {
  const made = await decodedPicture(bytes);
  return made && { facts: { is: 'picture', hash: sha256(made.bytes) }, ...made };
}

async function pdf(bytes: Uint8Array): Promise<ImportedFile> {
  const pages = await pagesOfPdf(bytes);
  return { facts: { is: 'pdf', hash: sha256(bytes), pages }, type: 'application/pdf', bytes };
}

function readerOf(
  name: string,
  bytes: Uint8Array,
): (bytes: Uint8Array) => Promise<ImportedFile | null> | ImportedFile | null {
  if (beginsAsPdf(bytes)) return pdf;
  if (/\.vtt$/i.test(name)) return captions;
  return /\.(png|jpe?g|webp)$/i.test(name) ? picture : recording;
}

/** A file beside a paper: what it is and what is known of it; null for anything that cannot be shown in a test. */
export async function readFile(name: string, bytes: Uint8Array): Promise<ImportedFile | null> {
  try {
    return await readerOf(name, bytes)(bytes);
  } catch {
    return null;
  }
}
