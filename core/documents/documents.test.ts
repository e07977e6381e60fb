import { describe, expect, it } from 'vitest';
import { say } from '../messages/words';
import { chartFigure, chartProblem, chartValues } from './chartValues';
import type { AudioNode, Block, Document, Inline, TableNode } from './document';
import { emptyDocument, plainDocument } from './document';
import { documentAsText } from './documentAsText';
import { everyNode, typesIn } from './everyNode';
import { countedIn, filesIn } from './filesIn';
import { phrasesIn } from './phrasesIn';
import { showDocument } from './showDocument';

const text = (words: string): Inline => ({ type: 'text', text: words });
const paragraph = (...children: Inline[]): Block => ({ type: 'paragraph', children });
const documentOf = (...blocks: Block[]): Document => ({ format: 1, blocks });
const table = (head: string[], ...rows: string[][]): TableNode => ({
  type: 'table',
  align: head.map(() => null),
  head: head.map((cell) => [text(cell)]),
  rows: rows.map((row) => row.map((cell) => [text(cell)])),
});
const FILE = 'a'.repeat(64);
const CAPTIONS = 'b'.repeat(64);
const recording: AudioNode = {
  type: 'audio',
  file: FILE,
  title: 'The call',
  seconds: 12,
  plays: 2,
  pausing: false,
  transcript: [paragraph(text('The bay is warm.'))],
};
const meaning: Inline = { type: 'meaning', says: 'not growing yet', children: [text('dormant')] };

describe('a document as plain text', () => {
  it('has every node, in the order of reading', () => {
    const whole = documentOf(
      { type: 'heading', level: 2, children: [text('Lots')] },
      paragraph(text('Two '), { type: 'strong', children: [text('lots')] }, { type: 'break' }, meaning),
      { type: 'list', ordered: true, start: 3, items: [[paragraph(text('dry'))], [paragraph(text('wet'))]] },
      { type: 'list', ordered: false, start: 1, items: [[paragraph(text('a')), paragraph(text('b'))]] },
      table(['lot', 'share'], ['K-1', '71 %']),
      { type: 'lines', start: 9, lines: [[text('first')], [], [text('second')]] },
      { type: 'formula', tex: 'x^2', says: 'x squared' },
      { type: 'formula', tex: 'y', says: null },
      { type: 'code', text: 'print(1)' },
      { type: 'divider' },
      { type: 'picture', file: FILE, description: 'A tray', caption: 'Tray 14' },
      { type: 'pdf', file: FILE, title: 'Rules', pages: 3 },
      { type: 'video', file: FILE, title: 'Walk', seconds: 9, captions: CAPTIONS, description: 'A bay' },
    );
    const parts = [
      'Lots',
      'Two lots\ndormant (not growing yet)',
      '3. dry\n4. wet',
      // What belongs to an entry stands below its words.
      '– a\n  \n  b',
      'lot · share\nK-1 · 71 %',
      // An empty line parts two groups and has no number.
      '9  first\n\n10  second',
      'x squared',
      'y',
      'print(1)',
      '—',
      '[Picture: A tray]\nTray 14',
      '[Document of 3 pages: Rules]',
      '[Video: Walk. A bay]',
    ];
    expect(documentAsText(whole, say)).toBe(parts.join('\n\n'));
  });

  it('is nothing for nothing, and plain words stay as they are', () => {
    expect(documentAsText(emptyDocument, say)).toBe('');
    expect(plainDocument('')).toBe(emptyDocument);
    expect(documentAsText(plainDocument('*not* strong'), say)).toBe('*not* strong');
  });
});

describe('a document as one candidate may see it', () => {
  const nested = documentOf({
    type: 'quote',
    blocks: [
      { type: 'list', ordered: false, start: 1, items: [[recording]] },
      { ...table(['lot'], ['K-1']), head: [[meaning]] },
    ],
  });

  it('does not tell what is said in a recording to who is to hear it', () => {
    const shown = showDocument(nested, { transcripts: false, meanings: true });
    expect(JSON.stringify(shown)).not.toContain('The bay is warm.');
    expect(JSON.stringify(shown)).toContain(FILE);
  });

  it('gives the transcript in place of the recording by arrangement', () => {
    const shown = showDocument(nested, { transcripts: true, meanings: true });
    expect(JSON.stringify(shown)).toContain('The bay is warm.');
    expect(JSON.stringify(shown)).not.toContain(FILE);
    const silent = showDocument(documentOf({ ...recording, transcript: null }), {
      transcripts: true,
      meanings: true,
    });
    expect(silent.blocks).toEqual([{ type: 'transcript', title: 'The call', blocks: [] }]);
  });

  it('keeps the word and not its meaning where meanings are not allowed, wherever it stands', () => {
    const places = documentOf(
      paragraph({ type: 'emphasis', children: [meaning] }),
      { type: 'lines', start: 1, lines: [[meaning]] },
      ...nested.blocks,
    );
    const shown = JSON.stringify(showDocument(places, { transcripts: false, meanings: false }));
    expect(shown).not.toContain('not growing yet');
    expect(shown.split('dormant')).toHaveLength(4);
  });
});

