import { keyKindOf } from '../../core/kinds/keyKinds';
import { isKindName } from '../../core/kinds/kindNames';
import type { Issue } from '../../core/kinds/contract';

type Fields = Readonly<Record<string, unknown>>;

const fields = (value: unknown): Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Fields) : {};
const list = (value: unknown): readonly unknown[] => (Array.isArray(value) ? value : []);

const PAPER = { warningMinutes: [5], bands: [], showRightAnswers: false, cover: '' };
const RULES = { version: '1', statements: [] };
const SECTION = { introduction: '', minutes: null };
const ITEM = { source: null };
const PART = { minutes: null };

/** Remarks of the author's to themselves, anywhere in the file, are not part of the paper. */
function withoutRemarks(value: unknown, depth = 0): unknown {
  if (depth > 40) return value;
  if (Array.isArray(value)) return value.map((one: unknown) => withoutRemarks(one, depth + 1));
  if (typeof value !== 'object' || value === null) return value;
  const kept = Object.entries(value).filter(([name]) => name !== '$comment' && name !== '$schema');
  return Object.fromEntries(kept.map(([name, one]) => [name, withoutRemarks(one, depth + 1)]));
}

/** What an author leaves out of a part is as the kind has it in a new one. */
function partOf(part: unknown): unknown {
  const given = fields(part);
  if (!isKindName(given.kind)) return part;
  const blank = fields(keyKindOf(given.kind).blank());
  const content = fields(given.content);
  const half = (name: 'asked' | 'key') => ({ ...fields(blank[name]), ...fields(content[name]) });
  return { ...PART, ...given, content: { ...content, asked: half('asked'), key: half('key') } };
}

/** Which version an item or a paper of this key gets. */
export type VersionOf = (key: string, document: unknown) => number;

/**
 * A file's paper as a draft: items stand in their sections, versions are given here, and what may be left out has its
 * usual value.
 */
export function draftOfFile(file: unknown, itemVersion: VersionOf, paperVersion: VersionOf): unknown {
  const paper = fields(withoutRemarks(file));
  const bank: unknown[] = [];
  const sections = list(paper.sections).map((section) => {
    const items = list(fields(section).items).map((item) => {
      // Where it is shown is of the paper, not of the item.
      const { page = null, draw = null, ...own } = fields(item);
      const given = { ...ITEM, ...own, parts: list(own.parts).map(partOf) } as Fields;
      const key = String(given.key);
      const version = itemVersion(key, given);
      bank.push({ ...given, version });
      return { key: given.key, version, page, draw };
    });
    return { ...SECTION, ...fields(section), items };
  });
  const rules = { ...RULES, ...fields(paper.rules) };
  return { ...PAPER, ...paper, rules, sections, version: paperVersion(String(paper.key), paper), bank };
}

/** A path of the draft as the author finds it in the file: an item stands in its section. */
export function pathInFile(draft: unknown, path: Issue['path']): Issue['path'] {
  const [first, index, ...rest] = path;
  if (first !== 'bank' || typeof index !== 'number') return path;
  let before = 0;
  for (const [s, section] of list(fields(draft).sections).entries()) {
    const { length } = list(fields(section).items);
    if (index < before + length) return ['sections', s, 'items', index - before, ...rest];
    before += length;
  }
  return path;
}
