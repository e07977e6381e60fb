/**
 * The little mark-up of prompts and passages: paragraphs divided by an empty line, `**strong**`, `*stressed*`,
 * `` `code` ``, lists with `- ` or `1. `, and tables with `|`. Nothing else is read as mark-up, so nothing in a
 * passage can become a script or an image from elsewhere.
 */
export interface Inline {
  readonly text: string;
  readonly style?: 'strong' | 'stressed' | 'code';
}

export type Block =
  | { readonly type: 'paragraph'; readonly inlines: Inline[] }
  | { readonly type: 'list'; readonly ordered: boolean; readonly items: Inline[][] }
  | { readonly type: 'table'; readonly head: Inline[][]; readonly rows: Inline[][][] };

const MARKS = /\*\*([^*]+)\*\*|\*([^*]+)\*|`([^`]+)`/g;

export function parseInlines(text: string): Inline[] {
  const result: Inline[] = [];
  let from = 0;
  for (const match of text.matchAll(MARKS)) {
    if (match.index > from) result.push({ text: text.slice(from, match.index) });
    if (match[1] !== undefined) result.push({ text: match[1], style: 'strong' });
    else if (match[2] !== undefined) result.push({ text: match[2], style: 'stressed' });
    else result.push({ text: match[3] ?? '', style: 'code' });
    from = match.index + match[0].length;
  }
  if (from < text.length) result.push({ text: text.slice(from) });
  return result;
}

const BULLET = /^- /;
const NUMBERED = /^\d+\. /;

function parseTable(lines: string[]): Block {
  const cells = (line: string) =>
    line
      .replace(/^\||\|$/g, '')
      .split('|')
      .map((cell) => parseInlines(cell.trim()));
  const [head = '', ...rows] = lines.filter((line) => !/^[|\s:-]+$/.test(line));
  return { type: 'table', head: cells(head), rows: rows.map(cells) };
}

export function parsePassage(source: string): Block[] {
  const chunks = source
    .replace(/\r\n/g, '\n')
    .split(/\n\s*\n/)
    .map((chunk) => chunk.trim())
    .filter(Boolean);
  return chunks.map((chunk): Block => {
    const lines = chunk.split('\n').map((line) => line.trim());
    if (lines.every((line) => line.startsWith('|'))) return parseTable(lines);
    for (const [pattern, ordered] of [
      [BULLET, false],
      [NUMBERED, true],
    ] as const) {
      if (lines.every((line) => pattern.test(line)))
        return { type: 'list', ordered, items: lines.map((line) => parseInlines(line.replace(pattern, ''))) };
    }
    return { type: 'paragraph', inlines: parseInlines(lines.join(' ')) };
  });
}

/** The passage without its mark-up, for printouts and for counting. */
export function passageAsText(source: string): string {
  const plain = (inlines: Inline[]) => inlines.map((i) => i.text).join('');
  return parsePassage(source)
    .map((block) => {
      if (block.type === 'paragraph') return plain(block.inlines);
      if (block.type === 'list') return block.items.map((item) => `– ${plain(item)}`).join('\n');
      return [block.head, ...block.rows].map((row) => row.map(plain).join(' · ')).join('\n');
    })
    .join('\n\n');
}
