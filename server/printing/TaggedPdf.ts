import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';

const require = createRequire(import.meta.url);
const FONTS = {
  text: '@expo-google-fonts/atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf',
  bold: '@expo-google-fonts/atkinson-hyperlegible-next/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf',
  // For what the fonts of the product have no signs for: other scripts, mathematics.
  other: 'dejavu-fonts-ttf/ttf/DejaVuSans.ttf',
  otherBold: 'dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf',
  program: 'dejavu-fonts-ttf/ttf/DejaVuSansMono.ttf',
};

export const INK = '#1B2733';
export const SOFT = '#52606D';
/** Thin lines. */
const FAINT = '#DDD9CE';
const MARGIN = 46;

export interface Style {
  readonly size?: number;
  readonly look?: 'text' | 'bold' | 'program';
  readonly color?: string;
  readonly indent?: number;
  readonly before?: number;
}

const PICTURE_WIDTH = 300;
const PICTURE_HEIGHT = 420;

interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** A mark on a picture: places are shares of its width and height. */
export interface PictureNote {
  readonly number: number;
  readonly shape: 'point' | 'box' | 'line';
  readonly points: readonly (readonly [number, number])[];
}

export interface Picture {
  readonly words: string;
  /** In degrees, clockwise. */
  readonly turn: number;
  readonly notes: readonly PictureNote[];
}

type Tag = 'H1' | 'H2' | 'P' | 'TH' | 'TD' | 'LBody';
/** Of the library, and not of its types. */
const SCOPE_OF_ROW = { scope: 'Row' } as object;
type Element = PDFKit.PDFStructureElement;

/** What the library has and its types do not tell. */
interface Opening {
  openImage(file: string | Uint8Array): { readonly width: number; readonly height: number };
}

interface Font {
  readonly font: { hasGlyphForCodePoint(codePoint: number): boolean };
}

/** A PDF whose text is tagged: a screen reader is told of headings, paragraphs and tables, in the order of reading. */
export class TaggedPdf {
  private readonly doc: PDFKit.PDFDocument;
  private readonly root: Element;
  private readonly bytes: Promise<Uint8Array>;

  constructor({ title, author, language }: { title: string; author: string; language: string }) {
    this.doc = new PDFDocument({
      size: 'A4',
      margin: MARGIN,
      bufferPages: true,
      tagged: true,
      displayTitle: true,
      pdfVersion: '1.7',
      lang: language,
      info: { Title: title, Author: author },
    });
    for (const [name, file] of Object.entries(FONTS)) this.doc.registerFont(name, require.resolve(file));
    this.root = this.doc.struct('Document');
    this.doc.addStructure(this.root);
    const chunks: Buffer[] = [];
    this.doc.on('data', (chunk: Buffer) => chunks.push(chunk));
    this.bytes = new Promise((resolve, reject) => {
      this.doc.on('end', () => resolve(new Uint8Array(Buffer.concat(chunks))));
      this.doc.on('error', reject);
    });
  }

  /** A heading or a paragraph, as wide as the page. */
  write(tag: Tag, text: string, { before = 0, indent = 0, ...style }: Style = {}): void {
    if (text === '') return;
    const { doc } = this;
    // A heading does not stay alone at the foot of a page.
    if (tag !== 'P' && doc.y > doc.page.height - MARGIN - 60) doc.addPage();
    doc.y += before;
    this.element(this.root, tag, () => {
      this.set(text, style);
      doc.text(text, MARGIN + indent, doc.y, { width: this.width - indent, lineGap: 1.5 });
    });
  }

  /** A list: a screen reader is told how many entries it has, and reads them one by one. */
  list(entries: readonly string[], { before = 0, indent = 0, ...style }: Style = {}): void {
    const { doc } = this;
    const list = doc.struct('L');
    this.root.add(list);
    doc.y += before;
    for (const entry of entries) {
      const item = doc.struct('LI');
      list.add(item);
      this.element(item, 'LBody', () => {
        this.set(entry, style);
        doc.text(entry, MARGIN + indent, doc.y, { width: this.width - indent, lineGap: 1.5 });
      });
      item.end();
    }
    list.end();
  }

  /** A table of a name and a figure a row, with a bar of `share` (0 to 1) of its length `of` (0 to 1) in between. */
  bars(rows: readonly { name: string; figure: string; of: number; share: number }[]): void {
    const { doc } = this;
    const table = doc.struct('Table');
    this.root.add(table);
    for (const { name, figure, of, share } of rows) {
      const row = doc.struct('TR');
      table.add(row);
      const y = doc.y + 4;
      const cell = (tag: Tag, text: string, x: number, width: number) =>
        this.element(row, tag, () => {
          this.set(text, {});
          doc.text(text, x, y, { width, lineGap: 1.5 });
        });
      cell('TH', name, MARGIN, 150);
      const after = doc.y;
      this.artifact(() => {
        const [x, full] = [MARGIN + 160, 220 * of];
        doc
          .rect(x, y + 2, full, 8)
          .lineWidth(0.6)
          .strokeColor('#33475B')
          .stroke();
        doc.rect(x, y + 2, full * share, 8).fill('#33475B');
      });
      cell('TD', figure, MARGIN + 390, 110);
      doc.y = Math.max(doc.y, after);
      row.end();
    }
    table.end();
    doc.y += 6;
  }

