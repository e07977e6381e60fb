import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { PAGE_PART_BYTES, type Page, type PagePartReply } from '../../core/files/pages';
import { ApiProblem } from '../api/client';
import { PageBox, type PageLine } from './pageBox';
import type { PageFile } from './pageFile';
import { ownersOf, storedPages } from './pageStore';

const file = (sign: string, bytes: number): PageFile => ({
  page: { hash: sign.repeat(64), bytes, type: 'image/jpeg', turn: 0 },
  blob: new Blob([new Uint8Array(bytes)], { type: 'image/jpeg' }),
});
const refusal = (status: number, code: string) =>
  new ApiProblem(status, { code, message: { code: 'error.unknown' } });

/** A server that holds what has come; `failing` answers the next parts instead. */
function serverWith(failing: ApiProblem[] = []) {
  const held = new Map<string, number>();
  const put = vi.fn(({ hash, bytes }: Page, from: number, part: Blob): Promise<PagePartReply> => {
    const failure = failing.shift();
    if (failure) return Promise.reject(failure);
    const before = held.get(hash) ?? 0;
    const now = from === before ? before + part.size : before;
    held.set(hash, now);
    return Promise.resolve({ held: now, state: now === bytes ? 'here' : 'partly' });
  });
  const remedy = vi.fn(() => Promise.resolve(false));
  const line = { put, remedy, get: () => Promise.resolve(null) } satisfies PageLine;
  return { line, held, put, remedy };
}

let made = 0;
const boxOf = (line: PageLine, owner = `sitting ${++made}`) => ({
  owner,
  box: new PageBox({ owner, link: `link of ${owner}`, line }),
});
const isSent = async (box: PageBox) => vi.waitFor(() => expect(box.unsent).toBe(0));

beforeEach(() => void vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'], shouldAdvanceTime: true }));
afterEach(() => void vi.useRealTimers());

describe('the pages on a device', () => {
  it('are sent in parts, one page after the other', async () => {
    const { line, put } = serverWith();
    const { box } = boxOf(line);
    const [first, second] = [file('a', 2 * PAGE_PART_BYTES + 5), file('b', 7)];
    await Promise.all([box.keep(first), box.keep(second)]);
    await isSent(box);
    expect(put.mock.calls.map(([page, from, part]) => [page.hash[0], from, part.size])).toEqual([
      ['a', 0, PAGE_PART_BYTES],
      ['a', PAGE_PART_BYTES, PAGE_PART_BYTES],
      ['a', 2 * PAGE_PART_BYTES, 5],
      ['b', 0, 7],
    ]);
    expect(box.standing(first.page)).toEqual({ at: 'here' });
  });

  it('go on where the server holds them, after a connection that was lost and after the page was loaded again', async () => {
    const cut = refusal(0, 'unreachable');
    const { line, held, put } = serverWith([cut]);
    const { box, owner } = boxOf(line);
    const page = file('c', PAGE_PART_BYTES + 9);
    await box.keep(page);
    await vi.waitFor(() => expect(box.standing(page.page)).toEqual({ at: 'waiting' }));
    // Another opening of the same browser: what was kept is sent on from what had arrived elsewhere.
    held.set(page.page.hash, PAGE_PART_BYTES);
    const again = boxOf(line, owner).box;
    await again.begin();
    await isSent(again);
    expect(put.mock.calls.map(([, from]) => from)).toEqual([0, 0, PAGE_PART_BYTES]);
    box.wake();
    await isSent(box);
  });

  it('that are refused for good stand in nobody’s way; others wait', async () => {
    const { line, remedy } = serverWith([refusal(404, 'not-found')]);
    const { box } = boxOf(line);
    const [gone, next] = [file('d', 5), file('e', 6)];
    await Promise.all([box.keep(gone), box.keep(next)]);
    await isSent(box);
    expect([box.standing(gone.page).at, box.standing(next.page).at]).toEqual(['refused', 'here']);
    expect(remedy).toHaveBeenCalledOnce();
  });

  it('are announced first where the server has to know of them, and again until it does', async () => {
    const { line, put } = serverWith();
    const announce = vi.fn<(page: Page) => Promise<void>>().mockRejectedValueOnce(refusal(503, 'busy'));
    const { box } = boxOf({ ...line, announce });
    await box.keep(file('f', 4));
    await vi.waitFor(() => expect(announce).toHaveBeenCalledOnce());
    expect(put).not.toHaveBeenCalled();
    box.wake();
    await isSent(box);
    expect(announce).toHaveBeenCalledTimes(2);
  });

  it('leave the device after the hand-in, each when the server has it', async () => {
    const { line } = serverWith([refusal(0, 'unreachable')]);
    const { box, owner } = boxOf(line);
    const page = file('9', 8);
    await box.keep(page);
    box.end();
    expect(await ownersOf(`link of ${owner}`)).toEqual([owner]);
    box.wake();
    await isSent(box);
    await vi.waitFor(async () => expect(await storedPages(owner)).toEqual([]));
  });

  it('tell what is on its way from another device, and what a rehearsal keeps', async () => {
    const { box } = boxOf(serverWith().line);
    const { page } = file('8', 8);
    expect(box.standing(page)).toEqual({ at: 'elsewhere' });
    box.takeStates({ [page.hash]: 'here' });
    expect(box.standing(page)).toEqual({ at: 'here' });
    const practice = new PageBox(null);
    await practice.keep(file('8', 8));
    expect([practice.standing(page), (await practice.load(page))?.size]).toEqual([{ at: 'kept' }, 8]);
  });
});
