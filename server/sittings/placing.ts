import * as v from 'valibot';
import { flagValue, playValue, type EntryAbout } from '../../core/journal/entry';
import { wholeForm } from '../../core/forms/drawForm';
import { aidValue, handoutsTarget, highlightsValue, roughWorkValues } from '../../core/kit/notes';
import { candidateKindOf, type AnyCandidateKind } from '../../core/kinds/candidateKindOf';
import { readResponse } from '../../core/kinds/stored';
import { allParts, limitedSections, type FullPaper } from '../../core/papers/paper';
import { countedOf } from './plays';

interface Places {
  readonly items: ReadonlySet<string>;
  readonly sources: ReadonlySet<string>;
  readonly parts: ReadonlyMap<string, { readonly kind: AnyCandidateKind; readonly shown: unknown }>;
  /** By item: its section, where that has a limit of its own. */
  readonly limited: ReadonlyMap<string, string>;
}

const known = new WeakMap<FullPaper, Places>();

/** Where entries of a paper can belong; worked out once a paper. */
function placesOf(paper: FullPaper): Places {
  const cached = known.get(paper);
  if (cached) return cached;
  const parts = wholeForm(paper).paper.questions.flatMap((question) =>
    question.parts.map(
      ({ target, kind, shown }) => [target, { kind: candidateKindOf(kind), shown }] as const,
    ),
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

function eventSchema(paper: FullPaper, target: string): v.GenericSchema | null {
  const { part, name } = eventOf(target);
  const events = placesOf(paper).parts.get(part)?.kind.events ?? {};
  return Object.hasOwn(events, name) ? events[name]! : null;
}

/** Is there such a place in the paper? */
export function belongs(paper: FullPaper, about: EntryAbout, target: string): boolean {
  const places = placesOf(paper);
  if (about === 'aid') return !target.includes('/');
  if (about === 'rough-work') return Object.hasOwn(roughWorkValues, target);
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
  if (about === 'flag') return v.is(flagValue, value);
  if (about === 'play') return v.is(playValue, value);
  if (about === 'opened') return value === true;
  if (about === 'place') return value === null;
  if (about === 'aid') return v.is(aidValue, value);
  if (about === 'highlights') return v.is(highlightsValue, value);
  if (about === 'rough-work') return v.is(roughWorkValues[target]!, value);
  if (about === 'event') {
    const schema = eventSchema(paper, target);
    return schema !== null && v.is(schema, value);
  }
  const part = placesOf(paper).parts.get(target);
  const read = part && readResponse(part.kind, value);
  return read !== undefined && 'response' in read && part!.kind.misfit(part!.shown, read.response) === null;
}
