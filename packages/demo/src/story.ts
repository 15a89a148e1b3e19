import type { DeferTask, RecordModelNote, RegisterCompressor, RegisterVessel } from '@entretien/contracts';

/** How a machine is used, in hours of running. */
export interface UseStory {
  /** Hours on a working day, in the middle of its habit. */
  readonly perDay: number;
  /** Days of the week that it works, 0 = Sunday. */
  readonly workDays: readonly number[];
  /** Multiplies use by month, January first. Skipped: every month alike. */
  readonly byMonth?: readonly number[];
  /** Spread of a day about its habit, as a share. */
  readonly spread: number;
  /** How far its weeks wander about the habit, as a share; 0.12 where left out. */
  readonly wander?: number;
  /** Share of its running under load, where a second counter says so. */
  readonly loadedShare?: number;
  /** Stands still from so many days ago on. */
  readonly idleSince?: number;
  /** Its work changed for good so many days ago: it runs so many times as much since. */
  readonly raised?: { readonly ago: number; readonly times: number };
}

/** One machine of the valley and what happens to it. */
export interface CompressorStory {
  readonly plate: Omit<RegisterCompressor, 'id' | 'siteId' | 'commissionedOn' | 'by'>;
  /** Days ago that it was commissioned. */
  readonly commissioned: number;
  /** Days ago that it came into the register; from then on it is visited. Default: at commissioning. */
  readonly known?: number;
  readonly use: UseStory;
  /** Figure on its meter when it came into the register. */
  readonly meterStartsAt?: number;
  /**
   * Tasks nobody has done since so many days ago; done on that day, where it must be sure on any day how much of
   * their interval is used by now.
   */
  readonly neglected?: {
    readonly tasks: readonly string[];
    readonly since: number;
    readonly doneThen?: true;
  };
  /** The meter was replaced so many days ago. */
  readonly meterReplaced?: number;
  /** Its separator element blocks faster than others. */
  readonly separatorClimbs?: true;
  /** It delivers less and less: valves or rings. */
  readonly pumpUpSlips?: true;
  /** The last of its stages has begun to let gas back. */
  readonly lastStageLeaks?: true;
  /** It stands in a hot hall. */
  readonly hallIsHot?: true;
  readonly glassStained?: true;
  /** Ways chosen in the schools of its plan, since so many days ago. */
  readonly ways?: {
    readonly since: number;
    readonly choices: Readonly<Record<string, string>>;
    readonly note: string;
  };
  /** A task that was put off so many days ago, for so many days. */
  readonly deferral?: Pick<DeferTask, 'task' | 'reason' | 'risk'> & {
    readonly ago: number;
    readonly days: number;
  };
  /** Nobody has read it since so many days ago. */
  readonly unreadSince?: number;
  /** What was learned of its model, since so many days ago. */
  readonly learned?: readonly (Pick<RecordModelNote, 'about' | 'text'> & { readonly ago: number })[];
}

export interface SiteStory {
  readonly name: string;
  readonly altitudeM: number;
  readonly address: string;
  readonly contact: string;
  /** Days between visits. */
  readonly visitEvery: number;
  /** Days ago that somebody was last there. */
  readonly lastVisit: number;
  readonly units: readonly CompressorStory[];
  readonly vessels?: readonly VesselStory[];
  /** Cylinders that are filled there, from when they came into the register. */
  readonly cylinders?: {
    readonly filledBy: string;
    readonly registered: number;
    readonly list: readonly CylinderStory[];
  };
}

/** A cylinder, and how many days ago it was tested. */
export interface CylinderStory extends Pick<
  RegisterVessel,
  'tag' | 'ratedBar' | 'volumeL' | 'connectorBar' | 'testEveryMonths' | 'gas'
> {
  readonly tested: number;
}

const rescue = { ratedBar: 300, volumeL: 6.8, connectorBar: 300, testEveryMonths: 60 } as const;
const airbag = { ratedBar: 200, volumeL: 2, connectorBar: 200, testEveryMonths: 60 } as const;

/** A receiver or cylinders of a site, and how many days ago they were last seen to. */
export interface VesselStory extends Pick<
  RegisterVessel,
  'tag' | 'kind' | 'ratedBar' | 'volumeL' | 'testEveryMonths' | 'inspectEveryMonths'
> {
  readonly filledBy: readonly string[];
  readonly tested: number;
  readonly inspected: number;
}

