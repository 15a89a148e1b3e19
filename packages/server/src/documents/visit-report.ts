import type { Verdict } from '@entretien/core/checks';
import { ink, PdfDocument } from './pdf-document.js';

/** A check as the report tells it. */
export interface ReportedCheck {
  readonly when: string;
  readonly name: string;
  /** How it came out, and what that is called. */
  readonly verdict: Verdict | undefined;
  readonly said: string;
  readonly reason: string;
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
  readonly next: readonly { readonly name: string; readonly due: string }[];
  readonly signed: { readonly name: string; readonly on: string; readonly strokes: string | null } | null;
}

export interface ReportContent {
  readonly site: string;
  readonly day: string;
  readonly by: string;
  readonly units: readonly ReportedCompressor[];
  readonly printedAt: Date;
}

const A4 = { width: 595.28, height: 841.89, margin: 48 };
const PHOTO_HIGH = 150;

/** The report of a visit: what was found, done, measured and signed for, unit by unit. */
export function drawReport(report: ReportContent): Promise<Buffer> {
  const title = `Service report, ${report.site}, ${report.day}`;
  const paper = new PdfDocument({ ...A4, title, createdAt: report.printedAt });
  paper.write('Service report', { size: 20, strong: true });
  paper.write(`${report.site} · ${report.day} · ${report.by}`, { size: 11, colour: ink.second });
  for (const unit of report.units) drawCompressor(paper, unit);
  paper.space(10);
  paper.write(
    'Verdicts and intervals support the judgement of a qualified technician. The maker’s manual, local law and licensed trades come first.',
    { size: 7.5, colour: ink.second },
  );
  return paper.finish(title);
}

function drawCompressor(paper: PdfDocument, unit: ReportedCompressor): void {
  paper.space(6);
  paper.heading(`${unit.tag} · ${unit.description}`);
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
    for (const { when, name, verdict, said, reason } of unit.checks) {
      const colour =
        verdict === 'good' ? ink.done : verdict === 'act' || verdict === 'stop' ? ink.act : ink.text;
      paper.row(
        [[when, { colour: ink.second }], [name], [said, { strong: true, colour }], [reason]],
        [1.6, 3, 2, 6.2],
      );
    }
  }
  if (unit.parts.length > 0) {
    part(paper, 'Parts used');
    unit.parts.forEach(({ name, count, cost = '' }) =>
      paper.row([[count, { strong: true }], [name], [cost, { align: 'right' }]], [1, 7, 2]),
    );
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
  drawSignature(paper, unit);
}

function part(paper: PdfDocument, title: string): void {
  paper.need(34);
  paper.space(6);
  paper.write(title, { size: 8.5, strong: true, colour: ink.second });
}

/** Two beside each other, each within its half. */
function drawPhotos(paper: PdfDocument, photos: readonly ReportedPhoto[]): void {
  part(paper, 'Photos');
  const gap = 12;
  const wide = (paper.width - gap) / 2;
  for (let index = 0; index < photos.length; index += 2) {
    paper.need(PHOTO_HIGH + 22);
    photos.slice(index, index + 2).forEach((photo, place) => {
      const x = paper.left + place * (wide + gap);
      if (photo.picture !== null)
        paper.document.image(photo.picture, x, paper.top, { fit: [wide, PHOTO_HIGH], align: 'center' });
      const missing = photo.picture === null ? 'Photo missing or damaged. ' : '';
      paper.put(`${missing}${photo.caption}`, x, paper.top + PHOTO_HIGH + 3, wide, {
        size: 8,
        colour: ink.second,
      });
    });
    paper.space(PHOTO_HIGH + 22);
  }
}

function drawSignature(paper: PdfDocument, { signed }: ReportedCompressor): void {
  if (signed === null) return;
  paper.need(64);
  paper.space(8);
  if (signed.strokes !== null) {
    const scale = 0.45;
    const top = paper.top;
    for (const stroke of strokesOf(signed.strokes)) {
      stroke.forEach(([x, y], index) => {
        const [left, down] = [paper.left + x * scale, top + y * scale];
        if (index === 0) paper.document.moveTo(left, down);
        else paper.document.lineTo(left, down);
      });
      paper.document.lineWidth(1).strokeColor(ink.text).stroke();
    }
    paper.space(100 * scale + 2);
  }
  paper.write(`Signed by ${signed.name}, ${signed.on}`);
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
