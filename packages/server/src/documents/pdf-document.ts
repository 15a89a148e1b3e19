import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { default as PdfKit } from 'pdfkit';

/** Looked up when a first paper is drawn: most starts of the server draw none. */
const find = createRequire(import.meta.url);

/**
 * The faces that every reader of PDF has: nothing to embed and nothing to shape, which makes a report in a
 * tenth of the time. What they have no letters for is set in a face of our own that has nearly all.
 */
const faces = { text: 'Helvetica', strong: 'Helvetica-Bold' } as const;
const FILES = {
  any: 'dejavu-fonts-ttf/ttf/DejaVuSans.ttf',
  'any-strong': 'dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf',
} as const;
type FileName = keyof typeof FILES;

const fonts = new Map<FileName, Buffer>();
function fontFile(name: FileName): Buffer {
  let file = fonts.get(name);
  if (!file) fonts.set(name, (file = readFileSync(find.resolve(FILES[name]))));
  return file;
}

/** Letters of the usual Western encoding. */
const IN_TEXT_FACE =
  /^[\u0020-\u007e\u00a0-\u00ff\u2013\u2014\u2018-\u201a\u201c-\u201e\u2022\u2026\u20ac\u2122]*$/;

export const ink = {
  text: '#1E2A2E',
  second: '#5A666A',
  rule: '#C4BBA8',
  act: '#A3341F',
  done: '#17605A',
} as const;

const LINE_GAP = 1;

interface Setting {
  readonly size?: number;
  readonly strong?: boolean;
  readonly colour?: string;
  readonly align?: 'left' | 'right' | 'center';
}

interface Measured {
  readonly height: number;
  readonly isOneLine: boolean;
}

export interface PaperFormat {
  readonly title: string;
  /** Points. */
  readonly width: number;
  readonly height: number;
  readonly margin: number;
  readonly createdAt: Date;
}

/** How much room something takes. */
export interface Room {
  readonly sheets: number;
  /** Share of the last sheet that is written on. */
  readonly filled: number;
}

/** A sheet that is written from top to bottom and goes on to the next by itself. */
export class PdfDocument {
  readonly document: PDFKit.PDFDocument;
  /** Share of the usual size of letters and gaps. */
  density = 1;
  private readonly registered = new Set<FileName>();
  private readonly measured = new Map<string, Measured>();
  private readonly parts: Uint8Array[] = [];
  private readonly whole: Promise<Buffer>;
  private at: number;
  private readonly foot: number;
  /** Sheets that what is written would take, while that is all that is asked. */
  private tried: number | null = null;
  private readonly root: PDFKit.PDFStructureElement;
  private table: PDFKit.PDFStructureElement | null = null;
  /** Whether what is drawn now has its tag already. */
  private isWithin = false;

  constructor(private readonly format: PaperFormat) {
    const { width, height, margin, title, createdAt } = format;
    const Document = find('pdfkit') as typeof PdfKit;
    this.document = new Document({
      size: [width, height],
      margins: { top: margin, left: margin, right: margin, bottom: 0 },
      bufferPages: true,
      // Tags, and the marks that readers for the blind go by, came with this version of the format.
      pdfVersion: '1.5',
      tagged: true,
      lang: 'en',
      displayTitle: true,
      info: { Title: title, Creator: 'Entretien', Producer: 'Entretien', CreationDate: createdAt },
    });
    // The library writes a paper in thousands of pieces: they are collected as they are, not passed through a stream.
    // The first it has written by now.
    this.parts.push(this.document.read() as Buffer);
    this.whole = new Promise((resolve) => {
      this.document.push = (part: Uint8Array | null) => {
        if (part === null) resolve(Buffer.concat(this.parts));
        else this.parts.push(part);
        return true;
      };
    });
    this.at = margin;
    this.foot = height - margin;
    this.root = this.document.struct('Document');
    this.document.addStructure(this.root);
  }

