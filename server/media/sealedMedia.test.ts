import { createDecipheriv } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { FullPaper } from '../../core/papers/paper';
import type { EnterReply, Prepared } from '../../core/sittings/api';
import { mediaName } from '../../core/sittings/mediaName';
import { sealedMedia } from '../db/schema';
import { keepFiles } from '../papers/keepFiles';
import type { ImportedFile } from '../papers/readFile';
import { sha256 } from '../secrets';
import type { ApiClient, Refusal } from '../testing/ApiClient';
import { mediaPaper, SPOKEN } from '../testing/mediaPaper';
import { serve, type Served } from '../testing/serve';

let app: Served;
let files: readonly ImportedFile[];
let paper: FullPaper;
let round: number;
beforeAll(async () => {
  app = await serve();
  ({ files, paper } = await mediaPaper());
  keepFiles(app.wired.services, files);
  round = app.addRound(paper);
});
afterAll(() => app.close());

const named = (is: ImportedFile['facts']['is']) => files.find((one) => one.facts.is === is)!;
const atCover = () => app.atCover(app.invite(round));
const prepared = async (client: ApiClient) => (await client.post<Prepared>('/sitting/prepare')).body;

function opened(sealed: Buffer, key: string): Buffer {
  const cipher = createDecipheriv('aes-256-gcm', Buffer.from(key, 'base64url'), sealed.subarray(0, 12));
  cipher.setAuthTag(sealed.subarray(-16));
  return Buffer.concat([cipher.update(sealed.subarray(12, -16)), cipher.final()]);
}

/** The sealed bytes of a file by its name under a key, fetched in parts as a device does. */
async function fetched(client: ApiClient, { media }: Prepared, name: string): Promise<Buffer | null> {
  const listing = media.find((one) => one.name === name);
  if (!listing) return null;
  const parts: Buffer[] = [];
  for (let from = 0; from < listing.bytes; from += 50_000) {
    const Range = `bytes=${from}-${Math.min(from + 50_000, listing.bytes) - 1}`;
    const { status, bytes } = await client.bytes(`/sitting/media/${listing.hash}`, { Range });
    expect(status).toBe(206);
    parts.push(bytes);
  }
  expect(sha256(Buffer.concat(parts))).toBe(listing.hash);
  return Buffer.concat(parts);
}

describe('media of a round', () => {
  it('are sealed once, and say nothing before the key has come', async () => {
    const [one, two] = [await atCover(), await atCover()];
    const [first, second] = await Promise.all([prepared(one), prepared(two)]);
    expect(first.media).toEqual(second.media);
    expect(first.media).toHaveLength(files.length);
    expect(app.wired.services.db.select().from(sealedMedia).all()).toHaveLength(files.length);
    // Neither by their hashes nor by their bytes.
    const told = JSON.stringify(first);
    for (const { facts, bytes } of files) {
      expect(told).not.toContain(facts.hash);
      const inside = Buffer.from(bytes.subarray(100, 132));
      for (const { hash } of first.media) {
        const sealed = await one.bytes(`/sitting/media/${hash}`);
        expect([sealed.status, sealed.bytes.includes(inside)]).toEqual([200, false]);
      }
    }
  });

  it('open under the round’s key after the start, those of a limited section when it was entered', async () => {
    const client = await atCover();
    const listing = await prepared(client);
    const device = await app.sitting(app.invite(round));
    const { keys } = device.opened;
    expect(Object.keys(keys.media)).toEqual(['']);
    const open = async (is: ImportedFile['facts']['is'], key: string) => {
      const { facts, bytes } = named(is);
      const sealed = await fetched(client, listing, mediaName(key, facts.hash, sha256));
      return sealed && opened(sealed, key).equals(Buffer.from(bytes));
    };
    expect(await open('audio', keys.media['']!)).toBe(true);
    expect(await open('pdf', keys.media['']!)).toBe(true);
    // The film belongs to section B.
    expect(await open('video', keys.media['']!)).toBeNull();
    const body = { ...device.batch(), section: 'B' };
    const entered = (await device.client.post<EnterReply>('/sitting/enter', body)).body.keys.media;
    expect(entered.B).not.toBe(entered['']);
    expect([await open('video', entered.B!), await open('captions', entered.B!)]).toEqual([true, true]);
  });

  it('are given to nobody else, and the test does not start without them', async () => {
    const client = await atCover();
    const { media, sealed } = await prepared(client);
    const [{ hash }] = media as [Prepared['media'][number]];
    const stranger = await app.atCover(app.invite(app.addRound({ ...paper, version: 2 })));
    expect((await stranger.bytes(`/sitting/media/${hash}`)).status).toBe(409);
    await prepared(stranger);
    expect((await stranger.bytes(`/sitting/media/${hash}`)).status).toBe(404);
    // Nor a file by the hash of its own bytes.
    expect((await client.bytes(`/sitting/media/${named('audio').facts.hash}`)).status).toBe(404);
    expect((await client.bytes(`/media/${named('audio').facts.hash}`)).status).toBe(401);
    const who = { store: 'store-of-its-own', opening: 'opening-of-its-own', takeOver: false };
    const refused = await client.post<Refusal>('/sitting/start', {
      ...who,
      sealed: sealed.map((s) => s.hash),
    });
    expect([refused.status, refused.body.code]).toEqual([409, 'paper-incomplete']);
  });

  it('give a candidate with that arrangement the transcript, and nobody else', async () => {
    const copyOf = async (transcripts: boolean) => {
      const device = await app.sitting(app.invite(round, 0, { transcripts }));
      const { sealed, keys } = device.opened;
      const { hash } = sealed.find((one) => one.section === '')!;
      const { bytes } = await device.client.bytes(`/sitting/sealed/${hash}`);
      const { gunzipSync } = await import('node:zlib');
      return gunzipSync(opened(bytes, keys.paper['']!)).toString();
    };
    expect(await copyOf(true)).toContain(SPOKEN);
    expect(await copyOf(false)).not.toContain(SPOKEN);
  });
});
