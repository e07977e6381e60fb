import type { Content, Issue } from '../kinds/contract';
import { keyKindOf } from '../kinds/keyKinds';
import type { Item, Part } from '../papers/paper';
import type { Ruling } from '../papers/ruling';
import { placeOf } from '../forms/drawForm';
import { check } from '../validation/shapes';

/** One more answer that counts as right, in one component of a part. */
export interface AcceptedAnswer {
  readonly component: string;
  readonly answer: string;
}

/**
 * A correction of a part of a published question: one more answer is accepted, its key is another one, or something is
 * decided of it whatever was answered.
 */
export type KeyChange =
  | ({ readonly type: 'accept' } & AcceptedAnswer)
  | { readonly type: 'key'; readonly key: unknown }
  | { readonly type: 'ruling'; readonly ruling: Ruling };

/** Why a part cannot be corrected so. */
export type ChangeRefused =
  /** The kind cannot accept this answer. */
  | { readonly problem: 'not acceptable' }
  /** The key is none of this kind. */
  | { readonly problem: 'unreadable'; readonly path: string }
  /** The key contradicts itself or the question. */
  | { readonly problem: 'contradicts'; readonly issues: readonly Issue[] }
  /** The marks would be divided in another way than people have marked by. */
  | { readonly problem: 'other components' }
  /** The key is the one that it has. */
  | { readonly problem: 'no change' };

const componentsOf = (part: Part) => keyKindOf(part.kind).components(part.content, part.marks);

/**
 * What people mark, and the names of what the machine does: marks are kept under them, so a corrected key has the same.
 * A machine's component may be worth another share.
 */
const dividedAs = (part: Part): string =>
  JSON.stringify(componentsOf(part).map((one) => (one.by === 'people' ? one : [one.key, one.by])));

function withKey(item: Item, part: Part, key: unknown, locale: string): Part | ChangeRefused {
  const kind = keyKindOf(part.kind);
  const read = check(kind.key, key);
  if ('problems' in read) return { problem: 'unreadable', path: read.problems[0]!.path.join('.') };
  const content: Content<unknown, unknown> = { ...part.content, key: read.value };
  const made = { ...part, content };
  const issues = kind
    .check(content, placeOf(item, made, locale))
    .filter(({ severity }) => severity === 'severe');
  if (issues.length > 0) return { problem: 'contradicts', issues };
  if (dividedAs(made) !== dividedAs(part)) return { problem: 'other components' };
  if (JSON.stringify(read.value) === JSON.stringify(part.content.key)) return { problem: 'no change' };
  return made;
}

function changedPart(item: Item, part: Part, change: KeyChange, locale: string): Part | ChangeRefused {
  if (change.type === 'ruling')
    return part.ruling === change.ruling ? { problem: 'no change' } : { ...part, ruling: change.ruling };
  if (change.type === 'key') return withKey(item, part, change.key, locale);
  const key = keyKindOf(part.kind).accept(part.content, change.component, change.answer);
  return key === null ? { problem: 'not acceptable' } : { ...part, content: { ...part.content, key } };
}

/** An item as it is judged with a correction of one of its parts, or why it cannot be corrected so. */
export function changedItem(
  item: Item,
  letter: string,
  change: KeyChange,
  locale = 'en',
): { readonly item: Item } | ChangeRefused {
  const part = item.parts.find((one) => one.key === letter);
  if (!part) return { problem: 'not acceptable' };
  const made = changedPart(item, part, change, locale);
  if ('problem' in made) return made;
  return { item: { ...item, parts: item.parts.map((one) => (one === part ? made : one)) } };
}

/** The parts of an item whose scores follow from the key of one of them: itself, and what builds on its figures. */
export function affectedParts(item: Item, letter: string): ReadonlySet<string> {
  const found = new Set([letter]);
  for (;;) {
    const more = item.parts.filter(
      ({ key, kind, content }) =>
        !found.has(key) &&
        keyKindOf(kind)
          .buildsOn(content)
          .some((one) => found.has(one)),
    );
    if (more.length === 0) return found;
    for (const { key } of more) found.add(key);
  }
}
