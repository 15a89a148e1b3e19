import { codeOf } from './paper-codes.js';
import { ink, PdfDocument } from './pdf-document.js';

/** What stands on the card that stays at the machine. */
export interface TagContent {
  readonly tag: string;
  readonly description: string;
  readonly site: string;
  readonly doneOn: string | null;
  readonly doneHours: string | null;
  readonly doneBy: string | null;
  readonly work: string | null;
  /** The next work, the soonest first. */
  readonly next: readonly { readonly name: string; readonly due: string }[];
  /** What the code opens. */
  readonly address: string;
  readonly printedAt: Date;
}

/** What stands on the red card of something that must not be used. */
export interface RedTagContent {
  readonly tag: string;
  readonly description: string;
  readonly site: string;
  /** What must not be used and why, the oldest first. */
  readonly stops: readonly {
    readonly what: string;
    readonly why: string;
    readonly since: string;
    readonly toShow: string | null;
    readonly informed: string | null;
  }[];
  readonly address: string;
  readonly printedAt: Date;
}

const CARD = { width: 298, height: 210, margin: 14 };
const CODE = 92;

/** A card 105 by 74 mm for the machine: done on, at hours, by, next due, and a code that opens its page. */
export async function drawTag(tag: TagContent): Promise<Buffer> {
  const paper = new PdfDocument({ ...CARD, title: `Service tag ${tag.tag}`, createdAt: tag.printedAt });
  const wide = paper.width - CODE - 10;
  const code = await codeOf(tag.address);
  paper.document.image(code, paper.left + paper.width - CODE, paper.top, { width: CODE });
  let y = paper.top;
  y += paper.put(tag.tag, paper.left, y, wide, { size: 22, strong: true });
  y +=
    paper.put(`${tag.description} · ${tag.site}`, paper.left, y, wide, { size: 8.5, colour: ink.second }) + 6;
  if (tag.doneOn === null) y += paper.put('No service on record yet.', paper.left, y, wide);
  else {
    y += paper.put('Done', paper.left, y, wide, { size: 7.5, colour: ink.second });
    const done = [tag.doneOn, tag.doneHours, tag.doneBy].filter((part) => part !== null).join(' · ');
    y += paper.put(done, paper.left, y, wide, { size: 10.5, strong: true }) + 1;
    if (tag.work !== null) y += paper.put(shortened(tag.work, 110), paper.left, y, wide, { size: 8 });
  }
  y = Math.max(y + 5, paper.top + CODE + 6);
  y += paper.put('Next due', paper.left, y, paper.width, { size: 7.5, colour: ink.second });
  const [named, dated] = [paper.width * 0.44, paper.width * 0.56];
  for (const { name, due } of tag.next.slice(0, 4)) {
    paper.put(shortened(name, 32), paper.left, y, named, { size: 9 });
    const high = paper.put(due, paper.left + named, y, dated, { size: 8.5, strong: true, align: 'right' });
    y += Math.max(12, high);
  }
  return paper.finish();
}

/** A red card of the same size: do not use, why, since when, by whom, and what must be shown to run again. */
export async function drawRedTag(tag: RedTagContent): Promise<Buffer> {
  const paper = new PdfDocument({ ...CARD, title: `Out of service ${tag.tag}`, createdAt: tag.printedAt });
  const { document } = paper;
  const band = 40;
  document.rect(0, 0, CARD.width, band).fill(RED);
  document.fillColor('#ffffff');
  paper.put('DO NOT USE', CARD.margin, 9, paper.width, { size: 22, strong: true, colour: '#ffffff' });
  document
    .lineWidth(5)
    .rect(2.5, 2.5, CARD.width - 5, CARD.height - 5)
    .stroke(RED);
  const code = await codeOf(tag.address);
  const small = 66;
  document.image(code, paper.left + paper.width - small, band + 6, { width: small });
  const wide = paper.width - small - 8;
  let y = band + 8;
  y += paper.put(tag.tag, paper.left, y, wide, { size: 17, strong: true });
  y +=
    paper.put(`${tag.description} · ${tag.site}`, paper.left, y, wide, { size: 8, colour: ink.second }) + 4;
  // What has no room on the card stands behind its code.
  for (const stop of tag.stops.slice(0, 2)) {
    const under = y > band + 6 + small ? paper.width : wide;
    y += paper.put(shortened(`${stop.what}. ${stop.why}`, 150), paper.left, y, under, {
      size: 9,
      strong: true,
    });
    const more = [stop.since, stop.informed === null ? '' : `Told to ${stop.informed}`]
      .filter(Boolean)
      .join(' · ');
    y += paper.put(more, paper.left, y, under, { size: 8 });
    if (stop.toShow !== null)
      y += paper.put(`To run again: ${shortened(stop.toShow, 90)}`, paper.left, y, under, { size: 8 });
    y += 3;
  }
  return paper.finish();
}

const RED = '#b3261e';

function shortened(text: string, longest: number): string {
  return text.length <= longest ? text : `${text.slice(0, longest - 1).trimEnd()}…`;
}
