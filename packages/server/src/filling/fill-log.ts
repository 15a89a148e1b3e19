import { Inject, Injectable } from '@nestjs/common';
import type { FillLogQuery } from '@entretien/contracts';
import { describeDay, formatMoment, formatsInUse, writeLocal } from '@entretien/core/basics';
import { bar, sumFills } from '@entretien/core/filling';
import { describeMachine } from '@entretien/core/machine';
import { formatFigure } from '@entretien/core/quantities';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { ink, PdfDocument } from '../documents/pdf-document.js';
import { A4, writeHead } from '../documents/visit-report.js';
import { BYTE_ORDER_MARK, csv } from '../import-export/csv.js';
import { PeopleService } from '../people/people.js';
import type { FillEntity } from '../persistence/entities/fill.entity.js';
import { SitesService } from '../sites/sites.service.js';
import { WorkshopSettingsService } from '../workshop/workshop-settings.js';
import { daysOf, FillingService } from './filling.service.js';

const HEAD = [
  'Ended',
  'Zone',
  'Cylinder',
  'Volume L',
  'From bar',
  'To bar',
  'Settles at bar',
  'Minutes',
  'Free air L',
  'Place °C',
  'Wall °C',
  'Outcome',
  'Marks',
  'By',
  'Note',
];
const SHARES = [3.2, 2.2, 1.6, 1.6, 1.9, 1.4, 3] as const;

/** What a set has filled, as a list and as a paper. */
@Injectable()
export class FillLog {
  constructor(
    private readonly filling: FillingService,
    private readonly register: CompressorRegister,
    private readonly sites: SitesService,
    private readonly people: PeopleService,
    private readonly workshop: WorkshopSettingsService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  csv(compressorId: string, query: FillLogQuery): string {
    const { timeZone, fills } = this.asked(compressorId, query);
    const rows = fills.map((fill) => [
      writeLocal(fill.endedAt, timeZone),
      timeZone,
      fill.tag,
      fill.volumeL,
      fill.fromBar,
      fill.toBar,
      rounded(fill.settledBar, 1),
      rounded(minutesOf(fill), 1),
      rounded(fill.airL, 0),
      fill.ambientC,
      fill.wallC ?? '',
      fill.outcome,
      fill.marks.join(' '),
      this.people.nameOf(fill.by),
      fill.note ?? '',
    ]);
    return BYTE_ORDER_MARK + csv([HEAD, ...rows], formatsInUse().decimal);
  }

  pdf(compressorId: string, query: FillLogQuery): Promise<Buffer> {
    const { plate, timeZone, fills } = this.asked(compressorId, query);
    const title = `Fill log of ${plate.tag}`;
    const paper = new PdfDocument({ ...A4, title, createdAt: new Date(this.clock()) });
    writeHead(paper, { title, workshop: this.workshop.read().workshopName, logo: this.workshop.logo() });
    const site = this.sites.find(plate.siteId)?.name ?? '';
    paper.write(`${describeMachine(plate)} · ${site}`, { colour: ink.second });
    paper.write(spanText(query), { colour: ink.second });
    paper.space(8);
    paper.row(
      ['Ended', 'Cylinder', 'From', 'To', 'Settles at', 'Minutes', 'By'].map(
        (text) => [text, { size: 8, strong: true, colour: ink.second }] as const,
      ),
      SHARES,
    );
    for (const fill of fills) {
      const minutes = formatFigure(minutesOf(fill), { decimals: 0 });
      const colour = fill.marks.length > 0 ? ink.act : ink.text;
      paper.row(
        [
          [formatMoment(fill.endedAt, timeZone)],
          [fill.tag, { strong: true }],
          [bar(fill.fromBar)],
          [bar(fill.toBar)],
          [bar(rounded(fill.settledBar, 0))],
          [minutes],
          [[this.people.nameOf(fill.by), ...fill.marks].join(', '), { colour }],
        ],
        SHARES,
      );
    }
    const { count, airL } = sumFills(fills, plate.fadLpm);
    paper.space(8);
    paper.write(
      count === 0
        ? 'Nothing was filled.'
        : `${count === 1 ? '1 fill' : `${count} fills`}, ${formatFigure(airL / 1000, { decimals: 1 })} m³ of free air.`,
      { strong: true },
    );
    return paper.finish(title);
  }

  private asked(compressorId: string, query: FillLogQuery) {
    const unit = this.register.require(compressorId);
    const plate = this.register.plateOf(unit, this.clock());
    const timeZone = this.register.timeZoneOf(plate);
    return { plate, timeZone, fills: this.filling.fillsOf(unit.id, ...daysOf(query, timeZone)) };
  }
}

function minutesOf({ startedAt, endedAt }: FillEntity): number {
  return (endedAt - startedAt) / 60_000;
}

function spanText({ from, to }: FillLogQuery): string {
  if (from === undefined && to === undefined) return 'All fills on record';
  return [from && `from ${describeDay(from)}`, to && `to ${describeDay(to)}`].filter(Boolean).join(' ');
}

function rounded(figure: number, decimals: number): number {
  return Number(figure.toFixed(decimals));
}
