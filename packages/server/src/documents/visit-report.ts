import type { Verdict } from '@entretien/core/checks';
import { ink, PdfDocument } from './pdf-document.js';

/** One measurement as the report tells it. */
export interface ReportedReading {
  /** How it came out, and what that is called. */
  readonly verdict: Verdict | undefined;
  readonly said: string;
  readonly reason: string;
}

/** A check with what it showed before the work and after it. */
export interface ReportedCheck {
  readonly name: string;
  readonly before: ReportedReading | null;
  readonly after: ReportedReading | null;
}

/** What it comes to, in words ready to be set; null where nothing has a price. */
export interface ReportedBill {
  readonly lines: readonly { readonly name: string; readonly amount: string }[];
  readonly total: string;
  /** What the total leaves out. */
  readonly without: string | null;
}

export interface ReportedPhoto {
  /** A JPEG; null where it is missing or damaged. */
  readonly picture: Buffer | null;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly caption: string;
}

export interface ReportedCompressor {
  readonly tag: string;
  readonly description: string;
  /** Maker, model and serial number, as far as they are known. */
  readonly plate: string | null;
  readonly hours: string | null;
  readonly state: string;
  readonly summary: readonly string[];
  readonly warnings: readonly string[];
  readonly tasks: readonly {
    readonly name: string;
    readonly outcome: string;
    readonly verification: string;
  }[];
  readonly checks: readonly ReportedCheck[];
  readonly parts: readonly { readonly name: string; readonly count: string; readonly cost?: string }[];
  readonly repairs: readonly string[];
  readonly notes: readonly string[];
  readonly photos: readonly ReportedPhoto[];
  /** Work on it, by the plan; null where there was none. */
  readonly labour: string | null;
  readonly bill: ReportedBill | null;
  readonly next: readonly { readonly name: string; readonly due: string }[];
  /** Lines that are still to be signed by hand, where nothing was signed on the screen. */
  readonly toSign: readonly string[];
  readonly signed: Signature | null;
  /** Of whoever took it over again. */
  readonly customer: Omit<Signature, 'on'> | null;
}

interface Signature {
  readonly name: string;
  readonly on: string;
  readonly strokes: string | null;
}

export interface ReportContent {
  /** What the paper is. */
  readonly title: string;
  readonly workshop: string | null;
  /** The workshop’s, as a PNG; null for none. */
  readonly logo: Buffer | null;
  readonly site: string;
  readonly address: string | null;
  readonly contact: string | null;
  readonly day: string;
  readonly by: string;
  readonly units: readonly ReportedCompressor[];
  readonly printedAt: Date;
}

export const A4 = { width: 595.28, height: 841.89, margin: 48 };
const PHOTO_HIGH = 150;
/** Beside the head of the first sheet, points. */
const LOGO = { width: 150, height: 50 } as const;

/** A last sheet with less on it than this is drawn closer, if that saves it. */
const STRAY = 0.45;
const CLOSER = 0.84;

/** The report of a visit: what was found, done, measured and signed for, unit by unit; on one sheet where one will do. */
export function drawReport(report: ReportContent): Promise<Buffer> {
  const title = `${report.title}, ${report.site}, ${report.day}`;
  const paper = new PdfDocument({ ...A4, title, createdAt: report.printedAt });
  const write = () => writeReport(paper, report);
  const usual = paper.roomFor(write, 1);
  const isStray = usual.sheets > 1 && usual.filled <= STRAY;
  if (isStray && paper.roomFor(write, CLOSER).sheets < usual.sheets) paper.density = CLOSER;
  write();
  return paper.finish(title);
}

/** The beginning of every paper of the workshop. */
export function writeHead(
  paper: PdfDocument,
  { workshop, logo, title }: Pick<ReportContent, 'workshop' | 'logo' | 'title'>,
): void {
  if (logo !== null) paper.inCorner(logo, LOGO, workshop ?? 'Logo of the workshop');
  if (workshop !== null) paper.write(workshop, { size: 11, strong: true, colour: ink.done });
  paper.write(title, { size: 20, strong: true }, 'H1');
}

