import * as v from 'valibot';
import { flagValue, strikeValue, type EntryAbout } from '../../core/journal/entry';
import { kindOf, type AnyKind } from '../../core/kinds/registry';
import { allParts, limitedSections, type FullPaper } from '../../core/papers/paper';

interface Places {
  readonly items: ReadonlySet<string>;
  readonly parts: ReadonlyMap<string, { readonly kind: AnyKind; readonly shown: unknown }>;
  /** By item: its section, where that has a limit of its own. */
  readonly limited: ReadonlyMap<string, string>;
}

const known = new WeakMap<FullPaper, Places>();

/** Where entries of a paper can belong; worked out once a paper. */
function placesOf(paper: FullPaper): Places {
  const cached = known.get(paper);
  if (cached) return cached;
  const parts = allParts(paper).map(({ target, part }) => {
    const kind = kindOf(part.kind);
    return [target, { kind, shown: kind.show(part.content) }] as const;
  });
  const items = new Set(allParts(paper).map((p) => p.item.key));
  const places = { items, parts: new Map(parts), limited: limitedSections(paper) };
  known.set(paper, places);
  return places;
}

/** The section of an entry's target where it has a limit of its own; null elsewhere. */
export const sectionOfTarget = (paper: FullPaper, target: string): string | null =>
  placesOf(paper).limited.get(target.split('/')[0]!) ?? null;

/** Is there such a place in the paper? */
export function belongs(paper: FullPaper, about: EntryAbout, target: string): boolean {
  const places = placesOf(paper);
  return about === 'answer' || about === 'strike' ? places.parts.has(target) : places.items.has(target);
}

/** Can this be the value of a place: is it well-formed, and an answer to this very question? */
export function fits(
  paper: FullPaper,
  { about, target }: { readonly about: EntryAbout; readonly target: string },
  value: unknown,
): boolean {
  if (about === 'flag') return v.is(flagValue, value);
  if (about === 'opened') return value === true;
  if (about === 'place') return value === null;
  if (about === 'strike') return v.is(strikeValue, value);
  const part = placesOf(paper).parts.get(target);
  try {
    const parsed = part && v.safeParse(part.kind.response, value);
    return parsed?.success === true && part?.kind.misfit(part.shown, parsed.output) === null;
  } catch {
    // Nested too deeply to be looked through.
    return false;
  }
}
