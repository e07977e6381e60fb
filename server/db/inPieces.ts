/** SQLite takes only so many values in one statement. */
const MOST = 5000;

/** Asks for what belongs to many keys, a piece at a time where they are very many. */
export function inPieces<Row>(keys: readonly number[], ask: (some: number[]) => readonly Row[]): Row[] {
  const rows: Row[] = [];
  for (let from = 0; from < keys.length; from += MOST) rows.push(...ask(keys.slice(from, from + MOST)));
  return rows;
}
