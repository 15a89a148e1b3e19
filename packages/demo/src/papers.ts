import { ink, PdfDocument } from '@entretien/server';

/** A paper of a machine of the valley. */
export interface PaperStory {
  readonly tag: string;
  readonly kind: 'manual' | 'label' | 'sound';
  readonly title: string;
  readonly draw: (createdAt: Date) => Buffer | Promise<Buffer>;
}

const A5 = { width: 420, height: 595, margin: 36 } as const;

interface Sheet {
  readonly title: string;
  readonly lines: readonly string[];
  readonly rows?: readonly (readonly [string, string])[];
  readonly figure?: (paper: PdfDocument) => void;
}

/** A booklet in the hand of an invented maker. */
async function booklet(name: string, sheets: readonly Sheet[], createdAt: Date): Promise<Buffer> {
  const paper = new PdfDocument({ ...A5, title: name, createdAt });
  for (const [index, { title, lines, rows = [], figure }] of sheets.entries()) {
    // Each on a page of its own.
    if (index > 0) paper.need(A5.height);
    if (index === 0) paper.write(name, { size: 18, strong: true }, 'H1');
    paper.write(title, { size: 13, strong: true }, 'H2');
    paper.rule();
    paper.space(6);
    for (const line of lines) {
      paper.write(line, { size: 10.5 });
      paper.space(3);
    }
    figure?.(paper);
    if (rows.length > 0) paper.space(4);
    for (const [left, right] of rows) paper.row([[left], [right, { strong: true }]], [0.62, 0.38]);
  }
  return paper.finish(name);
}

/** The oil’s way through a screw, as its maker drew it. */
function oilWay(paper: PdfDocument): void {
  paper.need(190);
  const [x, y] = [paper.left, paper.top + 10];
  const { document } = paper;
  paper.tagged(
    'Figure',
    () => {
      document.lineWidth(1.2).strokeColor(ink.text).fillColor(ink.text);
      document.rect(x + 20, y + 20, 90, 50).stroke();
      document.circle(x + 52, y + 45, 17).stroke();
      document.circle(x + 80, y + 45, 14).stroke();
      document.roundedRect(x + 190, y + 10, 60, 110, 14).stroke();
      document
        .moveTo(x + 192, y + 86)
        .lineTo(x + 248, y + 86)
        .stroke();
      document.rect(x + 80, y + 128, 70, 30).stroke();
      document.circle(x + 36, y + 143, 15).stroke();
      document
        .moveTo(x + 110, y + 40)
        .lineTo(x + 190, y + 40)
        .stroke();
      document
        .moveTo(x + 220, y + 120)
        .lineTo(x + 220, y + 143)
        .lineTo(x + 150, y + 143)
        .stroke();
      document
        .moveTo(x + 80, y + 143)
        .lineTo(x + 51, y + 143)
        .stroke();
      document
        .moveTo(x + 36, y + 128)
        .lineTo(x + 36, y + 70)
        .stroke();
      document.fontSize(9);
      document.text('air end', x + 40, y + 4, { lineBreak: false });
      document.text('vessel, element inside', x + 262, y + 56, { lineBreak: false });
      document.text('cooler', x + 98, y + 162, { lineBreak: false });
      document.text('filter', x + 24, y + 162, { lineBreak: false });
    },
    'Oil goes from the air end with the air into the vessel, from there through cooler and filter back',
  );
  paper.space(186);
}

