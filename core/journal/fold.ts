import type { Entry, KeptEntry } from './entry';

/** Everything a candidate has put down, by target. */
export interface Desk {
  readonly answers: Readonly<Record<string, unknown>>;
  readonly flags: Readonly<Record<string, boolean>>;
  readonly struck: Readonly<Record<string, readonly string[]>>;
  readonly opened: Readonly<Record<string, boolean>>;
  readonly place: string | null;
}

export const emptyDesk: Desk = { answers: {}, flags: {}, struck: {}, opened: {}, place: null };

/** One entry laid on the desk. */
export function applyEntry(
  desk: Desk,
  { about, target, value }: Pick<Entry, 'about' | 'target' | 'value'>,
): Desk {
  switch (about) {
    case 'answer':
      return { ...desk, answers: { ...desk.answers, [target]: value } };
    case 'flag':
      return { ...desk, flags: { ...desk.flags, [target]: value === true } };
    case 'strike':
      return { ...desk, struck: { ...desk.struck, [target]: value as string[] } };
    case 'opened':
      return { ...desk, opened: { ...desk.opened, [target]: true } };
    case 'place':
      return { ...desk, place: target };
  }
}

/**
 * The current desk: the fold of the journal. Within a device the last `seq` wins, whatever the order of arrival and
 * however often an entry came; between devices the one that arrived last wins. Entries not counted are left out.
 */
export function foldJournal(entries: readonly KeptEntry[]): Desk {
  const newest = new Map<string, Map<string, KeptEntry>>();
  for (const entry of entries) {
    if (entry.standing !== 'in-time' && entry.standing !== 'late') continue;
    const place = `${entry.about} ${entry.about === 'place' ? '' : entry.target}`;
    const byDevice = newest.get(place) ?? new Map<string, KeptEntry>();
    const known = byDevice.get(entry.device);
    if (!known || entry.seq > known.seq) byDevice.set(entry.device, entry);
    newest.set(place, byDevice);
  }
  let desk = emptyDesk;
  for (const byDevice of newest.values()) {
    const last = [...byDevice.values()].reduce((a, b) => (b.order > a.order ? b : a));
    desk = applyEntry(desk, last);
  }
  return desk;
}