function writeReport(paper: PdfDocument, report: ReportContent): void {
  writeHead(paper, report);
  paper.write(`${report.site} · ${report.day} · ${report.by}`, { size: 11, colour: ink.second });
  const where = [report.address, report.contact].filter((part) => part !== null);
  if (where.length > 0) paper.write(where.join(' · '), { colour: ink.second });
  for (const unit of report.units) drawCompressor(paper, unit);
  paper.space(10);
  paper.write(
    'Verdicts and intervals support the judgement of a qualified technician. The maker’s manual, local law and licensed trades come first.',
    { size: 7.5, colour: ink.second },
  );
}

const CHECK_SHARES = [3, 4.6, 4.6] as const;

/** A measurement in its column: the verdict first, then why. */
function cellOf(reading: ReportedReading | null): readonly [string, { colour?: string }?] {
  if (reading === null) return ['–', { colour: ink.second }];
  const { verdict, said, reason } = reading;
  const colour = verdict === 'good' ? ink.done : verdict === 'act' || verdict === 'stop' ? ink.act : ink.text;
  return [[said, reason].filter((part) => part !== '').join(': '), { colour }];
}

function drawCompressor(paper: PdfDocument, unit: ReportedCompressor): void {
  paper.space(6);
  paper.heading(`${unit.tag} · ${unit.description}`);
  if (unit.plate !== null) paper.write(unit.plate, { colour: ink.second });
  paper.write([unit.state, unit.hours].filter((part) => part !== null).join(' · '), { colour: ink.second });
  unit.summary.forEach((sentence) => paper.write(sentence));
  unit.warnings.forEach((sentence) => paper.write(sentence, { strong: true, colour: ink.act }));
  if (unit.tasks.length > 0) {
    part(paper, 'Work');
    for (const { name, outcome, verification } of unit.tasks) {
      paper.row([[name], [outcome, { strong: true }], [verification, { colour: ink.second }]], [5, 3, 4]);
    }
  }
  if (unit.checks.length > 0) {
    part(paper, 'Measured');
    paper.row([[''], ['before', { colour: ink.second }], ['after', { colour: ink.second }]], CHECK_SHARES);
    for (const { name, before, after } of unit.checks) {
      paper.row([[name], cellOf(before), cellOf(after)], CHECK_SHARES);
    }
  }
  if (unit.parts.length > 0) {
    part(paper, 'Parts used');
    unit.parts.forEach(({ name, count, cost = '' }) =>
      paper.row([[count, { strong: true }], [name], [cost, { align: 'right' }]], [1, 7, 2]),
    );
  }
  if (unit.labour !== null) paper.row([['', {}], [unit.labour], ['']], [1, 7, 2]);
  if (unit.bill !== null) {
    part(paper, 'Together');
    unit.bill.lines.forEach(({ name, amount }) => paper.row([[name], [amount, { align: 'right' }]], [8, 2]));
    paper.row(
      [
        ['Total', { strong: true }],
        [unit.bill.total, { strong: true, align: 'right' }],
      ],
      [8, 2],
    );
    if (unit.bill.without !== null) paper.write(unit.bill.without, { size: 8, colour: ink.second });
  }
  if (unit.repairs.length > 0) {
    part(paper, 'Faults found');
    unit.repairs.forEach((sentence) => paper.write(sentence));
  }
  if (unit.notes.length > 0) {
    part(paper, 'Notes');
    unit.notes.forEach((sentence) => paper.write(sentence));
  }
  if (unit.photos.length > 0) drawPhotos(paper, unit.photos);
  if (unit.next.length > 0) {
    part(paper, 'Next due');
    unit.next.forEach(({ name, due }) => paper.row([[name], [due, { strong: true }]], [5, 7]));
  }
  drawSignatures(paper, unit);
}

