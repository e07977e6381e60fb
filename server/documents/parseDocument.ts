import katex from 'katex';
import type { BlockContent, DefinitionContent, Nodes, PhrasingContent, RootContent } from 'mdast';
import type { Directives } from 'mdast-util-directive';
import type { Block, Document, FormulaNode, Inline, LinesNode, Tongue } from '../../core/documents/document';
import { emptyDocument } from '../../core/documents/document';
import { inlineAsText } from '../../core/documents/documentAsText';
import { everyNode } from '../../core/documents/everyNode';
import type { Parsed } from '../../core/documents/withParsed';
import { message, type Message } from '../../core/messages/message';
import type { FileOf } from './fileFacts';
import { mediaNodes, type Given } from './mediaNodes';
import { readMarkdown, sliceOf } from './readMarkdown';

const MOST_CHARACTERS = 20_000;
const MOST_NODES = 4_000;
const MOST_LEVELS = 12;
const RIGHT_TO_LEFT = /^(ar|dv|fa|he|ku|ps|sd|ug|ur|yi)(-|$)|-(Arab|Hebr|Thaa|Nkoo|Syrc)(-|$)/i;

/** What a text may draw upon: the files beside it, and whether recordings, charts and the like belong in it. */
interface Surroundings {
  readonly fileOf: FileOf;
  readonly withMedia: boolean;
}

/** One text while it is made into a tree; what is wrong with it is gathered on the way. */
class Parsing {
  readonly issues: { severity: 'severe' | 'advice'; message: Message }[] = [];
  private readonly source: string;
  private readonly fileOf: FileOf;
  private readonly withMedia: boolean;

  constructor(source: string, { fileOf, withMedia }: Surroundings) {
    this.source = source;
    this.fileOf = fileOf;
    this.withMedia = withMedia;
  }

  refuse(code: string, values?: Message['values']): void {
    this.issues.push({ severity: 'severe', message: message(`document.${code}`, values) });
  }

  private notPossible(node: Nodes): [] {
    this.refuse('notPossible', { text: sliceOf(this.source, node).slice(0, 80) });
    return [];
  }

  private formula(tex: string, says: string | null): FormulaNode[] {
    if (tex.trim() === '') {
      this.refuse('noFormula');
      return [];
    }
    try {
      katex.renderToString(tex, { throwOnError: true, strict: 'ignore', maxExpand: 100 });
    } catch (error) {
      const problem = (error instanceof Error ? error.message : String(error)).slice(0, 200);
      this.refuse('formulaUnread', { tex: tex.slice(0, 200), problem });
      return [];
    }
    return [{ type: 'formula', tex, says }];
  }

  private picture(file: string, description: string, caption: string | null): Block[] {
    const found = this.fileOf(file);
    if (description.trim() === '') this.refuse('noDescription', { file });
    else if (found?.is !== 'picture') this.refuse(found === null ? 'noFile' : 'not-picture', { file });
    else return [{ type: 'picture', file: found.hash, description: description.trim(), caption }];
    return [];
  }

  private tongue(of: string): Tongue | null {
    try {
      const lang = Intl.getCanonicalLocales(of)[0] ?? '';
      if (lang !== '') return { lang, dir: RIGHT_TO_LEFT.test(lang) ? 'rtl' : 'ltr' };
    } catch {
      // Not a tag of a language: told below.
    }
    this.refuse('noLanguage', { of });
    return null;
  }

  private directiveInline(node: Directives): Inline[] {
    const given = node.attributes ?? {};
    const children = this.inlines(node.children as PhrasingContent[]);
    const words = inlineAsText(children);
    if (node.name === 'formula') return this.formulaDirective(given);
    if (node.name === 'phrase') {
      const key = given.id ?? '';
      if (/^[a-z0-9-]{1,40}$/.test(key)) return [{ type: 'phrase', key, children }];
      this.refuse('noPhraseKey', { phrase: words });
    } else if (node.name === 'meaning') {
      const says = given.says?.trim() ?? '';
      if (says !== '') return [{ type: 'meaning', says, children }];
      this.refuse('noMeaning', { word: words });
    } else if (node.name === 'language') {
      const tongue = this.tongue(given.of ?? '');
      if (tongue) return [{ type: 'language', ...tongue, children }];
    } else return this.notPossible(node);
    return children;
  }

