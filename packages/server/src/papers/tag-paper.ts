import QRCode from 'qrcode';
import { ink, Paper } from './paper.js';

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

const CARD = { width: 298, height: 210, margin: 14 };
const CODE = 92;

/** A card 105 by 74 mm for the machine: done on, at hours, by, next due, and a code that opens its page. */
export async function drawTag(tag: TagContent): Promise<Buffer> {
  const paper = new Paper({ ...CARD, title: `Service tag ${tag.tag}`, createdAt: tag.printedAt });
  const wide = paper.width - CODE - 10;
  const code = await QRCode.toBuffer(tag.address, { errorCorrectionLevel: 'M', margin: 4, scale: 8 });
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

function shortened(text: string, longest: number): string {
  return text.length <= longest ? text : `${text.slice(0, longest - 1).trimEnd()}…`;
}