const screwManual = (createdAt: Date) =>
  booklet(
    'BS 22 D, handbook',
    [
      {
        title: 'Before anything is opened',
        lines: [
          'Switch off, lock the disconnect with your own lock, shut the outlet valve. The vessel vents by itself through the blow-down; it is empty when the vent at the filler is open and silent, and its needle was seen to fall.',
          'Hot oil burns. Wait until it is under 60 °C.',
          'A valve on the outlet that passes feeds the vessel from the network: look again after five minutes, everything open.',
        ],
      },
      {
        title: 'What comes round',
        lines: ['By hours of running or by time, whichever comes first. In dust or heat: half of it.'],
        rows: [
          ['Oil filter', '2,000 h or a year'],
          ['Oil, semi-synthetic', '4,000 h or 2 years'],
          ['Separator element', '4,000 h, or at 1 bar'],
          ['Intake filter', '2,000 h or a year'],
          ['Minimum-pressure valve, kit', '8,000 h'],
          ['Motor bearings, grease', '4,000 h'],
        ],
      },
      {
        title: 'The oil’s way',
        lines: ['9 litres, VG 46. Drained at the lowest point under the cooler, filled at the vessel.'],
        figure: oilWay,
      },
      {
        title: 'Torques',
        lines: ['Dry threads, in three rounds, crosswise.'],
        rows: [
          ['Lid of the vessel, M16', '180 Nm'],
          ['Filler plug, vessel', '60 Nm'],
          ['Oil filter', 'by hand, three quarters of a turn'],
          ['Coupling guard', '25 Nm'],
        ],
      },
    ],
    createdAt,
  );

const pistonManual = (createdAt: Date) =>
  booklet(
    'Tower set, handbook',
    [
      {
        title: 'Stages and their valves',
        lines: [
          'Each stage is vented at its own drain; a drain that gives nothing proves nothing. The tower holds full pressure until its own vent is open and silent.',
          'Nothing is loosened that does not turn by hand.',
        ],
        rows: [
          ['Relief, first stage', '9 bar'],
          ['Relief, second stage', '60 bar'],
          ['Relief, final', '330 bar'],
        ],
      },
      {
        title: 'Cartridge',
        lines: [
          'By weight, by hours at the temperature of the place, or a year after it was opened. Rings new each time, the inner one first.',
        ],
        rows: [
          ['at 10 °C', '74 h'],
          ['at 20 °C', '40 h'],
          ['at 30 °C', '22 h'],
        ],
      },
    ],
    createdAt,
  );

const stickerOf = (createdAt: Date) =>
  booklet(
    'Sticker on the receiver',
    [
      {
        title: 'As it was read off',
        lines: [
          'Oil every 300 h, at least twice a year. Valves looked at every 1,000 h. Belt after the first 24 h, then monthly.',
        ],
      },
    ],
    createdAt,
  );

const RATE = 8000;

/** A set at its first day: a hum with its beat, and one valve that clicks; 8-bit, mono. */
function firstSound(): Buffer {
  const samples = RATE * 4;
  const head = Buffer.alloc(44);
  head.write('RIFF', 0);
  head.writeUInt32LE(36 + samples, 4);
  head.write('WAVEfmt ', 8);
  head.writeUInt32LE(16, 16);
  head.writeUInt16LE(1, 20);
  head.writeUInt16LE(1, 22);
  head.writeUInt32LE(RATE, 24);
  head.writeUInt32LE(RATE, 28);
  head.writeUInt16LE(1, 32);
  head.writeUInt16LE(8, 34);
  head.write('data', 36);
  head.writeUInt32LE(samples, 40);
  const sound = Buffer.alloc(samples);
  for (let index = 0; index < samples; index++) {
    const at = index / RATE;
    const turn = (at * 12) % 1;
    const hum = 0.35 * Math.sin(2 * Math.PI * 100 * at) + 0.2 * Math.sin(2 * Math.PI * 148 * at);
    const click = turn < 0.04 ? 0.5 * Math.sin(2 * Math.PI * 1900 * at) * (1 - turn / 0.04) : 0;
    sound[index] = Math.round(128 + 100 * (hum + click) * (0.8 + 0.2 * Math.sin(2 * Math.PI * 3 * at)));
  }
  return Buffer.concat([head, sound]);
}

/** Manuals, a label and a sound of the valley’s machines, drawn by ourselves. */
export const papers: readonly PaperStory[] = [
  { tag: 'HC-1', kind: 'manual', title: 'BS 22 D, handbook', draw: screwManual },
  { tag: 'HC-1', kind: 'sound', title: 'New, at load, by the left door', draw: firstSound },
  { tag: 'SP-1', kind: 'manual', title: 'Tower set, handbook', draw: pistonManual },
  { tag: 'CJ-1', kind: 'label', title: 'Sticker on the receiver', draw: stickerOf },
];
