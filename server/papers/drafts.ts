import * as v from 'valibot';
import { withDocuments } from '../../core/documents/withDocuments';
import { placeOf } from '../../core/forms/drawForm';
import { issuesOf } from '../../core/kinds/authoring';
import { isKindName, type KindName } from '../../core/kinds/candidateKinds';
import type { Issue } from '../../core/kinds/contract';
import { keyKindOf } from '../../core/kinds/keyKinds';
import { severe } from '../../core/kinds/shared/issues';
import { message } from '../../core/messages/message';
import { fullPaperSchema, type FullPaper, type Item, type Paper, type Part } from '../../core/papers/paper';
import { parseDocument, type FileOf } from '../documents/parseDocument';

/** As an author writes it: Markdown where the published paper has trees. */
export interface PartDraft extends Omit<Part, 'version' | 'prompt' | 'content'> {
  readonly prompt: string;
  readonly content: unknown;
}

export interface SourceDraft {
  readonly key: string;
  readonly tabs: readonly { readonly title: string; readonly body: string }[];
}

export interface ItemDraft extends Omit<Item, 'source' | 'parts'> {
  readonly source: SourceDraft | null;
  readonly parts: readonly PartDraft[];
}

export interface PaperDraft extends Omit<Paper, 'cover' | 'sections' | 'rules'> {
  readonly cover: string;
  readonly sections: readonly (Omit<Paper['sections'][number], 'introduction'> & {
    readonly introduction: string;
  })[];
  readonly rules: Omit<Paper['rules'], 'text'> & { readonly text: string };
  readonly bank: readonly ItemDraft[];
}

const TEXTS = [
  'cover',
  'rules.text',
  'sections.*.introduction',
  'bank.*.source.tabs.*.body',
  'bank.*.parts.*.prompt',
];

const record = (value: unknown): Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null ? (value as Record<string, unknown>) : {};
const list = (value: unknown): readonly unknown[] => (Array.isArray(value) ? value : []);

const kindOf = (part: unknown): KindName | null => {
  const { kind } = record(part);
  return isKindName(kind) ? kind : null;
};

/** The Markdown fields of the paper and, kind by kind, of its parts. */
function textFields(draft: unknown): string[] {
  const ofParts = list(record(draft).bank).flatMap((item, i) =>
    list(record(item).parts).flatMap((part, k) => {
      const kind = kindOf(part);
      const fields = kind === null ? [] : keyKindOf(kind).documents;
      return fields.map((field) => `bank.${i}.parts.${k}.content.${field}`);
    }),
  );
  return [...TEXTS, ...ofParts];
}

/** Drafts are of the present version of their kinds. */
function withVersions(draft: unknown): unknown {
  const versioned = (part: unknown) => {
    const kind = kindOf(part);
    return kind === null ? part : { version: keyKindOf(kind).contentVersion, ...record(part) };
  };
  const bank = list(record(draft).bank).map((item) => ({
    ...record(item),
    parts: list(record(item).parts).map(versioned),
  }));
  return { ...record(draft), bank };
}

/** What is wrong with the questions themselves, by their kinds, each with its path. */
export const issuesOfBank = (bank: readonly Item[]): Issue[] =>
  bank.flatMap((item, i) =>
    item.parts.flatMap((part, k) =>
      issuesOf(keyKindOf(part.kind), part.content, placeOf(item, part, 'en')).map((issue) => ({
        ...issue,
        path: ['bank', i, 'parts', k, 'content', ...issue.path],
      })),
    ),
  );

/** A draft as a paper that can be published with advice to its author, or all that keeps it from that. */
export type FromDraft =
  { readonly paper: FullPaper; readonly advice: readonly Issue[] } | { readonly issues: readonly Issue[] };

const isSevere = (issue: Issue) => issue.severity === 'severe';

export function paperFromDraft(draft: unknown, fileOf?: FileOf): FromDraft {
  const parse = (markdown: string) => parseDocument(markdown, fileOf);
  const texts = withDocuments(withVersions(draft), textFields(draft), parse);
  const read = v.safeParse(fullPaperSchema, texts.value);
  if (!read.success) {
    const shape = read.issues.map((issue) => {
      const path = (issue.path ?? []).map((step) => step.key as string | number);
      return severe(path, message('author.misshapen', { problem: issue.message }));
    });
    return { issues: [...texts.issues.filter(isSevere), ...shape] };
  }
  const issues = [...texts.issues, ...issuesOfBank(read.output.bank)];
  return issues.some(isSevere) ? { issues: issues.filter(isSevere) } : { paper: read.output, advice: issues };
}

/** A draft of our own, which is right. Throws with every issue where it is not. */
export function paperOfDraft(draft: PaperDraft): FullPaper {
  const made = paperFromDraft(draft);
  if ('paper' in made) return made.paper;
  throw new Error(`this draft cannot be published: ${JSON.stringify(made.issues)}`);
}
