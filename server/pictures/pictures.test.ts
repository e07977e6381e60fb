import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { afterAll, expect, it } from 'vitest';
import { sha256 } from '../secrets';
import { Pictures } from './pictures';

const folder = mkdtempSync(path.join(tmpdir(), 'pictures-'));
const pictures = new Pictures();
afterAll(() => {
  pictures.close();
  rmSync(folder, { recursive: true });
});

function sent(name: string, bytes: Uint8Array) {
  const file = path.join(folder, name);
  writeFileSync(file, bytes);
  return { path: file, hash: sha256(bytes) };
}
const jpeg = await sharp({ create: { width: 64, height: 48, channels: 3, background: '#225544' } })
  .jpeg()
  .toBuffer();

it('a document that keeps its reader busy holds up neither arrivals nor, for ever, other candidates', async () => {
  const objects = Array.from({ length: 40_000 }, (_, n) => `${n} 0 obj\n`).join('');
  const hostile = sent('hostile.pdf', Buffer.from(`%PDF-1.7\n${objects}`));
  const done: string[] = [];
  const note = (what: string) => () => void done.push(what);
  await pictures.warmUp();
  const pages = [
    pictures.page(hostile, '1').then(note('hostile')),
    pictures.page(hostile, '1').then(note('hostile again')),
    pictures.page(sent('honest.jpg', jpeg), '2').then(note('page of another')),
  ];
  await pictures.clean(jpeg, '3').then(note('arrival'));
  await Promise.all(pages);
  expect(done).toEqual(['arrival', 'hostile', 'page of another', 'hostile again']);
});

it('tells bytes that changed on their way from a file that is no page', async () => {
  const page = sent('page.jpg', jpeg);
  expect(await pictures.page({ ...page, hash: sha256(Buffer.from('other')) }, '1')).toBe('other bytes');
  expect(await pictures.page({ ...page, path: path.join(folder, 'gone') }, '1')).toBe('other bytes');
  expect(await pictures.page(sent('text', Buffer.from('no picture')), '1')).toBeNull();
  expect(await pictures.page(page, '1')).toMatchObject({ type: 'image/jpeg' });
});