  /** How much room something takes at a density, without drawing it. */
  roomFor(write: () => void, density: number): Room {
    const { at, density: before } = this;
    this.density = density;
    this.at = this.format.margin;
    this.tried = 1;
    write();
    const room = {
      sheets: this.tried,
      filled: (this.at - this.format.margin) / (this.foot - this.format.margin),
    };
    [this.at, this.density, this.tried] = [at, before, null];
    return room;
  }

  /** Draws with the library itself, if anything is drawn now. */
  draw(work: (document: PDFKit.PDFDocument) => void): void {
    if (this.tried === null) work(this.document);
  }

  /** What is drawn within is one thing to whoever has it read aloud; rows that follow each other are a table. */
  tagged(kind: 'H1' | 'H2' | 'H3' | 'P' | 'Figure', draw: () => void, alt?: string): void {
    this.endTable();
    this.addTo(this.root, kind, draw, alt === undefined ? {} : { alt });
  }

  /** A picture at the right of what comes next, which goes on beside it. */
  inCorner(
    picture: Buffer,
    { width, height }: { readonly width: number; readonly height: number },
    alt: string,
  ): void {
    const left = this.left + this.width - width;
    this.tagged(
      'Figure',
      () =>
        this.draw((document) =>
          document.image(picture, left, this.at, { fit: [width, height], align: 'right', valign: 'center' }),
        ),
      alt,
    );
  }

  /** Draws at once, and hangs what is drawn into the tree that is read aloud. */
  private addTo(
    parent: PDFKit.PDFStructureElement,
    kind: string,
    draw: () => void,
    options: { readonly alt?: string } = {},
  ): void {
    if (this.tried !== null) return this.within(draw);
    const element = this.document.struct(kind, options, () => this.within(draw));
    parent.add(element);
    element.end();
  }

  /** What is drawn within says nothing: a line, the number of a sheet. */
  private artifact(draw: (document: PDFKit.PDFDocument) => void): void {
    this.draw((document) => {
      document.markContent('Artifact', { type: 'Layout' });
      this.within(() => draw(document));
      document.endMarkedContent();
    });
  }

  private within(draw: () => void): void {
    this.isWithin = true;
    draw();
    this.isWithin = false;
  }

  private endTable(): void {
    this.table?.end();
    this.table = null;
  }

  get top(): number {
    return this.at;
  }

  /** A length as it is on a sheet of this density. */
  scaled(points: number): number {
    return points * this.density;
  }

  get left(): number {
    return this.format.margin;
  }

  get width(): number {
    return this.format.width - 2 * this.format.margin;
  }

  /** Sets a text in a column and answers how high it is; does not move on. */
  put(text: string, x: number, y: number, width: number, setting: Setting = {}): number {
    const { colour = ink.text, align = 'left' } = setting;
    const { height, isOneLine } = this.measure(text, width, setting);
    if (!this.isWithin) {
      this.tagged('P', () => void this.put(text, x, y, width, setting));
      return height;
    }
    this.draw((document) => {
      document.fillColor(colour);
      // What fits on a line needs nobody to look for the end of it.
      if (isOneLine && align === 'left') document.text(text, x, y, { lineBreak: false });
      else document.text(text, x, y, { width, align, lineGap: LINE_GAP });
    });
    return height;
  }

  heightOf(text: string, width: number, setting: Setting = {}): number {
    return this.measure(text, width, setting).height;
  }

  /** How high a text is in a column; leaves its face and size chosen. Asked for before it is set and again then. */
  private measure(text: string, width: number, { size: usual = 9.5, strong = false }: Setting): Measured {
    const size = this.scaled(usual);
    const document = this.face(text, strong).fontSize(size);
    const key = `${width} ${size} ${strong} ${text}`;
    let known = this.measured.get(key);
    if (!known) {
      const isOneLine =
        !text.includes('\n') && (widthBound(text) * size <= width || document.widthOfString(text) <= width);
      const height = isOneLine
        ? document.currentLineHeight(true) + LINE_GAP
        : document.heightOfString(text, { width, lineGap: LINE_GAP });
      this.measured.set(key, (known = { height, isOneLine }));
    }
    return known;
  }

