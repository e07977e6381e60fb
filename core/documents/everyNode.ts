import type { Block, Document, Inline } from './document';

export type Node = Block | Inline;

function inside(node: Node): readonly Node[] {
  switch (node.type) {
    case 'list':
      return node.items.flat();
    case 'table':
      return [node.head, ...node.rows].flat(2);
    case 'lines':
      return node.lines.flat();
    case 'chart':
      return [node.table];
    case 'audio':
      return node.transcript ?? [];
    default:
      if ('blocks' in node) return node.blocks;
      return 'children' in node ? node.children : [];
  }
}

/** Every node of a document with its depth, from the first one on; without recursion, whatever the nesting. */
export function* everyNode(document: Document): Generator<readonly [Node, depth: number]> {
  const waiting: (readonly [Node, number])[] = document.blocks.map((node) => [node, 1] as const).reverse();
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    yield next;
    const [node, depth] = next;
    for (const child of [...inside(node)].reverse()) waiting.push([child, depth + 1]);
  }
}

export type NodeType = Node['type'];

/** What these documents hold, so that what draws it can be fetched beforehand. */
export function typesIn(documents: Iterable<Document>): ReadonlySet<NodeType> {
  const types = new Set<NodeType>();
  for (const document of documents) for (const [node] of everyNode(document)) types.add(node.type);
  return types;
}
