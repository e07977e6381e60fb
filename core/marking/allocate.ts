import { seededRandom, shuffled } from '../random';

/** First and second marks are given blind of each other, by two people. */
export type Turn = 'first' | 'second';

export interface Assigned {
  readonly script: number;
  readonly turn: Turn;
  readonly assessor: number;
}

/** What was shared out before, of scripts that are not shared out now. */
export interface SharedBefore {
  readonly loads: Readonly<Record<number, number>>;
  readonly scripts: number;
  readonly doubled: number;
}

export interface ToAllocate {
  /** Scripts of one item, of which some may be in `kept` already. */
  readonly scripts: readonly number[];
  readonly assessors: readonly number[];
  /** 0 to 100: the share of all scripts, in per cent, that is marked twice. */
  readonly doublePercent: number;
  /** Of these scripts what stays as it is: marks that were given, and work that nobody has taken away. */
  readonly kept: readonly Assigned[];
  /** Who may not mark a script, as they know whoever wrote it; nobody unless told. */
  readonly barred?: readonly { readonly script: number; readonly assessor: number }[];
  /** Of all other scripts of the item; none unless told. */
  readonly before?: SharedBefore;
  readonly seed: string;
}

export interface Allocation {
  readonly added: readonly Assigned[];
  /** What nobody can take: without assessors, or where the only one has the script's other mark or is barred. */
  readonly open: readonly Omit<Assigned, 'assessor'>[];
}

/**
 * Shares the scripts of one item out. The same input gives the same result, in whatever order scripts and assessors are
 * named. Loads of assessors differ by no more than one, as far as what is kept allows; both marks of a script never go to
 * one person; exactly `doublePercent` of all scripts (rounded half up) are marked twice, those that are already counted
 * first. Throws RangeError for a share outside of 0..100.
 */
export function allocate({
  scripts,
  assessors,
  doublePercent,
  kept,
  barred = [],
  before = { loads: {}, scripts: 0, doubled: 0 },
  seed,
}: ToAllocate): Allocation {
  if (!(doublePercent >= 0 && doublePercent <= 100))
    throw new RangeError(`the share of double marking is 0 to 100, not ${doublePercent}`);
  const isBarred = new Set(barred.map(({ script, assessor }) => `${script} ${assessor}`));
  const random = seededRandom(seed);
  const order = (ids: readonly number[]) =>
    shuffled(
      [...new Set(ids)].sort((a, b) => a - b),
      random,
    );
  const [people, all] = [order(assessors), order(scripts)];
  const load = new Map(people.map((id) => [id, before.loads[id] ?? 0]));
  const held = new Map<number, Map<Turn, number>>();
  const hold = ({ script, turn, assessor }: Assigned) => {
    held.set(script, (held.get(script) ?? new Map<Turn, number>()).set(turn, assessor));
    if (load.has(assessor)) load.set(assessor, load.get(assessor)! + 1);
  };
  kept.forEach(hold);
  const doubled = new Set(all.filter((script) => held.get(script)?.has('second')));
  const share = ((before.scripts + all.length) * doublePercent) / 100;
  const wanted = Math.floor(share + 0.5) - before.doubled;
  for (const script of all) {
    if (doubled.size >= wanted) break;
    doubled.add(script);
  }
  const [added, open]: [Assigned[], Omit<Assigned, 'assessor'>[]] = [[], []];
  const give = (script: number, turn: Turn) => {
    const own = held.get(script);
    if (own?.has(turn)) return;
    const other = own?.get(turn === 'first' ? 'second' : 'first');
    let best: number | null = null;
    // Among equal loads chance decides: nobody is always the first of two.
    const from = Math.floor(random() * people.length);
    for (const id of [...people.slice(from), ...people.slice(0, from)])
      if (
        id !== other &&
        !isBarred.has(`${script} ${id}`) &&
        (best === null || load.get(id)! < load.get(best)!)
      )
        best = id;
    if (best === null) return void open.push({ script, turn });
    const assigned = { script, turn, assessor: best };
    hold(assigned);
    added.push(assigned);
  };
  for (const script of all) {
    give(script, 'first');
    if (doubled.has(script)) give(script, 'second');
  }
  return { added, open };
}
