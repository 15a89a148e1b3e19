import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';

const find = createRequire(import.meta.url);

const FILES = {
  text: '@fontsource/public-sans/files/public-sans-latin-400-normal.woff',
  strong: '@fontsource/public-sans/files/public-sans-latin-700-normal.woff',
  any: 'dejavu-fonts-ttf/ttf/DejaVuSans.ttf',
  'any-strong': 'dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf',
} as const;
type FontName = keyof typeof FILES;

const fonts = new Map<FontName, Buffer>();
function fontFile(name: FontName): Buffer {
  let file = fonts.get(name);
  if (!file) fonts.set(name, (file = readFileSync(find.resolve(FILES[name]))));
  return file;
}

/** Letters that the text face has: whatever else somebody writes is set in the face that has nearly all. */
// eslint-disable-next-line no-control-regex
const IN_TEXT_FACE = /^[\u0000-\u00ff\u2013\u2014\u2018-\u201e\u2026\u2192\u20ac\u2212]*$/;

export const ink = {
  text: '#1E2A2E',
  second: '#5A666A',
  rule: '#C4BBA8',
  act: '#A3341F',
  done: '#17605A',
} as const;

interface Setting {
  readonly size?: number;
  readonly strong?: boolean;
  readonly colour?: string;
  readonly align?: 'left' | 'right' | 'center';
}

export interface PaperFormat {
  readonly title: string;
  /** Points. */
  readonly width: number;
  readonly height: number;
  readonly margin: number;
  readonly createdAt: Date;
}

/** A sheet that is written from top to bottom and goes on to the next by itself. */
export class Paper {
  readonly document: PDFKit.PDFDocument;
  private at: number;
  private readonly foot: number;

  constructor(private readonly format: PaperFormat) {
    const { width, height, margin, title, createdAt } = format;
    this.document = new PDFDocument({
      size: [width, height],
      margins: { top: margin, left: margin, right: margin, bottom: 0 },
      bufferPages: true,
      lang: 'en',
      displayTitle: true,
      info: { Title: title, Creator: 'Entretien', Producer: 'Entretien', CreationDate: createdAt },
    });
    for (const name of Object.keys(FILES) as FontName[]) {
      this.document.registerFont(name, fontFile(name));
    }
    this.at = margin;
    this.foot = height - margin;
  }

  get top(): number {
    return this.at;
  }

  get left(): number {
    return this.format.margin;
  }

  get width(): number {
    return this.format.width - 2 * this.format.margin;
  }

  /** Sets a text in a column and answers how high it is; does not move on. */
  put(text: string, x: number, y: number, width: number, setting: Setting = {}): number {
    const { size = 9.5, strong = false, colour = ink.text, align = 'left' } = setting;
    this.face(text, strong).fontSize(size).fillColor(colour);
    const options = { width, align, lineGap: 1 };
    const height = this.document.heightOfString(text, options);
    this.document.text(text, x, y, options);
    return height;
  }

  heightOf(text: string, width: number, { size = 9.5, strong = false }: Setting = {}): number {
    return this.face(text, strong).fontSize(size).heightOfString(text, { width, lineGap: 1 });
  }

  /** A paragraph over the whole width. */
  write(text: string, setting: Setting = {}): void {
    this.need(this.heightOf(text, this.width, setting));
    this.at += this.put(text, this.left, this.at, this.width, setting) + 2;
  }

  space(points: number): void {
    this.at += points;
  }

  rule(): void {
    this.document
      .moveTo(this.left, this.at)
      .lineTo(this.left + this.width, this.at)
      .lineWidth(0.6)
      .strokeColor(ink.rule)
      .stroke();
    this.at += 4;
  }

  heading(text: string): void {
    this.need(40);
    this.space(8);
    this.write(text, { size: 11.5, strong: true, colour: ink.done });
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
    cells.forEach(([text, setting], index) => {
      this.put(text, x, this.at, widths[index]!, setting);
      x += widths[index]! + gap;
    });
    this.at += high + 3;
  }

  /** Goes on to the next sheet where so much does not fit on this one. */
  need(points: number): void {
    if (this.at + points <= this.foot) return;
    this.document.addPage();
    this.at = this.format.margin;
  }

  /** Numbers the sheets and closes the document. */
  async finish(foot?: string): Promise<Buffer> {
    const { start, count } = this.document.bufferedPageRange();
    if (foot !== undefined) {
      for (let index = start; index < start + count; index += 1) {
        this.document.switchToPage(index);
        this.put(`${foot} · ${index + 1} of ${count}`, this.left, this.foot + 8, this.width, {
          size: 7.5,
          colour: ink.second,
        });
      }
    }
    const parts: Buffer[] = [];
    const whole = new Promise<Buffer>((resolve, reject) => {
      this.document.on('data', (part: Buffer) => parts.push(part));
      this.document.on('end', () => resolve(Buffer.concat(parts)));
      this.document.on('error', reject);
    });
    this.document.end();
    return whole;
  }

  private face(text: string, strong: boolean): PDFKit.PDFDocument {
    const name = IN_TEXT_FACE.test(text) ? (strong ? 'strong' : 'text') : strong ? 'any-strong' : 'any';
    return this.document.font(name);
  }
}