const weekdays = [1, 2, 3, 4, 5];
const sixDays = [1, 2, 3, 4, 5, 6];
const everyDay = [0, 1, 2, 3, 4, 5, 6];

/** The valley's people. All invented. */
export const people = [
  { name: 'Mira Kolden', initials: 'MK' },
  { name: 'Jorun Aske', initials: 'JA' },
] as const;

/**
 * The Haldris valley: invented places, machines and makers, so that every family and every situation that the
 * application knows can be seen at once.
 */
export const sites: readonly SiteStory[] = [
  {
    name: 'Haldris Creamery',
    altitudeM: 640,
    address: 'Lower Road 4',
    contact: 'Edda Froom, plant office',
    visitEvery: 14,
    lastVisit: 6,
    vessels: [
      {
        tag: 'R-HC',
        kind: 'receiver',
        filledBy: ['HC-1'],
        ratedBar: 11,
        volumeL: 500,
        testEveryMonths: 120,
        inspectEveryMonths: 60,
        tested: 925,
        inspected: 925,
      },
    ],
    units: [
      {
        plate: {
          tag: 'HC-1',
          name: 'Packing hall',
          family: 'screw',
          separatorElement: 'vessel',
          maker: 'Brimvarg',
          model: 'BS 22 D',
          serial: '30417',
          drive: 'direct',
          motor: 'three-phase',
          cooling: 'air',
          hasDryer: true,
          workingPressureBar: 8,
          maximumPressureBar: 11,
          cutInBar: 7,
          cutOutBar: 8,
          reliefBar: 10,
          displacementLpm: 3900,
          fadLpm: 3300,
          receiverL: 500,
          oilGrade: 'VG 46 semi-synthetic',
          oilChargeL: 9,
          hasHourMeter: true,
          dust: 'clean',
        },
        commissioned: 930,
        use: { perDay: 16, workDays: everyDay, spread: 0.15, loadedShare: 0.74 },
      },
      {
        plate: {
          tag: 'HC-2',
          name: 'Laboratory',
          family: 'piston-oil-free',
          maker: 'Ellvask',
          model: 'Q2',
          drive: 'direct',
          motor: 'single-phase',
          cooling: 'air',
          lubrication: 'none',
          workingPressureBar: 7,
          cutInBar: 5.5,
          cutOutBar: 7,
          reliefBar: 8,
          maximumPressureBar: 8,
          fadLpm: 95,
          displacementLpm: 150,
          receiverL: 24,
          torques:
            'eccentric screw: 12 Nm, 1 round; ring screw: 4 Nm, 1 round; head bolts: 9 Nm, 3 rounds, star, manual',
          hasHourMeter: true,
          dust: 'clean',
        },
        commissioned: 780,
        use: { perDay: 1.4, workDays: weekdays, spread: 0.4 },
        learned: [
          {
            ago: 410,
            about: 'reach',
            text: 'The unloader sits behind the fan cover: four screws, two of them from below.',
          },
          {
            ago: 96,
            about: 'trick',
            text: 'Mark how the fan sat on its shaft before it comes off: it fits four ways, one of them right.',
          },
        ],
      },
    ],
  },
  {
    name: 'Coppel Joinery',
    altitudeM: 655,
    address: 'Sawmill Lane 11',
    contact: 'Tam Coppel',
    visitEvery: 21,
    lastVisit: 19,
    vessels: [
      {
        tag: 'R-CJ',
        kind: 'receiver',
        filledBy: ['CJ-1'],
        ratedBar: 11,
        volumeL: 500,
        testEveryMonths: 120,
        inspectEveryMonths: 30,
        tested: 1005,
        inspected: 880,
      },
    ],
    units: [
      {
        plate: {
          tag: 'CJ-1',
          name: 'Bench room',
          family: 'piston',
          maker: 'Skolmund',
          model: 'Twin 75',
          stages: 2,
          drive: 'belt',
          motor: 'three-phase',
          cooling: 'air',
          lubrication: 'splash',
          workingPressureBar: 10,
          cutInBar: 8,
          cutOutBar: 10,
          reliefBar: 11,
          maximumPressureBar: 11,
          displacementLpm: 1000,
          fadLpm: 690,
          receiverL: 500,
          oilGrade: 'VG 100',
          oilChargeL: 3.2,
          oilDrainAt: 'plug under the glass, 19 mm',
          oilFillAt: 'breather, turned off by hand',
          levelRead: 'dot',
          levelSeenBy: 'mirror',
          hasHourMeter: false,
          declaredHoursPerWeek: 22,
          dust: 'dusty',
        },
        commissioned: 1010,
        pumpUpSlips: true,
        deferral: { task: 'belt-check', reason: 'The belt of this size is ordered.', ago: 19, days: 40 },
        use: { perDay: 4.4, workDays: weekdays, spread: 0.2 },
        neglected: {
          tasks: ['intake-replace', 'intake-inspect', 'belt-check', 'valves-inspect'],
          since: 210,
        },
      },
      {
        plate: {
          tag: 'CJ-2',
          name: 'Spray booth',
          family: 'piston-oil-free',
          maker: 'Ellvask',
          model: 'Q4',
          drive: 'direct',
          motor: 'single-phase',
          cooling: 'air',
          lubrication: 'none',
          workingPressureBar: 8,
          reliefBar: 9,
          maximumPressureBar: 9,
          receiverL: 50,
          hasHourMeter: true,
          dust: 'dusty',
        },
        commissioned: 610,
        use: { perDay: 2.1, workDays: weekdays, spread: 0.35, raised: { ago: 56, times: 3 } },
      },
    ],
  },
  {
    name: 'Brask Quarry',
    altitudeM: 910,
    address: 'Quarry track, gate 2',
    contact: 'Olle Brask',
    visitEvery: 35,
    lastVisit: 74,
    units: [
      {
        plate: {
          tag: 'BQ-1',
          name: 'Drill bench',
          family: 'screw',
          maker: 'Brimvarg',
          model: 'Tow 50',
          serial: '8812',
          drive: 'direct',
          motor: 'diesel',
          cooling: 'air',
          workingPressureBar: 7,
          maximumPressureBar: 9,
          reliefBar: 8.5,
          fadLpm: 5000,
          displacementLpm: 5900,
          oilGrade: 'VG 46',
          oilChargeL: 12,
          hasHourMeter: true,
          dust: 'dusty',
        },
        commissioned: 860,
        use: {
          perDay: 5,
          wander: 0.35,
          workDays: weekdays,
          spread: 0.45,
          byMonth: [0.3, 0.3, 0.7, 1, 1.2, 1.2, 1.2, 1.2, 1.1, 1, 0.7, 0.4],
        },
        unreadSince: 74,
      },
    ],
  },
  {
    name: 'Lindmoor Dental Rooms',
    altitudeM: 620,
    address: 'Market Square 2',
    contact: 'Sunna Relf, practice desk',
    visitEvery: 42,
    lastVisit: 12,
    units: [
      {
        plate: {
          tag: 'LD-1',
          name: 'Plant cellar',
          family: 'piston-oil-free',
          maker: 'Ellvask',
          model: 'Duo',
          stages: 1,
          drive: 'direct',
          motor: 'single-phase',
          lubrication: 'none',
          workingPressureBar: 6,
          cutInBar: 5,
          cutOutBar: 6.5,
          reliefBar: 8,
          maximumPressureBar: 8,
          receiverL: 50,
          hasHourMeter: true,
          dust: 'clean',
        },
        commissioned: 700,
        use: { perDay: 2.6, workDays: weekdays, spread: 0.25 },
      },
      {
        plate: {
          tag: 'LD-2',
          name: 'Spare, attic',
          family: 'piston-oil-free',
          maker: 'Ellvask',
          model: 'Q2',
          drive: 'direct',
          motor: 'single-phase',
          lubrication: 'none',
          workingPressureBar: 6,
          receiverL: 24,
          hasHourMeter: true,
          dust: 'normal',
        },
        commissioned: 700,
        use: { perDay: 1.2, workDays: weekdays, spread: 0.3, idleSince: 215 },
      },
    ],
  },
  {
    name: 'Skarn Pass Avalanche Centre',
    altitudeM: 1840,
    address: 'Pass road, upper station',
    contact: 'Vigdis Orm, station lead',
    visitEvery: 18,
    lastVisit: 9,
    vessels: [
      {
        tag: 'B-SP',
        kind: 'bank',
        filledBy: ['SP-1'],
        ratedBar: 350,
        volumeL: 150,
        testEveryMonths: 60,
        inspectEveryMonths: 30,
        tested: 960,
        inspected: 895,
      },
    ],
    cylinders: {
      filledBy: 'SP-1',
      registered: 730,
      list: [
        { tag: 'R-01', ...rescue, tested: 800 },
        { tag: 'R-02', ...rescue, tested: 800 },
        { tag: 'R-03', ...rescue, tested: 760 },
        { tag: 'R-04', ...rescue, tested: 760 },
        { tag: 'R-07', ...rescue, tested: 900 },
        { tag: 'A-11', ...airbag, tested: 740 },
        { tag: 'A-12', ...airbag, tested: 740 },
        // Brought along by somebody who dives; and one whose papers nobody has found.
        { tag: 'N-02', ...rescue, gas: 'nitrox', tested: 790 },
        { tag: 'X-09', ratedBar: 300, volumeL: 6.8, connectorBar: 300, tested: 735 },
      ],
    },
    units: [
      {
        plate: {
          tag: 'SP-1',
          name: 'Filling room',
          family: 'high-pressure',
          maker: 'Tarskeld',
          model: 'H3-255',
          stages: 3,
          drive: 'belt',
          motor: 'three-phase',
          cooling: 'air',
          lubrication: 'splash',
          workingPressureBar: 300,
          cutOutBar: 310,
          reliefBar: 330,
          maximumPressureBar: 350,
          fadLpm: 255,
          displacementLpm: 400,
          oilGrade: 'VG 100 breathing air',
          oilDrainAt: 'hose at the front, cap 17 mm',
          oilFillAt: 'cap on the crankcase',
          cartridgeWay: 'with its arrow to the foot of the tower',
          drainsBy: 'hand',
          drainsRest: 'open',
          drainEveryMin: 12,
          oilChargeL: 1.5,
          hasHourMeter: true,
          dust: 'clean',
          airUse: 'breathing',
        },
        commissioned: 990,
        lastStageLeaks: true,
        use: {
          perDay: 0.55,
          workDays: everyDay,
          spread: 0.6,
          byMonth: [2, 2, 1.6, 0.8, 0.3, 0.2, 0.2, 0.2, 0.3, 0.6, 1.2, 1.8],
        },
      },
    ],
  },
  {
    name: 'Vellin Bottling',
    altitudeM: 580,
    address: 'Spring Works 1',
    contact: 'Ragn Elster, shift office',
    visitEvery: 10,
    lastVisit: 4,
    vessels: [
      {
        tag: 'R-VB',
        kind: 'receiver',
        filledBy: ['VB-2'],
        ratedBar: 11,
        volumeL: 900,
        testEveryMonths: 120,
        inspectEveryMonths: 60,
        tested: 635,
        inspected: 635,
      },
    ],
    units: [
      {
        plate: {
          tag: 'VB-1',
          name: 'Bottle blowing',
          family: 'piston',
          maker: 'Tarskeld',
          model: 'W2-35',
          stages: 2,
          drive: 'belt',
          motor: 'three-phase',
          cooling: 'water',
          lubrication: 'pump',
          lowPressureValve: 'own-cover',
          highPressureValves: 'own-covers',
          coolersAre: 'beside',
          cylinderOilFrom: 'own-tank',
          coolingWaterFrom: 'building',
          workingPressureBar: 35,
          cutOutBar: 36,
          reliefBar: 40,
          maximumPressureBar: 42,
          fadLpm: 6200,
          displacementLpm: 8100,
          receiverL: 1000,
          oilGrade: 'VG 150',
          oilChargeL: 24,
          hasHourMeter: true,
          dust: 'normal',
        },
        commissioned: 1000,
        glassStained: true,
        use: {
          perDay: 11,
          loadedShare: 0.52,
          workDays: sixDays,
          spread: 0.2,
          byMonth: [0.7, 0.7, 0.8, 1, 1.2, 1.3, 1.3, 1.2, 1, 0.9, 0.8, 0.7],
        },
      },
      {
        plate: {
          tag: 'VB-2',
          name: 'Plant air',
          family: 'screw',
          separatorElement: 'vessel',
          maker: 'Brimvarg',
          model: 'BS 37 V',
          drive: 'direct',
          motor: 'three-phase',
          cooling: 'air',
          speedControl: 'variable',
          workingPressureBar: 7.5,
          maximumPressureBar: 10,
          reliefBar: 9.5,
          fadLpm: 6100,
          displacementLpm: 7000,
          receiverL: 900,
          oilGrade: 'VG 46 synthetic',
          oilChargeL: 16,
          hasHourMeter: true,
          dust: 'normal',
        },
        commissioned: 640,
        // Twelve hours a day on the average: 158 days are some 1,900 h of an interval of 2,000 h.
        use: { perDay: 14, workDays: sixDays, spread: 0.12, wander: 0.02 },
        neglected: {
          tasks: ['intake-replace', 'scavenge-clean', 'valves-inspect', 'bearing-check'],
          since: 158,
          doneThen: true,
        },
      },
    ],
  },
  {
    name: 'Odrin Glassworks',
    altitudeM: 600,
    address: 'Furnace Yard',
    contact: 'Bela Odrin',
    visitEvery: 24,
    lastVisit: 15,
    units: [
      {
        plate: {
          tag: 'OG-1',
          name: 'Furnace hall',
          family: 'screw',
          separatorElement: 'vessel',
          maker: 'Brimvarg',
          model: 'BS 30',
          drive: 'belt',
          motor: 'three-phase',
          cooling: 'air',
          workingPressureBar: 7,
          maximumPressureBar: 9,
          reliefBar: 8.5,
          fadLpm: 4700,
          displacementLpm: 5600,
          receiverL: 750,
          oilGrade: 'VG 68 mineral',
          oilRatedTempC: 85,
          oilChargeL: 11,
          hasHourMeter: true,
          dust: 'normal',
        },
        commissioned: 1020,
        neglected: { tasks: ['separator-replace'], since: 200 },
        separatorClimbs: true,
        hallIsHot: true,
        ways: {
          since: 400,
          choices: { separator: 'pressure-drop' },
          note: 'The element is expensive: by the drop across it.',
        },
        use: { perDay: 9, workDays: sixDays, spread: 0.2, loadedShare: 0.66 },
        meterReplaced: 260,
      },
    ],
  },
  {
    name: 'Hessel Tunnel',
    altitudeM: 1130,
    address: 'North portal',
    contact: 'Arvid Nask, site foreman',
    visitEvery: 28,
    lastVisit: 33,
    units: [
      {
        plate: {
          tag: 'HT-1',
          network: 'Tunnel line',
          turn: 'lead',
          name: 'North portal',
          family: 'screw',
          maker: 'Skolmund',
          model: 'Mobile 7',
          motor: 'diesel',
          drive: 'direct',
          history: 'unknown',
          workingPressureBar: 7,
          hasHourMeter: true,
          dust: 'dusty',
          note: 'Taken over without papers.',
        },
        commissioned: 1500,
        known: 48,
        meterStartsAt: 2140,
        use: { perDay: 3, workDays: sixDays, spread: 0.4, wander: 0.4 },
      },
      {
        plate: {
          tag: 'HT-2',
          network: 'Tunnel line',
          turn: 'standby',
          name: 'South portal',
          family: 'screw',
          maker: 'Skolmund',
          model: 'Mobile 7',
          motor: 'diesel',
          drive: 'direct',
          workingPressureBar: 7,
          maximumPressureBar: 9,
          reliefBar: 8.5,
          fadLpm: 4200,
          displacementLpm: 5000,
          oilGrade: 'VG 46',
          oilChargeL: 10,
          hasHourMeter: true,
          dust: 'dusty',
        },
        commissioned: 720,
        use: { perDay: 5, workDays: sixDays, spread: 0.3, idleSince: 200 },
        learned: [{ ago: 300, about: 'troublesome', text: 'Fuel filter clogs first in dust: carry two.' }],
      },
    ],
  },
  {
    name: 'Tarnholm Rescue Depot',
    altitudeM: 700,
    address: 'Depot 3',
    contact: 'Liv Harrow, duty officer',
    visitEvery: 20,
    lastVisit: 8,
    units: [
      {
        plate: {
          tag: 'TR-1',
          name: 'Rescue truck',
          family: 'high-pressure',
          maker: 'Tarskeld',
          model: 'H5-420 M',
          stages: 5,
          drive: 'belt',
          motor: 'diesel',
          cooling: 'air',
          lubrication: 'pump',
          workingPressureBar: 330,
          cutOutBar: 340,
          reliefBar: 360,
          maximumPressureBar: 380,
          maintainingValveBar: 150,
          moistureCapacityG: 120,
          fadLpm: 420,
          displacementLpm: 660,
          oilGrade: 'VG 150 breathing air',
          oilChargeL: 4.5,
          hasHourMeter: true,
          dust: 'normal',
          airUse: 'breathing',
        },
        ways: {
          since: 300,
          choices: { cartridge: 'computed' },
          note: 'Calculated from the water in it.',
        },
        commissioned: 820,
        use: { perDay: 0.7, workDays: everyDay, spread: 0.7 },
      },
    ],
  },
];
