import { describe, expect, it } from 'vitest';
import { chartValues } from '../../core/documents/chartValues';
import type { Block, ChartNode, Inline } from '../../core/documents/document';
import { documentAsText } from '../../core/documents/documentAsText';
import { documentSchema } from '../../core/documents/documentSchema';
import { parsed } from '../../core/validation/shapes';
import { say } from '../../core/messages/words';
import type { FileFacts } from './fileFacts';
import { parseDocument } from './parseDocument';

const MAP = 'a'.repeat(64);
const FILES: Record<string, FileFacts> = {
  'map.png': { is: 'picture', hash: MAP },
  'talk.mp3': { is: 'audio', hash: 'b'.repeat(64), seconds: 71.5 },
  'film.webm': { is: 'video', hash: 'c'.repeat(64), seconds: 20 },
  'film.vtt': { is: 'captions', hash: 'd'.repeat(64) },
  'rules.pdf': { is: 'pdf', hash: 'e'.repeat(64), pages: 2 },
};
const parse = (markdown: string) => parseDocument(markdown, { fileOf: (name) => FILES[name] ?? null });
const blocksOf = (markdown: string): readonly Block[] => {
  const { document, issues } = parse(markdown);
  expect(issues).toEqual([]);
  expect(parsed(documentSchema, JSON.parse(JSON.stringify(document)))).toEqual(document);
  return document.blocks;
};
const text = (words: string): Inline => ({ type: 'text', text: words });
const paragraph = (...children: Inline[]): Block => ({ type: 'paragraph', children });
const plain = (markdown: string) => documentAsText(parse(markdown).document, say);

