import { serveTasks } from '../helpers/serveTasks';
import { sha256 } from '../secrets';
import { paperFromDraft, type FromDraft } from './drafts';
import { draftOfFile, pathInFile } from './importedDraft';
import { readFile, type ImportedFile } from './readFile';
import { readPackage } from './readPackage';
import type { Issue } from '../../core/kinds/contract';
import { canonicalJson } from '../../core/journal/canonicalJson';
import { message } from '../../core/messages/message';
import type { ImportIssue } from '../../core/papers/importApi';

export interface ImportAsked {
  readonly bytes: Uint8Array;
  /** The newest version of each item that the bank has, by key, with the hash of what it was made of. */
  readonly items: Readonly<Record<string, { readonly version: number; readonly source: string | null }>>;
  readonly papers: Readonly<Record<string, number>>;
}

export interface Imported {
  readonly issues: readonly ImportIssue[];
  readonly paper: Extract<FromDraft, { paper: unknown }>['paper'] | null;
  readonly files: readonly ImportedFile[];
  /** The hash of what each item was made of, by key. */
  readonly sources: Readonly<Record<string, string>>;
}

const issue = (path: Issue['path'], severity: Issue['severity'], key: string, values = {}): ImportIssue => ({
  path: path.join('.'),
  severity,
  message: message(`import.${key}`, values),
});

/** Reads a paper's file: every problem at once, with its path in the file. */
async function imported({ bytes, items, papers }: ImportAsked): Promise<Imported> {
  const found = await readPackage(bytes);
  if ('problem' in found) {
    const issues = [{ path: '', severity: 'severe' as const, message: found.problem }];
    return { issues, paper: null, files: [], sources: {} };
  }
  const { paper: file, files: given } = found.read;
  const files = new Map<string, ImportedFile>();
  const issues: ImportIssue[] = [];
  for (const [name, own] of given) {
    const read = await readFile(name, own);
    if (read) files.set(name, read);
    else issues.push(issue([name], 'severe', 'fileBroken', { file: name }));
  }
  const beside = [...files].map(([name, { facts }]) => `${name} ${facts.hash}`).sort();
  const sources: Record<string, string> = {};
  const doubled = new Set<string>();
  const itemVersion = (key: string, document: unknown) => {
    if (key in sources) doubled.add(key);
    // A file that changed is a change of the items beside it.
    const source = sha256(canonicalJson({ document, beside }));
    sources[key] = source;
    const newest = items[key];
    return newest === undefined ? 1 : newest.source === source ? newest.version : newest.version + 1;
  };
  const draft = draftOfFile(file, itemVersion, (key) => (papers[key] ?? 0) + 1);
  for (const key of doubled) issues.push(issue([], 'severe', 'sameItem', { key }));
  const used = new Set<string>();
  const fileOf = (name: string) => {
    used.add(name);
    return files.get(name)?.facts ?? null;
  };
  const made = paperFromDraft(draft, fileOf);
  const own = 'paper' in made ? made.advice : made.issues;
  for (const one of own)
    issues.push({
      path: pathInFile(draft, one.path).join('.'),
      severity: one.severity,
      message: one.message,
    });
  for (const name of files.keys())
    if (!used.has(name)) issues.push(issue([name], 'advice', 'unusedFile', { file: name }));
  const severe = issues.some((one) => one.severity === 'severe');
  return {
    issues,
    sources,
    paper: 'paper' in made && !severe ? made.paper : null,
    files: [...used].flatMap((name) => files.get(name) ?? []),
  };
}

serveTasks({ read: imported });