  private formulaDirective(given: Given): FormulaNode[] {
    return this.formula(given.tex ?? '', given.says?.trim() || null);
  }

  private directiveBlock(node: Directives): Block[] {
    const given = node.attributes ?? {};
    if (node.name === 'formula') return this.formulaDirective(given);
    if (node.name === 'picture') {
      const description = inlineAsText(this.inlines(node.children as PhrasingContent[]));
      return this.picture(given.file ?? '', description, given.caption?.trim() || null);
    }
    if (node.type === 'containerDirective' && node.name === 'lines')
      return [this.lines(node.children, Number(given.start ?? 1))];
    if (node.type === 'containerDirective' && node.name === 'language') {
      const tongue = this.tongue(given.of ?? '');
      const blocks = this.blocks(node.children);
      return tongue ? [{ type: 'language', ...tongue, blocks }] : blocks;
    }
    const media = node.type === 'textDirective' ? undefined : mediaNodes[node.name];
    return media ? this.media(media, node) : this.notPossible(node);
  }

  private media(make: (typeof mediaNodes)[string], node: Directives): Block[] {
    if (!this.withMedia) {
      this.refuse('mediaNotHere', { name: node.name });
      return [];
    }
    const blocks = node.type === 'containerDirective' ? this.blocks(node.children) : [];
    const refuse = (code: string, values?: Message['values']) => this.refuse(code, values);
    const made = make({ given: node.attributes ?? {}, blocks, fileOf: this.fileOf, refuse });
    return made ? [made] : [];
  }

  /** A line of the author's is a line; an empty one parts two groups. */
  private lines(children: readonly (BlockContent | DefinitionContent)[], start: number): LinesNode {
    const groups = children.map((child) => {
      const lines: Inline[][] = [[]];
      const inlines =
        child.type === 'paragraph' ? this.inlines(child.children, '\n') : this.notPossible(child);
      for (const inline of inlines) {
        const [first = '', ...more] = inline.type === 'text' ? inline.text.split('\n') : [];
        if (inline.type === 'break') lines.push([]);
        else if (inline.type !== 'text') lines.at(-1)!.push(inline);
        else if (first !== '') lines.at(-1)!.push({ type: 'text', text: first });
        for (const text of more) lines.push(text === '' ? [] : [{ type: 'text', text }]);
      }
      return lines.filter((line) => line.length > 0);
    });
    const lines = groups.flatMap((group, i) => (i === 0 ? group : [[], ...group]));
    return { type: 'lines', start: Number.isSafeInteger(start) && start >= 0 ? start : 1, lines };
  }

