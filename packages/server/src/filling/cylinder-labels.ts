import { Inject, Injectable } from '@nestjs/common';
import { CLOCK, SETTINGS, type Clock } from '../common/tokens.js';
import type { Settings } from '../config.js';
import { baseOf, codeOf } from '../documents/paper-codes.js';
import { ink, PdfDocument } from '../documents/pdf-document.js';
import { A4 } from '../documents/visit-report.js';
import { FillingService } from './filling.service.js';

/** Three beside each other; a code is as large as a phone reads at arm’s length. */
const GRID = { columns: 3, high: 88, code: 76 } as const;

/** A code for each cylinder: what it opens is a fill of that cylinder from this set. */
@Injectable()
export class CylinderLabels {
  constructor(
    private readonly filling: FillingService,
    @Inject(CLOCK) private readonly clock: Clock,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  /** @param origin where the page is, as the asker sees it; a fixed public address goes before it */
  async pdf(compressorId: string, origin: string): Promise<Buffer> {
    const { cylinders, set, compressorId: id } = this.filling.view(compressorId);
    const base = baseOf(this.settings, origin);
    const title = `Cylinders filled from ${set.plate.tag}`;
    const paper = new PdfDocument({ ...A4, title, createdAt: new Date(this.clock()) });
    paper.write(title, { size: 14, strong: true }, 'H1');
    paper.write('Cut out, cover, and fix where the stamp stays readable: it is read before every fill.', {
      colour: ink.second,
    });
    paper.space(6);
    const used = cylinders.filter(({ retiredOn }) => !retiredOn);
    if (used.length === 0) paper.write('No cylinder is on record here.');
    const wide = paper.width / GRID.columns;
    for (let first = 0; first < used.length; first += GRID.columns) {
      paper.need(GRID.high);
      for (const [column, { id: vessel, tag, volumeL, ratedBar }] of used
        .slice(first, first + GRID.columns)
        .entries()) {
        const code = await codeOf(`${base}/units/${id}/fill?cylinder=${vessel}`);
        const [x, y] = [paper.left + column * wide, paper.top];
        paper.tagged(
          'Figure',
          () => void paper.document.image(code, x, y, { width: GRID.code }),
          `Code that opens a fill of ${tag}`,
        );
        const [beside, left] = [x + GRID.code + 4, wide - GRID.code - 12];
        const down = paper.put(tag, beside, y + 12, left, { size: 15, strong: true });
        const about = [volumeL ? `${volumeL} L` : '', ratedBar ? `${ratedBar} bar` : ''].filter(Boolean);
        paper.put(about.join(' · '), beside, y + 14 + down, left, { size: 8.5, colour: ink.second });
      }
      paper.space(GRID.high);
    }
    return paper.finish(title);
  }
}
