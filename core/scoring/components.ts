import { message } from '../messages/message';
import { sumMarks } from '../marks';
import type { Component } from '../kinds/contract';
import { keyKindOf } from '../kinds/keyKinds';
import { allParts, type FullPaper } from '../papers/paper';

/** How kinds name their components: an entry, a cell (`row_column`), a group, a criterion. */
export const COMPONENT_KEY = /^[a-z0-9_-]{1,50}$/;

/** The component that people decide where the machine could not: all that the machine would have given. */
export const BY_HAND = 'by-hand';

/** The components of a part whose machine scoring failed. */
export function withoutMachine(components: readonly Component[]): Component[] {
  const of = sumMarks(components.filter((c) => c.by === 'machine').map((c) => c.of));
  return [
    { key: BY_HAND, by: 'people', of, name: message('component.byHand'), criterion: { levels: null } },
    ...components.filter((c) => c.by === 'people'),
  ];
}

/** The components of a part of which the machine could not decide some: people decide each of those as a whole. */
export const withUndecided = (components: readonly Component[], undecided: readonly string[]): Component[] =>
  components.map((component) =>
    component.by === 'machine' && undecided.includes(component.key)
      ? {
          ...component,
          by: 'people',
          name: component.name ?? message('component.byHand'),
          criterion: { levels: null },
        }
      : component,
  );

export const byPeople = (components: readonly Component[]): Component[] =>
  components.filter((c) => c.by === 'people');

const known = new WeakMap<FullPaper, ReadonlyMap<string, readonly Component[]>>();

/** The components of every part of a paper, by target; worked out once a paper. */
export function componentsOf(paper: FullPaper): ReadonlyMap<string, readonly Component[]> {
  const cached = known.get(paper);
  if (cached) return cached;
  const made = new Map(
    allParts(paper).map(({ target, part }) => [
      target,
      keyKindOf(part.kind).components(part.content, part.marks),
    ]),
  );
  known.set(paper, made);
  return made;
}