  private inline(node: PhrasingContent, lineEnd: string): Inline[] {
    switch (node.type) {
      case 'text':
        return [{ type: 'text', text: node.value.replaceAll('\n', lineEnd) }];
      case 'html':
        // Not read as HTML: what stands there is shown as it was written.
        return [{ type: 'text', text: node.value }];
      case 'break':
        return [{ type: 'break' }];
      case 'strong':
      case 'emphasis':
        return [{ type: node.type, children: this.inlines(node.children) }];
      case 'delete':
        return [{ type: 'deleted', children: this.inlines(node.children) }];
      case 'inlineCode':
        return [{ type: 'code', text: node.value }];
      case 'inlineMath':
        return this.formula(node.value, null);
      case 'textDirective':
        return this.directiveInline(node);
      case 'link': {
        // An address that was only written down is text.
        if (!/^[[<]/.test(sliceOf(this.source, node))) return this.inlines(node.children);
        this.refuse('link');
        return [];
      }
      case 'linkReference':
        this.refuse('link');
        return [];
      default:
        return this.notPossible(node);
    }
  }

  private inlines(nodes: readonly PhrasingContent[], lineEnd = ' '): Inline[] {
    const made: Inline[] = [];
    for (const inline of nodes.flatMap((node) => this.inline(node, lineEnd))) {
      const last = made.at(-1);
      if (inline.type === 'text' && last?.type === 'text')
        made[made.length - 1] = { type: 'text', text: last.text + inline.text };
      else made.push(inline);
    }
    return made;
  }

  private block(node: RootContent): Block[] {
    switch (node.type) {
      case 'paragraph': {
        const [only, more] = node.children;
        if (only?.type === 'image' && !more)
          return this.picture(only.url, only.alt ?? '', only.title?.trim() || null);
        const children = this.inlines(node.children);
        return children.length === 0 ? [] : [{ type: 'paragraph', children }];
      }
      case 'heading': {
        const level = Math.min(node.depth, 3) as 1 | 2 | 3;
        return [{ type: 'heading', level, children: this.inlines(node.children) }];
      }
      case 'list': {
        const items = node.children.map((item) => {
          if (item.checked != null) this.notPossible(item);
          return this.blocks(item.children);
        });
        return [{ type: 'list', ordered: node.ordered === true, start: node.start ?? 1, items }];
      }
      case 'blockquote':
        return [{ type: 'quote', blocks: this.blocks(node.children) }];
      case 'table': {
        const [head = [], ...rows] = node.children.map((row) =>
          row.children.map((cell) => this.inlines(cell.children)),
        );
        const align = head.map((_, i) => node.align?.[i] ?? null);
        return [{ type: 'table', align, head, rows }];
      }
      case 'code':
        return [{ type: 'code', text: node.value }];
      case 'math':
        return this.formula(node.value, null);
      case 'thematicBreak':
        return [{ type: 'divider' }];
      case 'html':
        return [{ type: 'paragraph', children: [{ type: 'text', text: node.value }] }];
      case 'leafDirective':
      case 'containerDirective':
        return this.directiveBlock(node);
      default:
        return this.notPossible(node);
    }
  }

  blocks(nodes: readonly RootContent[]): Block[] {
    return nodes.flatMap((node) => this.block(node));
  }
}

/** A tree that would be slow to draw, or that names two phrases alike. */
function checkTree(document: Document, parsing: Parsing): void {
  const keys = new Set<string>();
  let nodes = 0;
  let deepest = 0;
  for (const [node, depth] of everyNode(document)) {
    nodes += 1;
    deepest = Math.max(deepest, depth);
    if (node.type !== 'phrase') continue;
    if (keys.has(node.key)) parsing.refuse('samePhraseKey', { key: node.key });
    keys.add(node.key);
  }
  if (nodes > MOST_NODES) parsing.refuse('tooMuch', { most: MOST_NODES });
  if (deepest > MOST_LEVELS) parsing.refuse('tooDeep', { most: MOST_LEVELS });
}

interface ParsedDocument {
  readonly document: Document;
  readonly issues: Parsed['issues'];
}

function refused(code: string, most: number): ParsedDocument {
  const issue = { severity: 'severe' as const, message: message(`document.${code}`, { most }) };
  return { document: emptyDocument, issues: [issue] };
}

/** Markdown with our directives (`docs/texts.md`) as a tree, and what is wrong with it. */
export function parseDocument(
  markdown: string,
  { fileOf = () => null, withMedia = true }: Partial<Surroundings> = {},
): ParsedDocument {
  if (markdown.length > MOST_CHARACTERS) return refused('tooLong', MOST_CHARACTERS);
  try {
    const { root, source, amounts } = readMarkdown(markdown);
    const parsing = new Parsing(source, { fileOf, withMedia });
    const document: Document = { format: 1, blocks: parsing.blocks(root.children) };
    checkTree(document, parsing);
    const dollars = amounts
      .filter((text) => /[\\^_=]/.test(text))
      .map((text) => ({ severity: 'advice' as const, message: message('document.dollar', { text }) }));
    return { document, issues: [...parsing.issues, ...dollars] };
  } catch (error) {
    // Thousands of quotes in one another: the parser runs out of stack before a tree is there to be measured.
    if (error instanceof RangeError) return refused('tooDeep', MOST_LEVELS);
    throw error;
  }
}
