import type { DataPlate } from '../machine/index.js';
import { handlings, highPressureHandling, type Handling } from '../simulator/index.js';

/** Something in a space that tells what is not so, or lets air in: one of these is one liar. */
export type Liar =
  | {
      readonly kind: 'fault';
      readonly codes: readonly string[];
      readonly least: number;
      readonly most: number;
    }
  /** The vent clogs on the way. */
  | { readonly kind: 'clogs'; readonly code: string; readonly space: string }
  /** The needle stands at zero, whatever is behind it. */
  | { readonly kind: 'needle-at-zero'; readonly gauge: string };

/** A simulated machine as the guard's courses see it. */
export interface Site extends Handling {
  readonly plate: DataPlate;
  readonly supplyBar: number;
  /** What stands in its spaces when somebody comes, bar at the least and at the most. */
  readonly holds: Readonly<Record<string, readonly [number, number]>>;
  readonly begins: Readonly<Record<string, number>>;
  /** By the space of the guard that they lie in. */
  readonly liars: Readonly<Record<string, readonly Liar[]>>;
}

const plateOf = (family: DataPlate['family'], more: Partial<DataPlate>): DataPlate => ({
  siteId: 's',
  tag: 'X-1',
  family,
  commissionedOn: '2024-01-01',
  history: 'new',
  motor: 'three-phase',
  ...more,
});

const fault = (codes: string | readonly string[], least = 1, most = 1): Liar => ({
  kind: 'fault',
  codes: typeof codes === 'string' ? [codes] : codes,
  least,
  most,
});

/** What can be wrong with a vent and its gauge. */
function ventLiars(vent: string, space: string, gauge?: string): readonly Liar[] {
  const ofGauge: readonly Liar[] =
    gauge === undefined
      ? []
      : [
          { kind: 'needle-at-zero', gauge },
          fault(`gauge-${gauge}-sticks`, 0.05, 1),
          fault(`gauge-${gauge}-off`, 0.05, 0.6),
        ];
  return [
    fault(`${vent}-blocked`),
    fault(`${vent}-blocked`, 0.9, 0.999),
    { kind: 'clogs', code: `${vent}-blocked`, space },
    ...ofGauge,
  ];
}

const piston: Site = {
  plate: plateOf('piston', { stages: 2, receiverL: 270, workingPressureBar: 10 }),
  supplyBar: 9,
  holds: { receiver: [4, 10], network: [4, 9], intercooler: [0, 3], 'head-side': [0, 10] },
  begins: { 'other-set': 1 },
  ...handlings.piston,
  liars: {
    receiver: [
      ...ventLiars('drain-receiver', 'receiver', 'receiver'),
      fault('valve-network-passes', 0.02, 1),
    ],
    'head-side': [
      ...ventLiars('bleed-intercooler', 'intercooler', 'intercooler'),
      fault('unloader-shut'),
      fault('check-valve', 0.05, 1),
    ],
  },
};

const oilFree: Site = {
  plate: plateOf('piston-oil-free', { motor: 'single-phase' }),
  supplyBar: 0,
  holds: { receiver: [2, 8], outlet: [0, 6], 'head-side': [0, 8] },
  begins: {},
  ...handlings.oilFree,
  liars: {
    receiver: ventLiars('drain-receiver', 'receiver', 'receiver'),
    'head-side': [fault('unloader-shut'), fault('check-valve', 0.05, 1), fault('check-valve-shut')],
  },
};

const screw: Site = {
  plate: plateOf('screw', {}),
  supplyBar: 7,
  holds: { vessel: [0.2, 8], 'outlet-side': [4, 8], receiver: [4, 8], network: [4, 8] },
  begins: { 'other-set': 1 },
  ...handlings.screw,
  liars: {
    vessel: [
      ...ventLiars('vent-vessel', 'vessel', 'vessel'),
      fault('blow-down-shut'),
      fault('minimum-pressure-open', 0.1, 1),
    ],
    'outlet-side': [...ventLiars('drain-separator', 'outlet-side'), fault('valve-outlet-passes', 0.02, 1)],
    receiver: ventLiars('drain-receiver', 'receiver', 'receiver'),
  },
};

const portable: Site = {
  plate: plateOf('screw', { motor: 'diesel' }),
  supplyBar: 0,
  holds: { vessel: [0, 8], 'outlet-side': [0, 8], hose: [0, 8] },
  begins: {},
  ...handlings.portable,
  liars: {
    vessel: [
      ...ventLiars('vent-vessel', 'vessel', 'vessel'),
      fault('blow-down-shut'),
      fault('minimum-pressure-open', 0.1, 1),
    ],
    'outlet-side': ventLiars('vent-outlet', 'outlet-side'),
  },
};

const waterCooled: Site = {
  plate: plateOf('piston', { stages: 2, cooling: 'water', workingPressureBar: 30, receiverL: 500 }),
  supplyBar: 28,
  holds: { low: [0, 5], high: [2, 30], separator: [2, 30], receiver: [10, 30], network: [10, 28] },
  begins: { 'other-set': 1 },
  ...handlings.waterCooled,
  liars: {
    low: ventLiars('drain-low', 'low', 'low'),
    high: [...ventLiars('drain-high', 'high', 'high')],
    separator: [
      ...ventLiars('drain-separator', 'separator', 'separator'),
      // The hand valve passes, and the check valve behind it: only together do they feed anything.
      fault(['valve-delivery-passes', 'check-valve'], 0.1, 1),
    ],
    receiver: ventLiars('drain-receiver', 'receiver', 'receiver'),
  },
};

function highPressure(stages: 3 | 4): Site {
  const between = Array.from({ length: stages - 1 }, (_, index) => `stage-${index + 1}`);
  const all = <One>(of: (code: string, index: number) => One) =>
    Object.fromEntries(between.map((code, index) => [code, of(code, index)]));
  return {
    plate: plateOf('high-pressure', { stages, workingPressureBar: 300, airUse: 'breathing' }),
    supplyBar: 0,
    holds: {
      ...all((_code, index): readonly [number, number] => [0, 4 * 5 ** index]),
      tower: [0, 300],
      panel: [50, 280],
      'bank-1': [50, 280],
      'bank-2': [50, 280],
    },
    begins: {},
    ...highPressureHandling(stages),
    liars: {
      ...all((code, index) => ventLiars(`drain-${index + 1}`, code, code)),
      tower: [
        ...ventLiars('bleed-tower', 'tower', 'tower'),
        fault(['holding-valve', 'tower-check'], 0.05, 1),
      ],
      panel: [...ventLiars('vent-panel', 'panel', 'panel'), fault('bank-valve', 0.05, 1)],
    },
  };
}

/** The machines that the courses are run on: four families, with what differs inside them. */
export const sites: Readonly<Record<string, Site>> = {
  piston,
  'oil-free': oilFree,
  screw,
  portable,
  'water-cooled': waterCooled,
  'high-pressure, three stages': highPressure(3),
  'high-pressure, four stages': highPressure(4),
};