describe('the figures of a chart', () => {
  it('are read as people write them', () => {
    expect(['12', ' 1 200,5 ', '71 %', '−3.5', '–2', '+4'].map(chartFigure)).toEqual([
      12, 1200.5, 71, -3.5, -2, 4,
    ]);
    expect(['', '–', '-', '—'].map(chartFigure)).toEqual([null, null, null, null]);
    expect(['n. a.', '1.2.3', '1e3', '0x10', '3 g'].map(chartFigure)).toEqual([NaN, NaN, NaN, NaN, NaN]);
  });

  it('stand by row and by series', () => {
    expect(chartValues(table(['day', 'K-1', 'K-2'], ['1', '3', '–'], ['2', '4,5', '7']))).toEqual({
      categories: ['1', '2'],
      series: [
        { name: 'K-1', values: [3, 4.5] },
        { name: 'K-2', values: [null, 7] },
      ],
    });
  });

  it('say what keeps them from being drawn', () => {
    const good = table(['day', 'K-1'], ['Monday', '3']);
    expect(chartProblem('line', good)).toBeNull();
    // Points need a figure in the first column too.
    expect(chartProblem('points', good)?.code).toBe('chartFigures');
    expect(chartProblem('points', table(['day', 'K-1'], ['1', '3']))).toBeNull();
    expect(chartProblem('bar', table(['day'], ['Monday']))?.code).toBe('chartSeries');
    expect(chartProblem('bar', table(['day', 'K-1']))?.code).toBe('chartRows');
    expect(chartProblem('bar', table(['day', 'K-1'], ['Monday', 'many']))?.code).toBe('chartFigures');
    const rows = (count: number) => Array.from({ length: count }, (_, i) => [`${i}`, '1']);
    expect(chartProblem('line', table(['day', 'K-1'], ...rows(500)))).toBeNull();
    expect(chartProblem('line', table(['day', 'K-1'], ...rows(501)))?.values).toEqual({ most: 500 });
  });
});

describe('what a document holds', () => {
  const film: Block = {
    type: 'video',
    file: FILE,
    title: 'Walk',
    seconds: 9,
    captions: CAPTIONS,
    description: 'A bay',
  };

  it('is told node by node with its depth, however deep', () => {
    let deep: Block = paragraph(text('at the ground'));
    for (let i = 0; i < 50_000; i++) deep = { type: 'quote', blocks: [deep] };
    const depths = [...everyNode(documentOf(deep))].map(([, depth]) => depth);
    expect([depths.length, depths.at(-1)]).toEqual([50_002, 50_002]);
    expect([...typesIn([documentOf(table(['lot'], ['K-1'])), documentOf(film)])].sort()).toEqual([
      'table',
      'text',
      'video',
    ]);
  });

  it('names its files, and the recordings whose plays are counted', () => {
    expect([...filesIn({ sections: [{ intro: documentOf(film) }] })].sort()).toEqual([FILE, CAPTIONS]);
    // A word that looks like one is none, nor is what has no type.
    expect(filesIn({ file: FILE, text: FILE, type: 'text' })).toEqual(new Set([FILE]));
    expect(filesIn({ file: FILE })).toEqual(new Set());
    expect(filesIn([null, 3, 'x', { type: 'picture', file: '../etc/passwd' }])).toEqual(new Set());
    const free = { ...recording, file: CAPTIONS, plays: null };
    expect([...countedIn([documentOf(recording, free)]).keys()]).toEqual([FILE]);
  });

  it('and its phrases in their order', () => {
    const phrase = (key: string, words: string): Inline => ({
      type: 'phrase',
      key,
      children: [{ type: 'strong', children: [text(words)] }],
    });
    const source = documentOf(paragraph(phrase('b', 'cold'), text(' '), phrase('a', 'dry')));
    expect(phrasesIn([source])).toEqual([
      { name: 'b', text: 'cold' },
      { name: 'a', text: 'dry' },
    ]);
  });
});