describe('Markdown as a tree', () => {
  it.each<[string, string, Block[]]>([
    [
      'styles',
      'One **two** *three* `four` ~~five~~',
      [
        paragraph(
          text('One '),
          { type: 'strong', children: [text('two')] },
          text(' '),
          { type: 'emphasis', children: [text('three')] },
          text(' '),
          { type: 'code', text: 'four' },
          text(' '),
          { type: 'deleted', children: [text('five')] },
        ),
      ],
    ],
    [
      'a list that starts at 3',
      '3. a\n4. b',
      [{ type: 'list', ordered: true, start: 3, items: [[paragraph(text('a'))], [paragraph(text('b'))]] }],
    ],
    [
      'a table with an alignment',
      '| Lot | Up |\n|---|--:|\n| K-1 | 3 |',
      [
        {
          type: 'table',
          align: [null, 'right'],
          head: [[text('Lot')], [text('Up')]],
          rows: [[[text('K-1')], [text('3')]]],
        },
      ],
    ],
    [
      'HTML as the text that it is',
      '<img src=x onerror=alert(1)>',
      [paragraph(text('<img src=x onerror=alert(1)>'))],
    ],
    ['HTML in a line', 'a <b onclick=x>b</b>', [paragraph(text('a <b onclick=x>b</b>'))]],
    [
      'headings below the third level as the third',
      '##### Deep',
      [{ type: 'heading', level: 3, children: [text('Deep')] }],
    ],
    [
      'an address that is only written down',
      'See www.example.org now',
      [paragraph(text('See www.example.org now'))],
    ],
  ])('reads %s', (_, markdown, blocks) => expect(blocksOf(markdown)).toEqual(blocks));

  it.each([
    'At 10:30 the ratio a:b was 3:4, see std::vector, :smile: and :b[c]{d=e}.',
    'It costs $5 and then $6, or US$7 in all ($8).',
    ':::note\nThis is *no* directive of ours.\n:::',
    'a * b * c, snake_case_name and 2 < 3 > 1',
  ])('leaves plain prose alone: %s', (markdown) =>
    expect(plain(markdown)).toBe(markdown.replace(/\n/g, ' ').replaceAll('*no*', 'no')),
  );

  it.each([
    ['a\\@b.org', 'a@b.org'],
    ['see www\\.x.org.', 'see www.x.org.'],
    ['https\\://x.org/a', 'https://x.org/a'],
    ['*a\\@b.org*', 'a@b.org'],
    ['| a\\@b.org |\n|-|\n| www\\.x.org |', 'a@b.org\nwww.x.org'],
  ])('reads an address whose signs are escaped as words: %s', (markdown, words) => {
    expect(parse(markdown).issues).toEqual([]);
    expect(plain(markdown)).toBe(words);
    expect(JSON.stringify(parse(markdown).document)).not.toContain('link');
  });

  it('keeps what is set in bold between two amounts of money', () =>
    expect(blocksOf('From $5 to **at most** $6.')).toEqual([
      paragraph(text('From $5 to '), { type: 'strong', children: [text('at most')] }, text(' $6.')),
    ]));

  it('reads formulas in a line, on lines of their own, and with words for listeners', () => {
    expect(blocksOf('Let $x^2$ and $$2x$$.')).toEqual([
      paragraph(
        text('Let '),
        { type: 'formula', tex: 'x^2', says: null },
        text(' and '),
        { type: 'formula', tex: '2x', says: null },
        text('.'),
      ),
    ]);
    expect(blocksOf('$$\n\\frac{1}{2}\n$$\n\n::formula{tex="x_1" says="x one"}')).toEqual([
      { type: 'formula', tex: '\\frac{1}{2}', says: null },
      { type: 'formula', tex: 'x_1', says: 'x one' },
    ]);
  });

  it('reads our directives', () => {
    expect(blocksOf('A :meaning[dip]{says="short loss"} and :phrase[the *bay*]{#bay}')).toEqual([
      paragraph(text('A '), { type: 'meaning', says: 'short loss', children: [text('dip')] }, text(' and '), {
        type: 'phrase',
        key: 'bay',
        children: [text('the '), { type: 'emphasis', children: [text('bay')] }],
      }),
    ]);
    const picture = { type: 'picture', file: MAP, description: 'The bay', caption: 'Plan' };
    expect(blocksOf('::picture[The bay]{file=map.png caption="Plan"}')).toEqual([picture]);
    expect(blocksOf('![The bay](map.png "Plan")')).toEqual([picture]);
    expect(blocksOf(':::lines{start=4}\none\n**two**\n\nthree\n:::')).toEqual([
      {
        type: 'lines',
        start: 4,
        lines: [[text('one')], [{ type: 'strong', children: [text('two')] }], [], [text('three')]],
      },
    ]);
    expect(blocksOf(':::language{of=ar}\nمرحبا\n:::\n\n:language[Brassica]{of=la}')).toEqual([
      { type: 'language', lang: 'ar', dir: 'rtl', blocks: [paragraph(text('مرحبا'))] },
      paragraph({ type: 'language', lang: 'la', dir: 'ltr', children: [text('Brassica')] }),
    ]);
  });

  it('reads recordings, films, documents and charts', () => {
    const says = [paragraph(text('Good morning.'))];
    const audio = { type: 'audio', file: 'b'.repeat(64), title: 'Talk', seconds: 71.5, transcript: says };
    expect(blocksOf(':::audio{file=talk.mp3 title=Talk plays=2}\nGood morning.\n:::')).toEqual([
      { ...audio, plays: 2, pausing: false },
    ]);
    expect(blocksOf(':::audio{file=talk.mp3 title=Talk}\nGood morning.\n:::')).toEqual([
      { ...audio, plays: null, pausing: true },
    ]);
    const film = { type: 'video', file: 'c'.repeat(64), title: 'Film', description: 'A tray', seconds: 20 };
    expect(blocksOf('::video{file=film.webm captions=film.vtt title=Film description="A tray"}')).toEqual([
      { ...film, captions: 'd'.repeat(64) },
    ]);
    expect(blocksOf('::video{file=film.webm silent=yes title=Film description="A tray"}')).toEqual([
      { ...film, captions: null },
    ]);
    expect(blocksOf('::pdf{file=rules.pdf title=Rules}')).toEqual([
      { type: 'pdf', file: 'e'.repeat(64), title: 'Rules', pages: 2 },
    ]);
    const [chart] = blocksOf(
      ':::chart{kind=bar title=Up description="It rises" across=Day up="%"}\n| Day | K |\n|--|--|\n| 7 | 12,5 % |\n| 14 | – |\n:::',
    );
    expect(chart).toMatchObject({ type: 'chart', chart: 'bar', title: 'Up', across: 'Day', up: '%' });
    expect(chartValues((chart as ChartNode).table)).toEqual({
      categories: ['7', '14'],
      series: [{ name: 'K', values: [12.5, null] }],
    });
  });

  it('keeps recordings out of texts that are shown before the start or inside an answer', () =>
    expect(
      parseDocument('::pdf{file=rules.pdf title=Rules}', { fileOf: (name) => FILES[name]!, withMedia: false })
        .issues[0]!.message.code,
    ).toBe('document.mediaNotHere'));

  it('has a plain form of everything, for printouts and for listeners', () =>
    expect(
      plain(
        '# Bay\n\nA :meaning[dip]{says="short loss"}, :phrase[here]{#here}, :formula{tex="x^2" says="x squared"}, $y$\n\n1. a\n2. b\n\n- c\n\n| L | U |\n|---|---|\n| K | 3 |\n\n![A plan](map.png "Plan")\n\n:::lines\none\n\ntwo\n:::\n\n```\nx = 1\n```',
      ),
    ).toBe(
      'Bay\n\nA dip (short loss), here, x squared, y\n\n1. a\n2. b\n\n– c\n\nL · U\nK · 3\n\n[Picture: A plan]\nPlan\n\n1  one\n\n2  two\n\nx = 1',
    ));
});