function part(paper: PdfDocument, title: string): void {
  paper.need(34);
  paper.space(6);
  paper.write(title, { size: 8.5, strong: true, colour: ink.second }, 'H3');
}

/** Two beside each other, each within its half. */
function drawPhotos(paper: PdfDocument, photos: readonly ReportedPhoto[]): void {
  part(paper, 'Photos');
  const gap = 12;
  const wide = (paper.width - gap) / 2;
  const high = paper.scaled(PHOTO_HIGH);
  for (let index = 0; index < photos.length; index += 2) {
    paper.need(high + 22);
    photos.slice(index, index + 2).forEach((photo, place) => {
      const x = paper.left + place * (wide + gap);
      const { picture } = photo;
      if (picture !== null) {
        const alt = photo.caption === '' ? 'Photo of the visit' : photo.caption;
        paper.tagged(
          'Figure',
          () =>
            paper.draw((document) =>
              document.image(picture, x, paper.top, { fit: [wide, high], align: 'center' }),
            ),
          alt,
        );
      }
      const missing = photo.picture === null ? 'Photo missing or damaged. ' : '';
      paper.put(`${missing}${photo.caption}`, x, paper.top + high + 3, wide, {
        size: 8,
        colour: ink.second,
      });
    });
    paper.space(PHOTO_HIGH + 22);
  }
}

/** The technician’s beside the customer’s; a line where a name is still to be written. */
function drawSignatures(paper: PdfDocument, { signed, customer, toSign }: ReportedCompressor): void {
  const each =
    signed === null
      ? toSign.map((text) => ({ by: null, text }))
      : [
          { by: signed, text: `Signed by ${signed.name}, ${signed.on}` },
          { by: customer, text: customer ? `Taken over by ${customer.name}` : 'Taken over by' },
        ];
  if (each.length === 0) return;
  const scale = paper.scaled(0.45);
  const gap = 24;
  const wide = (paper.width - gap) / 2;
  const high = !each.some(({ by }) => by?.strokes) ? (signed === null ? 40 : 16) : 100 * scale + 2;
  paper.need(high + 20);
  paper.space(8);
  each.forEach(({ by, text }, index) => {
    const x = paper.left + index * (wide + gap);
    const { strokes = null } = by ?? {};
    const draw = (document: PDFKit.PDFDocument) => drawStrokes(document, strokes ?? '', x, paper.top, scale);
    if (strokes !== null) paper.tagged('Figure', () => paper.draw(draw), 'Signature');
    paper.draw((document) =>
      document
        .moveTo(x, paper.top + high)
        .lineTo(x + wide, paper.top + high)
        .lineWidth(0.6)
        .strokeColor(ink.rule)
        .stroke(),
    );
    paper.put(text, x, paper.top + high + 3, wide);
  });
  paper.space((high + 18) / paper.scaled(1));
}

function drawStrokes(
  document: PDFKit.PDFDocument,
  strokes: string,
  left: number,
  top: number,
  scale: number,
): void {
  for (const stroke of strokesOf(strokes)) {
    stroke.forEach(([x, y], index) => {
      const [at, down] = [left + x * scale, top + y * scale];
      if (index === 0) document.moveTo(at, down);
      else document.lineTo(at, down);
    });
    document.lineWidth(1).strokeColor(ink.text).stroke();
  }
}

/** Strokes written as `x,y x,y;x,y …` in a box 300 by 100; what is none is left out. */
export function strokesOf(text: string): [number, number][][] {
  return text
    .split(';')
    .map((stroke) =>
      stroke
        .trim()
        .split(/\s+/)
        .map((point) => point.split(',').map(Number) as [number, number])
        .filter(([x, y]) => x >= 0 && x <= 300 && y >= 0 && y <= 100),
    )
    .filter((stroke) => stroke.length > 0);
}
