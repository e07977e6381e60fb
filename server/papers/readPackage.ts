import { unzip, type Unzipped } from 'fflate';
import { message, type Message } from '../../core/messages/message';

/** A paper's file, alone or with the files of its texts beside it. */
export interface Package {
  readonly paper: unknown;
  readonly files: ReadonlyMap<string, Uint8Array>;
}

export type PackageRead = { readonly read: Package } | { readonly problem: Message };

const MOST_FILES = 200;
const MOST_BYTES = 96 * 1024 * 1024;
/** Of the paper itself, which is text. */
const MOST_TEXT = 8 * 1024 * 1024;

const problem = (key: string, values?: Message['values']): PackageRead => ({
  problem: message(`import.${key}`, values),
});

const isZip = (bytes: Uint8Array) => bytes[0] === 0x50 && bytes[1] === 0x4b;
/** What archives hold beside what was put into them. */
const isHidden = (name: string) => /(^|\/)(__MACOSX|\.|Thumbs\.db)/.test(name) || name.endsWith('/');
const nameOf = (path: string) => path.split('/').at(-1)!;

/** Unpacks an archive; more than the limits is refused before it is unpacked, by what the archive says and as it grows. */
function unpacked(bytes: Uint8Array): Promise<Unzipped | null> {
  let [count, total] = [0, 0];
  let tooMuch = false;
  return new Promise((resolve) => {
    const filter = ({ name, originalSize }: { name: string; originalSize: number }) => {
      if (isHidden(name)) return false;
      [count, total] = [count + 1, total + originalSize];
      const tooLong = name.endsWith('.json') && originalSize > MOST_TEXT;
      tooMuch ||= count > MOST_FILES || total > MOST_BYTES || tooLong;
      return !tooMuch;
    };
    unzip(bytes, { filter }, (error, files) => resolve(error || tooMuch ? null : files));
  });
}

function parsedJson(bytes: Uint8Array): PackageRead | { readonly json: unknown } {
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return problem('notText');
  }
  try {
    return { json: JSON.parse(text) as unknown };
  } catch (error) {
    return problem('notJson', { problem: (error as Error).message.slice(0, 200) });
  }
}

/** Reads one JSON file, or a ZIP with exactly one and the files that it names. */
export async function readPackage(bytes: Uint8Array): Promise<PackageRead> {
  if (bytes.length === 0) return problem('empty');
  const files: Record<string, Uint8Array> | null = isZip(bytes)
    ? await unpacked(bytes)
    : { 'paper.json': bytes };
  if (files === null) return problem('archive', { files: MOST_FILES, megabytes: MOST_BYTES / 1024 / 1024 });
  const papers = Object.keys(files).filter((name) => name.endsWith('.json'));
  if (papers.length !== 1) return problem('onePaper', { count: papers.length });
  const read = parsedJson(files[papers[0]!]!);
  if (!('json' in read)) return read;
  const beside = Object.entries(files).filter(([name]) => !name.endsWith('.json'));
  return { read: { paper: read.json, files: new Map(beside.map(([name, one]) => [nameOf(name), one])) } };
}
