import { everyNode } from '../../core/documents/everyNode';
import { withParsed } from '../../core/documents/withParsed';
import { isKindName, type KindName } from '../../core/kinds/kindNames';
import type { Issue } from '../../core/kinds/contract';
import { keyKindOf } from '../../core/kinds/keyKinds';
import { severe } from '../../core/kinds/shared/issues';
import { message } from '../../core/messages/message';
import {
  documentsOfPaper,
  type FullPaper,
  type Item,
  type Paper,
  type Part,
  type Section,
} from '../../core/papers/paper';
import { fullPaperSchema } from '../../core/papers/paperSchemas';
import { check } from '../../core/validation/shapes';
import { issuesOfBank } from '../../core/papers/bankIssues';
import { issuesOfSections } from '../../core/papers/sectionIssues';
import { issuesOfRightAnswers, type RunEvidence } from '../../core/papers/rightAnswers';
import { issuesOfSiblings } from '../../core/papers/siblings';
import type { ExpressionFound } from '../../core/kinds/evidence';
import { usualAids, type AidName } from '../../core/kit/aids';
import { parseFormula } from '../formulas/parseFormula';
import { compareExpressions } from '../scoring/compareExpressions';
import { parseDocument } from '../documents/parseDocument';
import type { FileOf } from '../documents/fileFacts';

/** As an author writes it: Markdown where the published paper has trees. */
export interface PartDraft extends Omit<Part, 'version' | 'prompt' | 'explanation' | 'content'> {
  readonly prompt: string;
  readonly explanation?: string;
  readonly content: unknown;
}

export interface SourceDraft {
  readonly key: string;
  readonly tabs: readonly { readonly title: string; readonly body: string }[];
}

export interface ItemDraft extends Omit<Item, 'introduction' | 'source' | 'parts'> {
  readonly introduction?: string;
  readonly source: SourceDraft | null;
  readonly parts: readonly PartDraft[];
}

interface SectionDraft
  extends
    Pick<Section, 'key' | 'title' | 'minutes'>,
    Partial<Pick<Section, 'navigation' | 'shuffled' | 'draws' | 'adaptive'>> {
  readonly aids?: AidName[] | undefined;
  readonly introduction: string;
  readonly handouts?: readonly { readonly key: string; readonly title: string; readonly body: string }[];
  readonly items: readonly {
    readonly key: string;
    readonly version: number;
    readonly page?: string;
    readonly draw?: string;
  }[];
}

export interface PaperDraft extends Omit<Paper, 'cover' | 'sections' | 'rules' | 'showRoughWork'> {
  readonly cover: string;
  readonly showRoughWork?: boolean;
  readonly sections: readonly SectionDraft[];
  readonly rules: Omit<Paper['rules'], 'text'> & { readonly text: string };
  readonly bank: readonly ItemDraft[];
}

/** Shown before the start, when nothing is on the device yet. */
const TEXTS_BEFORE = ['cover', 'rules.text'];
const TEXTS = [
  'sections.*.introduction',
  'sections.*.handouts.*.body',
  'bank.*.introduction',
  'bank.*.source.tabs.*.body',
  'bank.*.parts.*.prompt',
  'bank.*.parts.*.explanation',
];

const record = (value: unknown): Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null ? (value as Record<string, unknown>) : {};
const list = (value: unknown): readonly unknown[] => (Array.isArray(value) ? value : []);

const kindOf = (part: unknown): KindName | null => {
  const { kind } = record(part);
  return isKindName(kind) ? kind : null;
};

/** The fields of the parts' contents that are Markdown, or formulas, kind by kind. */
function fieldsOfKinds(draft: unknown, which: 'documents' | 'formulas'): string[] {
  return list(record(draft).bank).flatMap((item, i) =>
    list(record(item).parts).flatMap((part, k) => {
      const kind = kindOf(part);
      const fields = kind === null ? [] : keyKindOf(kind)[which];
      return fields.map((field) => `bank.${i}.parts.${k}.content.${field}`);
    }),
  );
}

