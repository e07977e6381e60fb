import type { Nodes, Root } from 'mdast';
import type {} from 'mdast-util-directive';
import type {} from 'mdast-util-math';
import remarkDirective from 'remark-directive';
import remarkGfm from 'remark-gfm';
import remarkMath from 'remark-math';
import remarkParse from 'remark-parse';
import { unified } from 'unified';

const parser = unified().use(remarkParse).use(remarkGfm).use(remarkMath).use(remarkDirective).freeze();

export const DIRECTIVES = [
  'phrase',
  'meaning',
  'picture',
  'lines',
  'formula',
  'language',
  'audio',
  'video',
  'pdf',
  'chart',
] as const;
export type DirectiveName = (typeof DIRECTIVES)[number];

const isOurs = (name: string) => (DIRECTIVES as readonly string[]).includes(name);

/** Nodes that begin where they do only because a sign of plain prose was read as Markdown. */
export interface Markdown {
  readonly root: Root;
  /** As it was read in the end: signs that mean nothing here are escaped. */
  readonly source: string;
  /** What was read as an amount of money though it may be meant as a formula. */
  readonly amounts: readonly string[];
}

/** The text that a node was read from; nothing for one that was found in finished text, such as a bare address. */
export const sliceOf = (source: string, { position }: Nodes): string =>
  position ? source.slice(position.start.offset, position.end.offset) : '';

/**
 * `$5 … $6` is about money: a single `$` beside a digit, or with a space inside it, is a dollar sign. So is one that
 * opens a formula which a digit follows at once.
 */
function isAmount(source: string, node: Nodes): boolean {
  const whole = sliceOf(source, node);
  if (whole.startsWith('$$')) return false;
  return /^\$[\s\d]|\s\$$/.test(whole) || /^\d/.test(source.slice(node.position!.end.offset));
}

/** Only our directives count: `10:30` and `a:b` are words. */
function isStray(source: string, node: Nodes): boolean {
  if (node.type === 'textDirective' || node.type === 'leafDirective' || node.type === 'containerDirective')
    return !isOurs(node.name);
  return node.type === 'inlineMath' && isAmount(source, node);
}

function* all(node: Nodes): Generator<Nodes> {
  const waiting: Nodes[] = [node];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    yield next;
    if ('children' in next) waiting.push(...next.children);
  }
}

/** Rounds of escaping; each settles all strays that are seen at once, so that prose never needs many. */
const MOST_ROUNDS = 50;

/** Reads Markdown; what only looks like a directive or a formula is escaped and read again, so that it stays text. */
export function readMarkdown(text: string): Markdown {
  let source = text.replace(/\r\n?/g, '\n');
  const amounts: string[] = [];
  for (let round = 0; ; round += 1) {
    const root = parser.parse(source);
    const strays = [...all(root)].filter((node) => isStray(source, node));
    if (strays.length === 0 || round === MOST_ROUNDS) return { root, source, amounts };
    const places = strays.map((node) => node.position!.start.offset!);
    const money = strays.filter((node) => node.type === 'inlineMath');
    amounts.push(...money.map((node) => sliceOf(source, node).replaceAll('\\$', '$')));
    for (const at of places.sort((a, b) => b - a)) source = `${source.slice(0, at)}\\${source.slice(at)}`;
  }
}
