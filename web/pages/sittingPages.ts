import type { PagePartReply } from '../../core/files/pages';
import { ApiProblem, getBytes, putBytes } from '../api/client';
import { openLink } from '../api/openLink';
import { PageBox, type PageLine } from './pageBox';
import { ownersOf } from './pageStore';

/** A part that takes longer is given up and sent again. */
const PATIENCE_MS = 60_000;

/** Bytes by an address of the API; null where there is nothing. */
export async function bytesOrNull(address: string): Promise<Uint8Array<ArrayBuffer> | null> {
  return getBytes(address).catch((error: unknown) => {
    if (error instanceof ApiProblem && error.status === 404) return null;
    throw error;
  });
}

const lineOf = (sitting: string, link: string): PageLine => ({
  put: (page, from, part) =>
    putBytes<PagePartReply>(`/sitting/${sitting}/pages/${page.hash}/${page.bytes}/${from}`, part, {
      signal: AbortSignal.timeout(PATIENCE_MS),
    }),
  get: async ({ hash, type }) => {
    const bytes = await bytesOrNull(`/sitting/pages/${hash}`);
    return bytes && new Blob([bytes], { type });
  },
  async remedy({ status }) {
    if (status !== 401 && status !== 403) return false;
    await openLink(link).catch(() => undefined);
    return true;
  },
});

const boxes = new Map<string, { readonly box: PageBox; readonly link: string }>();

/** The pages of a sitting on this device: one box for as long as the page lives, so that it goes on after the desk. */
export function pagesOfSitting(sitting: string, link: string): PageBox {
  const known = boxes.get(sitting);
  if (known) return known.box;
  const box = new PageBox({ owner: sitting, link, line: lineOf(sitting, link) });
  boxes.set(sitting, { box, link });
  window.addEventListener('online', () => box.wake());
  return box;
}

/** After the hand-in: what this device has yet to send of a link's sittings. */
export async function pagesStillHere(link: string): Promise<readonly PageBox[]> {
  // A device that can keep nothing still has in memory what it has yet to send.
  const inMemory = [...boxes].filter(([, one]) => one.link === link && one.box.unsent > 0);
  const owners = new Set([...(await ownersOf(link)), ...inMemory.map(([owner]) => owner)]);
  const found = [...owners].map((owner) => pagesOfSitting(owner, link));
  for (const box of found) {
    await box.begin();
    box.end();
  }
  return found;
}