/** Drafts are of the present version of their kinds; what few papers have may be left out. */
function withDefaults(draft: unknown): unknown {
  const versioned = (part: unknown) => {
    const kind = kindOf(part);
    return kind === null ? part : { version: keyKindOf(kind).contentVersion, ...record(part) };
  };
  const bank = list(record(draft).bank).map((item) => ({
    introduction: '',
    ...record(item),
    parts: list(record(item).parts).map(versioned),
  }));
  const sections = list(record(draft).sections).map((section) => ({
    handouts: [],
    navigation: 'free',
    aids: usualAids,
    shuffled: false,
    draws: [],
    ...record(section),
    items: list(record(section).items).map((item) => ({ page: null, draw: null, ...record(item) })),
  }));
  return { showRoughWork: false, ...record(draft), sections, bank };
}

/** Plays are counted by recording: one that appears twice has the same number of them. */
function issuesOfMedia(paper: FullPaper): Issue[] {
  const plays = new Map<string, number | null>();
  return documentsOfPaper(paper).flatMap(({ path, document }) =>
    [...everyNode(document)].flatMap(([node]) => {
      if (node.type !== 'audio') return [];
      const known = plays.get(node.file);
      plays.set(node.file, node.plays);
      return known === undefined || known === node.plays
        ? []
        : [severe(path, message('document.samePlays', { title: node.title }))];
    }),
  );
}

/** A draft as a paper that can be published with advice to its author, or all that keeps it from that. */
export type FromDraft =
  | { readonly paper: FullPaper; readonly advice: readonly Issue[] }
  | { readonly issues: readonly Issue[] };

const isSevere = (issue: Issue) => issue.severity === 'severe';

export function paperFromDraft(draft: unknown, fileOf?: FileOf): FromDraft {
  const parse = (withMedia: boolean) => (markdown: string) => {
    const { document, issues } = parseDocument(markdown, { fileOf, withMedia });
    return { value: document, issues };
  };
  const versioned = withDefaults(draft);
  const plain = withParsed(
    versioned,
    [...TEXTS_BEFORE, ...fieldsOfKinds(versioned, 'documents')],
    parse(false),
  );
  const rich = withParsed(plain.value, TEXTS, parse(true));
  const formulas = withParsed(rich.value, fieldsOfKinds(versioned, 'formulas'), parseFormula);
  const texts = {
    value: formulas.value,
    issues: [...plain.issues, ...rich.issues, ...formulas.issues],
  };
  const read = check(fullPaperSchema, texts.value, { all: true });
  if ('problems' in read) {
    const shape = read.problems.map(({ path, problem }) =>
      severe(path, message('author.misshapen', { problem })),
    );
    return { issues: [...texts.issues.filter(isSevere), ...shape] };
  }
  const paper = read.value;
  const { bank } = paper;
  const found = [
    ...texts.issues,
    ...issuesOfBank(bank),
    ...issuesOfSiblings(bank),
    ...issuesOfSections(paper),
    ...issuesOfMedia(paper),
  ];
  // Only what is whole can be scored.
  const issues = found.some(isSevere) ? found : [...found, ...issuesOfRightAnswers(bank, runHere())];
  return issues.some(isSevere) ? { issues: issues.filter(isSevere) } : { paper, advice: issues };
}

/** Expressions are compared here and now, each once; programs are run in the sandbox alone. */
function runHere(): RunEvidence {
  const known = new Map<string, ExpressionFound>();
  return (request) => {
    if (request.sort !== 'expression') return null;
    const key = JSON.stringify(request.run);
    const found = known.get(key) ?? compareExpressions(request.run);
    known.set(key, found);
    return found;
  };
}

/** A draft of our own, which is right. Throws with every issue where it is not. */
export function paperOfDraft(draft: PaperDraft, fileOf?: FileOf): FullPaper {
  const made = paperFromDraft(draft, fileOf);
  if ('paper' in made) return made.paper;
  throw new Error(`this draft cannot be published: ${JSON.stringify(made.issues)}`);
}
