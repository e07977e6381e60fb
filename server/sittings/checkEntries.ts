import * as v from 'valibot';
import { flagValue, strikeValue, type Entry } from '../../core/journal/entry';
import { kindOf, type AnyKind } from '../../core/kinds/registry';
import { allParts, type FullPaper } from '../../core/papers/paper';

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
  const limited = paper.sections.flatMap((section) =>
    section.minutes === null ? [] : section.items.map((item) => [item.key, section.key] as const),
  );
  const items = new Set(allParts(paper).map((p) => p.item.key));
  const places = { items, parts: new Map(parts), limited: new Map(limited) };
  known.set(paper, places);
  return places;
}

/** The section of an entry's target where it has a limit of its own; null elsewhere. */
export const sectionOfTarget = (paper: FullPaper, target: string): string | null =>
  placesOf(paper).limited.get(target.split('/')[0]!) ?? null;

const ofItem = (places: Places, schema: v.GenericSchema) => (entry: Entry) =>
  places.items.has(entry.target) && v.is(schema, entry.value);

/** Entries that cannot belong to this paper, or whose value its kind cannot read. */
export function foreignEntries(paper: FullPaper, entries: readonly Entry[]): Entry[] {
  const places = placesOf(paper);
  const rules: Record<Entry['about'], (entry: Entry) => boolean> = {
    flag: ofItem(places, flagValue),
    opened: ofItem(places, v.literal(true)),
    place: ofItem(places, v.null()),
    strike: (entry) => places.parts.has(entry.target) && v.is(strikeValue, entry.value),
    answer: (entry) => {
      const part = places.parts.get(entry.target);
      const parsed = part && v.safeParse(part.kind.response, entry.value);
      return parsed?.success === true && part?.kind.misfit(part.shown, parsed.output) === null;
    },
  };
  return entries.filter((entry) => !rules[entry.about](entry));
}
