import Joi from 'joi';
import { withParsed, type ParseField } from '../documents/withParsed';
import { sumMarks, type Hundredths } from '../marks';
import { message } from '../messages/message';
import { check, objectOf, parsed } from '../validation/shapes';
import type { Component, Content, Issue, Place, Published } from './contract';
import type { AnyKeyKind } from './keyKinds';
import { severe } from './shared/issues';

const draftSchema = objectOf<Content<unknown, unknown>>({ asked: Joi.any(), key: Joi.any() });

function issuesOfShape(half: 'asked' | 'key', schema: Joi.AnySchema, value: unknown): Issue[] {
  const checked = check(schema, value, { all: true });
  if ('value' in checked) return [];
  return checked.problems.map(({ path, problem }) =>
    severe([half, ...path], message('author.misshapen', { problem })),
  );
}

/** Do they add up to the marks exactly, each under a key of its own? */
function issuesOfComponents(components: readonly Component[], marks: Hundredths): Issue[] {
  const keys = new Set(components.map(({ key }) => key));
  const issues: Issue[] = [];
  if (keys.size !== components.length) issues.push(severe(['key'], message('author.sameComponent')));
  if (sumMarks(components.map(({ of }) => of)) !== marks)
    issues.push(severe(['key'], message('author.componentSum')));
  return issues;
}

/** What is wrong with a draft, and advice, each with the path of the field that it is about. */
export function issuesOf(kind: AnyKeyKind, draft: unknown, place: Place): readonly Issue[] {
  const halves = check(draftSchema, draft);
  if ('problems' in halves) return [severe([], message('author.misshapen', { problem: 'asked, key' }))];
  const { asked, key } = halves.value;
  const shape = [...issuesOfShape('asked', kind.asked, asked), ...issuesOfShape('key', kind.key, key)];
  if (shape.length > 0) return shape;
  const content = parseContent(kind, halves.value);
  const found = kind.check(content, place);
  if (found.some((issue) => issue.severity === 'severe')) return found;
  return [...found, ...issuesOfComponents(kind.components(content, place.marks), place.marks)];
}

export interface Parsers {
  readonly markdown: ParseField;
  readonly formula: ParseField;
}

/** A draft as content that can be published, its texts as trees, or the severe issues that keep it from that. */
export function publishDraft(
  kind: AnyKeyKind,
  draft: unknown,
  place: Place,
  { markdown, formula }: Parsers,
): Published<unknown, unknown> {
  const texts = withParsed(draft, kind.documents, markdown);
  const read = withParsed(texts.value, kind.formulas, formula);
  const all = [...texts.issues, ...read.issues, ...issuesOf(kind, read.value, place)];
  const issues = all.filter((issue) => issue.severity === 'severe');
  return issues.length > 0 ? { issues } : { content: parseContent(kind, read.value) };
}

/** Parses content of the present version. Throws where it is misshapen. */
export function parseContent(kind: AnyKeyKind, stored: unknown): Content<unknown, unknown> {
  const { asked, key } = parsed(draftSchema, stored);
  return { asked: parsed(kind.asked, asked), key: parsed(kind.key, key) };
}

/** Parses content as it is stored, upgraded from an older version. Throws where it is newer or misshapen. */
export function readContent(kind: AnyKeyKind, stored: unknown, version: number): Content<unknown, unknown> {
  if (version > kind.contentVersion)
    throw new RangeError(`${kind.name}: content of version ${version} is newer than this program`);
  return parseContent(kind, version < kind.contentVersion ? kind.upgradeContent(stored, version) : stored);
}