  /** A paragraph over the whole width. */
  write(text: string, setting: Setting = {}, kind: 'H1' | 'H2' | 'H3' | 'P' = 'P'): void {
    this.need(this.heightOf(text, this.width, setting));
    this.tagged(kind, () => {
      this.at += this.put(text, this.left, this.at, this.width, setting) + 2;
    });
  }

  space(points: number): void {
    this.at += this.scaled(points);
  }

  rule(): void {
    this.artifact((document) =>
      document
        .moveTo(this.left, this.at)
        .lineTo(this.left + this.width, this.at)
        .lineWidth(0.6)
        .strokeColor(ink.rule)
        .stroke(),
    );
    this.at += 4;
  }

  heading(text: string): void {
    this.need(40);
    this.space(8);
    this.write(text, { size: 11.5, strong: true, colour: ink.done }, 'H2');
    this.rule();
  }

  /** A row of cells; `shares` are parts of the width. */
  row(cells: readonly (readonly [string, Setting?])[], shares: readonly number[]): void {
    const gap = 8;
    const whole = shares.reduce((sum, share) => sum + share, 0);
    const widths = shares.map((share) => (share / whole) * (this.width - gap * (shares.length - 1)));
    const high = Math.max(
      ...cells.map(([text, setting], index) => this.heightOf(text, widths[index]!, setting)),
    );
    this.need(high + 3);
    let x = this.left;
    const row = this.tried === null ? this.newRow() : this.root;
    cells.forEach(([text, setting], index) => {
      this.addTo(row, 'TD', () => this.put(text, x, this.at, widths[index]!, setting));
      x += widths[index]! + gap;
    });
    this.draw(() => row.end());
    this.at += high + 3;
  }

  private newRow(): PDFKit.PDFStructureElement {
    if (this.table === null) this.root.add((this.table = this.document.struct('Table')));
    const row = this.document.struct('TR');
    this.table.add(row);
    return row;
  }

  /** Goes on to the next sheet where so much does not fit on this one. */
  need(points: number): void {
    if (this.at + points <= this.foot) return;
    if (this.tried === null) this.document.addPage();
    else this.tried += 1;
    this.at = this.format.margin;
  }

  /** Numbers the sheets and closes the document. */
  async finish(foot?: string): Promise<Buffer> {
    this.endTable();
    this.root.end();
    const { start, count } = this.document.bufferedPageRange();
    if (foot !== undefined) {
      for (let index = start; index < start + count; index += 1) {
        this.document.switchToPage(index);
        this.artifact(() =>
          this.put(`${foot} · ${index + 1} of ${count}`, this.left, this.foot + 8, this.width, {
            size: 7.5,
            colour: ink.second,
          }),
        );
      }
    }
    this.document.end();
    return this.whole;
  }

  private face(text: string, strong: boolean): PDFKit.PDFDocument {
    if (IN_TEXT_FACE.test(text)) return this.document.font(strong ? faces.strong : faces.text);
    const name = strong ? 'any-strong' : 'any';
    if (!this.registered.has(name)) this.document.registerFont(name, fontFile(name));
    this.registered.add(name);
    return this.document.font(name);
  }
}

/** Widest that letters of the base faces can be, in ems, plain or bold: a bound that spares most exact widths. */
const WIDEST: readonly (readonly [RegExp, number])[] = [
  [/ /, 0.28],
  [/[0-9]/, 0.56],
  [/[mw]/, 0.9],
  [/[a-z.,;:'()/-]/, 0.62],
  [/[MW]/, 0.95],
  [/[A-Z]/, 0.8],
];
const bounds = Array.from(
  { length: 128 },
  (_, code) => WIDEST.find(([letters]) => letters.test(String.fromCharCode(code)))?.[1] ?? 1.02,
);

function widthBound(text: string): number {
  let sum = 0;
  for (let index = 0; index < text.length; index += 1) sum += bounds[text.charCodeAt(index)] ?? 1.02;
  return sum;
}
