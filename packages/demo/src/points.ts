import type { RegisterPoint } from '@entretien/contracts';
import type { CheckValues } from '@entretien/core/checks';
import { honestCourse, pointRestartSteps } from '@entretien/core/isolation';
import { pointGuarded, pointTasks, type PointPlate } from '@entretien/core/points';

/** Something done or found at a point of use, so many days ago. */
interface PointWorkStory {
  readonly ago: number;
  readonly tasks?: readonly string[];
  readonly looks?: readonly (readonly [check: string, values: CheckValues])[];
}

/** A point of use of a site, from when it came into the register. */
export interface PointStory extends Omit<
  RegisterPoint,
  'id' | 'siteId' | 'compressorIds' | 'vesselIds' | 'fittedOn' | 'by'
> {
  readonly site: string;
  readonly fedBy: readonly string[];
  readonly through?: readonly string[];
  readonly work: readonly PointWorkStory[];
}

/** Days ago that the points of use came into the register. */
export const POINTS_REGISTERED = 340;

const round = ['point-bowl', 'point-drain'] as const;
const filter = { filterMicron: 5, bowl: 'plastic', hasGuard: true, drain: 'manual' } as const;
const oiled = { lubricator: 'direct', oil: 'mineral', moreBy: 'screw out' } as const;

/** Filters, regulators and lubricators of the valley. */
export const points: readonly PointStory[] = [
  {
    site: 'Coppel Joinery',
    tag: 'P-21',
    place: 'Panel saw',
    fedBy: ['CJ-1'],
    through: ['R-CJ'],
    whenAirGoes: 'The clamp beam lifts off the panel',
    isBreathed: false,
    ratedBar: 10,
    ...filter,
    regulatorBar: 6,
    isRelieving: true,
    ...oiled,
    dropsPerMinute: 1,
    work: [
      {
        ago: 210,
        tasks: ['point-element', ...round, 'point-oil'],
        looks: [['line-element', { element: 'grey' }]],
      },
      {
        ago: 120,
        tasks: [...round, 'point-setting'],
        looks: [['regulator', { setBar: 6, flowBar: 5.6, restBar: 6.05 }]],
      },
      {
        ago: 4,
        tasks: ['point-drain', 'point-setting'],
        looks: [
          ['regulator', { setBar: 6, flowBar: 5.5, restBar: 6.1 }],
          ['line-lubricator', { kind: 'direct', holds: 'right', drops: 0.4 }],
        ],
      },
    ],
  },
  {
    site: 'Coppel Joinery',
    tag: 'P-22',
    place: 'Spray room',
    fedBy: ['CJ-2'],
    whenAirGoes: 'Nothing moves: the gun stops',
    isBreathed: false,
    ratedBar: 8,
    filterMicron: 0.01,
    bowl: 'metal',
    drain: 'automatic',
    elementEveryMonths: 6,
    regulatorBar: 4,
    isRelieving: false,
    work: [
      { ago: 190, tasks: ['point-element', 'point-setting'] },
      {
        ago: 18,
        tasks: ['point-drain', 'point-bowl'],
        looks: [
          ['line-filter-drop', { flowing: 'yes', dropBar: 0.42 }],
          ['auto-drain', { drain: 'works' }],
        ],
      },
    ],
  },
  {
    site: 'Vellin Bottling',
    tag: 'P-31',
    place: 'Capper',
    fedBy: ['VB-2'],
    whenAirGoes: 'The capping heads fall, the gate opens',
    isBreathed: false,
    ...filter,
    regulatorBar: 5.5,
    isRelieving: true,
    lubricator: 'micro-mist',
    oil: 'food-grade',
    dropsPerMinute: 10,
    moreBy: 'screw in',
    work: [
      { ago: 160, tasks: ['point-element', ...round, 'point-setting', 'point-oil'] },
      {
        ago: 12,
        tasks: [...round, 'point-oil', 'point-setting'],
        looks: [
          ['line-element', { element: 'white' }],
          ['line-lubricator', { kind: 'micro-mist', holds: 'right', drops: 11, wantedDrops: 10 }],
        ],
      },
    ],
  },
  {
    site: 'Vellin Bottling',
    tag: 'P-32',
    place: 'Labeller',
    fedBy: ['VB-2'],
    whenAirGoes: 'The label arm swings back',
    isBreathed: false,
    filterMicron: 5,
    bowl: 'plastic',
    hasGuard: false,
    drain: 'automatic',
    regulatorBar: 6,
    work: [
      {
        ago: 12,
        tasks: ['point-bowl', 'point-drain', 'point-setting'],
        looks: [['bowl', { bowl: 'sound' }]],
      },
    ],
  },
  {
    site: 'Haldris Creamery',
    tag: 'P-11',
    place: 'Carton former',
    fedBy: ['HC-1'],
    through: ['R-HC'],
    whenAirGoes: 'The former drops its blank',
    isBreathed: false,
    ...filter,
    drain: 'automatic',
    regulatorBar: 6,
    isRelieving: true,
    work: [{ ago: 20, tasks: ['point-element', 'point-bowl', 'point-drain', 'point-setting'] }],
  },
  {
    site: 'Brask Quarry',
    tag: 'P-41',
    place: 'Block splitter',
    fedBy: ['BQ-1'],
    whenAirGoes: 'The splitting head comes down',
    isBreathed: false,
    ratedBar: 14,
    filterMicron: 40,
    bowl: 'plastic',
    hasGuard: true,
    drain: 'manual',
    ...oiled,
    oil: 'synthetic',
    work: [
      { ago: 60, tasks: ['point-element', 'point-drain', 'point-bowl', 'point-oil'] },
      { ago: 6, tasks: ['point-bowl'], looks: [['bowl', { bowl: 'crazed' }]] },
    ],
  },
];

const iso = (at: number) => new Date(at).toISOString();

/** Work at a point as it is sent: what opens it behind its own valve, proved and given its air back. */
export function pointTelling(plate: PointPlate, { tasks = [], looks = [] }: PointWorkStory, end: number) {
  const opening = new Set(pointTasks(plate).flatMap(({ code, opens }) => (opens ? [code] : [])));
  const isOpened =
    tasks.some((code) => opening.has(code)) || looks.some(([check]) => check === 'line-element');
  const course = isOpened ? honestCourse(pointGuarded('UTC').plate, ['point']) : [];
  const start = end - 420_000 - (course.at(-1)?.seconds ?? 0) * 1000;
  const steps = course.map(({ seconds, body }) => ({ at: iso(start + seconds * 1000), ...body }));
  const back = {
    at: iso(end - 60_000),
    kind: 'restart' as const,
    scope: 'point' as const,
    steps: pointRestartSteps.map(({ code }) => code),
  };
  return {
    doneAt: iso(end),
    tasks: tasks.map((code) => ({ code, at: iso(end - (opening.has(code) ? 120_000 : 30_000)) })),
    looks: looks.map(([check, values]) => ({
      check,
      values,
      at: iso(end - (check === 'line-element' ? 180_000 : 20_000)),
    })),
    steps: isOpened ? [...steps, back] : [],
  };
}