  /**
   * A picture, upright as it was turned, with what notes mark on it. It says in words what it is; one that cannot be read
   * is told by these words alone.
   */
  picture(picture: string | Uint8Array, { words, turn, notes }: Picture): void {
    const { doc } = this;
    const file = typeof picture === 'string' ? picture : Buffer.from(picture);
    let image;
    try {
      image = (doc as unknown as Opening).openImage(file);
    } catch {
      return this.write('P', words, { indent: 10, color: SOFT });
    }
    const lies = turn % 180 !== 0;
    const ratio = lies ? image.width / image.height : image.height / image.width;
    const width = Math.min(PICTURE_WIDTH, PICTURE_HEIGHT / ratio);
    const height = width * ratio;
    if (doc.y + height > doc.page.height - MARGIN) doc.addPage();
    const [x, y] = [MARGIN + 10, doc.y + 6];
    const figure = doc.struct('Figure', { alt: words }, () => {
      doc.save();
      doc.rotate(turn, { origin: [x + width / 2, y + height / 2] });
      const [w, h] = lies ? [height, width] : [width, height];
      doc.image(file, x + (width - w) / 2, y + (height - h) / 2, { width: w, height: h });
      doc.restore();
      // A white page on white paper would not be seen to be one.
      doc.rect(x, y, width, height).lineWidth(0.7).strokeColor(FAINT).stroke();
      for (const note of notes) this.mark(note, { x, y, width, height });
    });
    this.root.add(figure);
    figure.end();
    doc.y = y + height + 6;
  }

  private mark({ number, shape, points }: PictureNote, box: Box): void {
    const { doc } = this;
    const at = points.map(([a, b]): [number, number] => [box.x + a * box.width, box.y + b * box.height]);
    const [first, second] = [at[0]!, at[1]];
    doc.lineWidth(1.4).strokeColor('#8A5A00');
    if (shape === 'point') doc.circle(first[0], first[1], 5).stroke();
    else if (shape === 'box' && second)
      doc.rect(first[0], first[1], second[0] - first[0], second[1] - first[1]).stroke();
    else doc.polygon(...at).stroke();
    doc.circle(first[0], first[1], 7).fillAndStroke('#FFFFFF', '#8A5A00');
    this.set(String(number), { size: 9, look: 'bold' });
    doc.text(String(number), first[0] - 7, first[1] - 5, { width: 14, align: 'center', lineBreak: false });
  }

  /** A thin line across the page: for the eye alone. */
  rule(): void {
    const y = this.doc.y + 2;
    this.artifact(() =>
      this.doc
        .moveTo(MARGIN, y)
        .lineTo(MARGIN + this.width, y)
        .lineWidth(0.7)
        .strokeColor(FAINT)
        .stroke(),
    );
    this.doc.y = y + 2;
  }

  /** The finished file, with a line at the foot of each page. */
  async end(foot: (page: number, pages: number) => string): Promise<Uint8Array> {
    const { doc } = this;
    this.root.end();
    const { start, count } = doc.bufferedPageRange();
    for (let page = start; page < start + count; page++) {
      doc.switchToPage(page);
      // Else writing below the margin would begin another page.
      doc.page.margins.bottom = 0;
      this.artifact(() => {
        const text = foot(page - start + 1, count);
        this.set(text, { size: 9, color: SOFT });
        doc.text(text, MARGIN, doc.page.height - 34, {
          width: this.width,
          align: 'center',
          lineBreak: false,
        });
      });
    }
    doc.end();
    return this.bytes;
  }

  private get width(): number {
    return this.doc.page.width - 2 * MARGIN;
  }

  private element(parent: Element, tag: Tag, draw: () => void): void {
    // What a heading of a table is the heading of.
    const element = this.doc.struct(tag, tag === 'TH' ? SCOPE_OF_ROW : {}, draw);
    parent.add(element);
    element.end();
  }

  private artifact(draw: () => void): void {
    this.doc.markContent('Artifact', { type: 'Layout' });
    draw();
    this.doc.endMarkedContent();
  }

  private set(text: string, { size = 10, look = 'text', color = INK }: Style): void {
    const { doc } = this;
    doc.font(look).fontSize(size).fillColor(color);
    if (look === 'program') return;
    const { font } = (doc as unknown as { _font: Font })._font;
    const covered = [...text].every((sign) => sign < ' ' || font.hasGlyphForCodePoint(sign.codePointAt(0)!));
    if (!covered) doc.font(look === 'bold' ? 'otherBold' : 'other');
  }
}
