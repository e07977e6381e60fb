import {
  changedItem,
  affectedParts,
  type ChangeRefused,
  type KeyChange,
} from '../../core/corrections/change';
import type { WantedChange } from '../../core/corrections/api';
import { allParts, type FullPaper, type Item } from '../../core/papers/paper';
import type { Db } from '../db/open';
import { rounds } from '../db/schema';
import { conflict, notFound } from '../http/errors';
import { correctionsOf, itemWith, standingOf, type Correction } from '../papers/corrections';
import { isReadable, paperOfVersion, publishedItem } from '../papers/papers';
import { findRound } from '../schedule/queries';

export type Round = typeof rounds.$inferSelect;

/** An item version, and one of its parts. */
export interface PartRef {
  readonly item: Item;
  readonly letter: string;
  readonly target: string;
}

/** The part as it is judged now in a round's paper. */
export function partIn(db: Db, roundId: number, target: string): PartRef & { readonly round: Round } {
  const round = findRound(db, roundId);
  if (!round) throw notFound('noRound');
  const place = allParts(paperOfVersion(db, round.paperVersionId)).find((one) => one.target === target);
  if (!place) throw notFound('noQuestion');
  return { round, item: place.item, letter: place.part.key, target };
}

/** The rounds in which an item version stands, the signed-off ones among them. */
export const roundsWith = (db: Db, item: Pick<Item, 'key' | 'version'>): Round[] =>
  db
    .select()
    .from(rounds)
    .all()
    .filter((round) => isReadable(db, round.paperVersionId))
    .filter((round) =>
      paperOfVersion(db, round.paperVersionId).bank.some(
        (one) => one.key === item.key && one.version === item.version,
      ),
    );

/** How an item was judged, and how it is with a correction. */
export interface Judged {
  readonly before: Item;
  readonly after: Item;
  /** The parts that are scored again, by letter: none where something is decided whatever was answered. */
  readonly again: ReadonlySet<string>;
  /** The correction that is taken back; null where none is. */
  readonly takesBack: number | null;
}

function refuse(problem: ChangeRefused): never {
  if (problem.problem === 'not acceptable') throw conflict('not-acceptable');
  if (problem.problem === 'other components') throw conflict('key-other-shares');
  if (problem.problem === 'no change') throw conflict('key-same');
  if (problem.problem === 'unreadable') throw conflict('key-unreadable', { details: problem.path });
  throw conflict('key-contradicts', { reasons: problem.issues.map((issue) => issue.message) });
}

const scoredAgain = (item: Item, letter: string, change: KeyChange): ReadonlySet<string> =>
  change.type === 'ruling' ? new Set() : affectedParts(item, letter);

/** What a correction makes of an item. Refuses one that cannot be, and one while another is under way. */
export function judgedWith(db: Db, { item, letter }: PartRef, wanted: WantedChange, locale: string): Judged {
  const all = correctionsOf(db, item);
  if (all.some(({ finishedAt }) => finishedAt === null)) throw conflict('correction-under-way');
  if (wanted.type !== 'take back') {
    const made = changedItem(item, letter, wanted, locale);
    if ('problem' in made) return refuse(made);
    return { before: item, after: made.item, again: scoredAgain(item, letter, wanted), takesBack: null };
  }
  const standing = standingOf(all);
  const own = standing.find(({ id, part }) => id === wanted.correction && part === letter);
  if (!own) throw conflict('correction-gone');
  const published = publishedItem(db, item);
  const after = itemWith(
    published,
    standing.filter((one) => one !== own),
  );
  return { before: item, after, again: scoredAgain(item, letter, own.change!), takesBack: own.id };
}

/** As `judgedWith`, of a correction that is on record and whose job is at work. */
export function judgedBy(db: Db, correction: Correction): Judged {
  const version = { key: correction.item, version: correction.version };
  const all = correctionsOf(db, version);
  const published = publishedItem(db, version);
  const by = (rows: readonly Correction[]) =>
    itemWith(
      published,
      standingOf(rows, () => true),
    );
  const before = by(all.filter(({ id }) => id !== correction.id));
  const about =
    correction.takesBack === null ? correction : all.find(({ id }) => id === correction.takesBack)!;
  return {
    before,
    after: by(all),
    again: scoredAgain(before, correction.part, about.change!),
    takesBack: correction.takesBack,
  };
}

/** A paper with another judging of one of its items. */
export const paperWith = (paper: FullPaper, item: Item): FullPaper => ({
  ...paper,
  bank: paper.bank.map((one) => (one.key === item.key && one.version === item.version ? item : one)),
});
