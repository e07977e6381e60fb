import { everyNode } from './everyNode';
import type { AudioNode, Document } from './document';

const FILE = /^[0-9a-f]{64}$/;

/**
 * The files that something names, wherever its texts stand in it: a copy, a section of it, what a kind shows. A node of
 * media names its own as `file`, a film that of its captions as well.
 */
export function filesIn(value: unknown): ReadonlySet<string> {
  const files = new Set<string>();
  const waiting: unknown[] = [value];
  while (waiting.length > 0) {
    const next = waiting.pop();
    if (typeof next !== 'object' || next === null) continue;
    const { type, file, captions } = next as Record<string, unknown>;
    if (typeof type === 'string')
      for (const one of [file, captions]) if (typeof one === 'string' && FILE.test(one)) files.add(one);
    waiting.push(...Object.values(next as Record<string, unknown>));
  }
  return files;
}

/** The recordings of some texts whose plays are counted. */
export function countedIn(documents: Iterable<Document>): ReadonlyMap<string, AudioNode & { plays: number }> {
  const counted = new Map<string, AudioNode & { plays: number }>();
  for (const document of documents)
    for (const [node] of everyNode(document))
      if (node.type === 'audio' && node.plays !== null)
        counted.set(node.file, { ...node, plays: node.plays });
  return counted;
}
