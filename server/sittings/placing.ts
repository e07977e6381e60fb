import type Joi from 'joi';
import type { EntryAbout } from '../../core/journal/entry';
import { flagSchema, playSchema } from '../../core/journal/parseEntry';
import { wholeForm } from '../../core/forms/drawForm';
import { handoutsTarget } from '../../core/kit/notes';
import { aidSchema, highlightsSchema, roughWorkSchemas } from '../../core/kit/noteSchemas';
import { candidateKindOf } from '../../core/kinds/candidateKindOf';
import { keyKindOf } from '../../core/kinds/keyKinds';
import type { KindName } from '../../core/kinds/kindNames';
import { readResponse } from '../../core/kinds/readResponse';
import { allParts, limitedSections, type FullPaper } from '../../core/papers/paper';
import { isOf } from '../../core/validation/shapes';
import { countedOf } from './plays';

interface Places {
  readonly items: ReadonlySet<string>;
  readonly sources: ReadonlySet<string>;
  readonly parts: ReadonlyMap<string, { readonly kind: KindName; readonly shown: unknown }>;
  /** By item: its section, where that has a limit of its own. */
  readonly limited: ReadonlyMap<string, string>;
}

const known = new WeakMap<FullPaper, Places>();

/** Where entries of a paper can belong; worked out once a paper. */
function placesOf(paper: FullPaper): Places {
  const cached = known.get(paper);
  if (cached) return cached;
  const parts = wholeForm(paper).paper.questions.flatMap((question) =>
    question.parts.map(({ target, kind, shown }) => [target, { kind, shown }] as const),
  );
  const items = new Set(allParts(paper).map((p) => p.item.key));
  const all = allParts(paper).map((p) => p.item);
  const sources = new Set([
    ...all.flatMap(({ source }) => (source ? [source.key] : [])),
    ...paper.sections.map(({ key }) => handoutsTarget(key)),
  ]);
  const places = { items, sources, parts: new Map(parts), limited: limitedSections(paper) };
  known.set(paper, places);
  return places;
}

/** The section of an entry's target where it has a limit of its own; null elsewhere. */
export const sectionOfTarget = (paper: FullPaper, target: string): string | null =>
  placesOf(paper).limited.get(target.split('/')[0]!) ?? null;

/** An event's target is that of its part, and its name. */
function eventOf(target: string): { readonly part: string; readonly name: string } {
  const at = target.lastIndexOf('/');
  return { part: target.slice(0, at), name: target.slice(at + 1) };
}

function eventSchema(paper: FullPaper, target: string): Joi.AnySchema | null {
  const { part, name } = eventOf(target);
  const asked = placesOf(paper).parts.get(part);
  const events = asked ? keyKindOf(asked.kind).events : {};
  return Object.hasOwn(events, name) ? events[name]! : null;
}

/** Is there such a place in the paper? */
export function belongs(paper: FullPaper, about: EntryAbout, target: string): boolean {
  const places = placesOf(paper);
  if (about === 'aid') return !target.includes('/');
  if (about === 'rough-work') return Object.hasOwn(roughWorkSchemas, target);
  if (about === 'highlights') return places.items.has(target) || places.sources.has(target);
  if (about === 'play') return countedOf(paper).has(target);
  if (about === 'event') return eventSchema(paper, target) !== null;
  return about === 'answer' ? places.parts.has(target) : places.items.has(target);
}

/** Can this be the value of a place: is it well-formed, and an answer to this very question? */
export function fits(
  paper: FullPaper,
  { about, target }: { readonly about: EntryAbout; readonly target: string },
  value: unknown,
): boolean {
  if (about === 'flag') return isOf(flagSchema, value);
  if (about === 'play') return isOf(playSchema, value);
  if (about === 'opened') return value === true;
  if (about === 'place') return value === null;
  if (about === 'aid') return isOf(aidSchema, value);
  if (about === 'highlights') return isOf(highlightsSchema, value);
  if (about === 'rough-work') return isOf(roughWorkSchemas[target]!, value);
  if (about === 'event') {
    const schema = eventSchema(paper, target);
    return schema !== null && isOf(schema, value);
  }
  const part = placesOf(paper).parts.get(target);
  if (!part) return false;
  const read = readResponse(part.kind, value);
  return 'response' in read && candidateKindOf(part.kind).misfit(part.shown, read.response) === null;
}
