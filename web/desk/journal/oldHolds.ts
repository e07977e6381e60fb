import { chainStart } from '../../../core/journal/chain';
import { BATCH_LIMIT, byteLength, type Entry } from '../../../core/journal/entry';
import type { JournalKept } from '../../../core/sittings/api';
import { post } from '../../api/client';
import { keepHold, storedEntries, storedHolds, type StoredHold } from './deviceStore';
import { digest } from './digest';

/**
 * Delivers what is left of earlier holds of this store, as when another device took over while this one was without a
 * network. It is kept by the server as another version; what fails is tried again at the next opening.
 */
export async function sendOldHolds(sitting: string, current: number, opening: string): Promise<void> {
  const old = (await storedHolds(sitting)).filter((one) => one.hold < current);
  for (const hold of old) await sendOldHold(sitting, hold, opening).catch(() => undefined);
}

async function sendOldHold(sitting: string, stored: StoredHold, opening: string): Promise<void> {
  const { hold, token, heard } = stored;
  const frozen = (await storedEntries(sitting, hold)).filter((one) => one.chain !== null);
  for (let { held } = stored; held < frozen.length;) {
    const entries: Entry[] = [];
    let length = 0;
    for (const { entry } of frozen.slice(held)) {
      length += byteLength(JSON.stringify(entry)) + 1;
      if (entries.length > 0 && length > BATCH_LIMIT) break;
      entries.push(entry);
    }
    const number = held + entries.length;
    const chain = frozen[number - 1]?.chain ?? chainStart(token, digest);
    const head = { hold, token, number, chain, heard };
    const kept = await post<JournalKept>('/sitting/journal', { head, opening, entries });
    if (kept.held <= held) return;
    held = kept.held;
    await keepHold({ ...stored, held });
  }
}
