import { OUT_OF_REACH_MS, urgencyOf, type WatchChange, type WatchRow, type WatchView } from './api';

/** A room after a change: rows are put in the place of those they follow, newly invited candidates are added. */
export function applyChange(view: WatchView, { now, doorCode, rows, heard }: WatchChange): WatchView {
  const changed = new Map(rows.map((row) => [row.invitation, row]));
  const news = new Map(heard);
  const kept = view.rows.map((row) => {
    const next = changed.get(row.invitation) ?? row;
    changed.delete(row.invitation);
    const heardAt = news.get(row.invitation) ?? next.heardAt;
    return heardAt === next.heardAt ? next : { ...next, heardAt };
  });
  return { ...view, now, doorCode, rows: [...kept, ...changed.values()] };
}

/**
 * A row as it is at `now` (ms), later than it was told: the clock of a writing candidate has run on, and somebody of
 * whom nothing was heard is out of reach.
 */
export function rowAt(row: WatchRow, now: number): WatchRow {
  if (row.state !== 'writing') return row;
  const passed = Math.max(0, Math.min(now - row.at, row.leftMs));
  const silent = row.heardAt === null || now - row.heardAt > OUT_OF_REACH_MS;
  return {
    ...row,
    state: silent ? 'out of reach' : 'writing',
    usedMs: row.usedMs + passed,
    leftMs: row.leftMs - passed,
  };
}

/** The share (0..1) of a candidate's time that is gone. */
export const timeGoneOf = ({ usedMs, leftMs }: Pick<WatchRow, 'usedMs' | 'leftMs'>): number =>
  usedMs / Math.max(1, usedMs + leftMs);

/** The rows as they are now; who needs someone comes first, those alike by name. */
export const roomAt = ({ rows, now }: Pick<WatchView, 'rows' | 'now'>): WatchRow[] =>
  rows
    .map((row) => rowAt(row, now))
    .sort((a, b) => urgencyOf(a) - urgencyOf(b) || a.name.localeCompare(b.name));