describe('what cannot be published', () => {
  it.each([
    ['[a](https://example.org)', 'document.link'],
    ['<https://example.org>', 'document.link'],
    ['![](map.png)', 'document.noDescription'],
    ['![A plan](lost.png)', 'document.noFile'],
    ['![A plan](talk.mp3)', 'document.not-picture'],
    [':::audio{file=lost.mp3 title=T}\na\n:::', 'document.noFile'],
    [':::audio{file=map.png title=T}\na\n:::', 'document.not-audio'],
    [':::audio{file=talk.mp3}\na\n:::', 'document.noAttribute'],
    [':::audio{file=talk.mp3 title=T plays=0}\na\n:::', 'document.plays'],
    [':::audio{file=talk.mp3 title=T plays=2}\n:::', 'document.noTranscript'],
    ['::video{file=film.webm title=T description=d}', 'document.noFile'],
    ['::video{file=talk.mp3 title=T description=d silent=yes}', 'document.not-video'],
    ['::video{file=film.webm captions=film.webm title=T description=d}', 'document.not-captions'],
    ['::pdf{file=film.vtt title=T}', 'document.not-pdf'],
    [':::chart{title=T description=d across=x up=y}\nwords\n:::', 'document.chartTable'],
    [
      ':::chart{kind=pie title=T description=d across=x up=y}\n|a|b|\n|-|-|\n|1|2|\n:::',
      'document.chartKind',
    ],
    [':::chart{title=T description=d across=x up=y}\n|a|b|\n|-|-|\n|1|few|\n:::', 'document.chartFigures'],
    [':::chart{title=T description=d across=x up=y}\n|a|\n|-|\n|1|\n:::', 'document.chartSeries'],
    [':::chart{title=T description=d across=x up=y}\n|a|b|\n|-|-|\n:::', 'document.chartRows'],
    [':meaning[dip]', 'document.noMeaning'],
    [':phrase[here]', 'document.noPhraseKey'],
    [':phrase[a]{#x} :phrase[b]{#x}', 'document.samePhraseKey'],
    [':language[a]{of=not_a_tag}', 'document.noLanguage'],
    ['$\\frac{1}$', 'document.formulaUnread'],
    ['::formula{says="nothing"}', 'document.noFormula'],
    ['a[^1]\n\n[^1]: note', 'document.notPossible'],
    ['- [ ] task', 'document.notPossible'],
    ['x'.repeat(20_001), 'document.tooLong'],
    ['*a* '.repeat(3_000), 'document.tooMuch'],
    ['> '.repeat(40) + 'x', 'document.tooDeep'],
    ['>'.repeat(19_000), 'document.tooDeep'],
  ])('%s', (markdown, code) => {
    const { issues } = parse(markdown);
    const severe = issues.find((issue) => issue.severity === 'severe');
    expect(severe?.message.code).toBe(code);
    expect(say(severe!.message)).not.toBe(code);
  });

  it('advises where an amount of money may be meant as a formula', () =>
    expect(parse('Then $2x^2$ grows.').issues).toEqual([
      { severity: 'advice', message: { code: 'document.dollar', values: { text: '$2x^2$' } } },
    ]));
});
