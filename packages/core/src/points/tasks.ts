import type { CalendarInterval } from '../basics/index.js';
import {
  hasFilter,
  hasLubricator,
  hasRegulator,
  USUAL_ELEMENT_MONTHS,
  type LineOil,
  type PointPlate,
} from './point.js';

/** Something that comes round at a point of use. */
export interface PointTask {
  readonly code: string;
  readonly name: string;
  readonly every: CalendarInterval;
  /** It opens what holds pressure: shut off, vented and proved first. */
  readonly opens: boolean;
  readonly how: readonly string[];
  readonly why: string;
  readonly caution?: string;
  /** The part that it takes. */
  readonly part?: string;
  /** Checks that may call for it before its day. */
  readonly calledBy?: readonly string[];
}

export const oilNames: Readonly<Record<LineOil, string>> = {
  mineral: 'mineral air-tool oil',
  synthetic: 'synthetic air-tool oil',
  'food-grade': 'food-grade air-tool oil',
};

const elementTask = ({ elementEveryMonths }: PointPlate): PointTask => ({
  code: 'point-element',
  name: 'Filter element',
  every: { months: elementEveryMonths ?? USUAL_ELEMENT_MONTHS },
  opens: true,
  how: [
    'Bowl off by hand, with its guard; the old element kept beside the new one: white, grey or dark?',
    'New element hand-tight, the baffle back as it was.',
    'Bowl washed with soap and water, nothing else; held to the light; its ring clean and in its groove.',
  ],
  why: 'A spent element takes pressure first, then tears, and what it held goes on into the tools.',
  caution: 'Bowls are plastic: solvents, brake cleaner and hard oil craze them, and a crazed bowl bursts.',
  part: 'Filter element',
  calledBy: ['line-element', 'line-filter-drop'],
});

const bowlTask: PointTask = {
  code: 'point-bowl',
  name: 'Bowl looked at',
  every: { months: 3 },
  opens: false,
  how: ['Against the light, with a lamp: cracks, fine crazing, clouding. Guard on and whole.'],
  why: 'A bowl gives warning by fine cracks, and then none.',
  caution: 'Looked at, not touched, while it is under pressure.',
};

const drainTask = ({ drain }: PointPlate): PointTask =>
  drain === 'automatic'
    ? {
        code: 'point-drain',
        name: 'Automatic drain of the bowl',
        every: { months: 1 },
        opens: false,
        how: ['By its button: water comes, then it shuts. Water over the baffle: it does not work.'],
        why: 'A drain that sticks sends the water on into the tools.',
        caution: 'What comes, comes at line pressure: face and hands away.',
      }
    : {
        code: 'point-drain',
        name: 'Bowl drained',
        every: { days: 7 },
        opens: false,
        how: ['Before the water reaches the baffle; slowly, into a cup or rag held beside, never under it.'],
        why: 'Water over the baffle is torn along into the tools.',
        caution: 'What comes, comes at line pressure: face and hands away.',
      };

const regulatorTask = ({ regulatorBar }: PointPlate): PointTask => ({
  code: 'point-setting',
  name: 'Regulator under flow',
  every: { months: 6 },
  opens: false,
  how: [
    `With the tools drawing: ${regulatorBar ?? ''} bar. From below: lower it past the figure, then up to it.`,
    'Note what it shows with no flow, under flow, and a minute after.',
  ],
  why: 'Set without flow, a tool gets less than it is thought to; set too high, it wears and leaks.',
  calledBy: ['regulator'],
});

const oilTask = ({ oil, lubricator, moreBy, dropsPerMinute }: PointPlate): PointTask => ({
  code: 'point-oil',
  name: 'Lubricator filled and set',
  every: { months: 1 },
  opens: true,
  how: [
    `To the line with ${oil ? oilNames[oil] : 'the air-tool oil it is marked for'}; never compressor oil, never a mix.`,
    `While air flows, drops a minute in the glass: about ${dropsPerMinute ?? usualDrops(lubricator)}${moreBy ? `; more: ${moreBy}` : ''}.`,
  ],
  why: 'Too little and the tools wear; too much and they clog, and it is blown into the room.',
  caution: 'Unless its maker says that it may be filled under pressure, it is opened like the filter.',
  calledBy: ['line-lubricator'],
});

/** Drops a minute that are seen in the glass, where nobody asked for others (common practice). */
export function usualDrops(lubricator: PointPlate['lubricator']): number {
  return lubricator === 'micro-mist' ? 10 : 1;
}

/** What the tasks are called in a line of the logbook. */
export const pointTaskNames: Readonly<Record<string, string>> = {
  'point-element': 'filter element changed',
  'point-bowl': 'bowl looked at',
  'point-drain': 'bowl drained',
  'point-setting': 'regulator set under flow',
  'point-oil': 'lubricator filled and set',
};

/** What comes round at a point of use, by what is in it. */
export function pointTasks(plate: PointPlate): readonly PointTask[] {
  return [
    ...(hasFilter(plate) ? [elementTask(plate), bowlTask, drainTask(plate)] : []),
    ...(hasRegulator(plate) ? [regulatorTask(plate)] : []),
    ...(hasLubricator(plate) ? [oilTask(plate)] : []),
  ];
}

/** Checks of the library that can be taken at a point of use. */
export function pointChecks(plate: PointPlate): readonly string[] {
  return [
    ...(hasFilter(plate) ? ['bowl', 'line-element', 'line-filter-drop'] : []),
    ...(hasFilter(plate) && plate.drain === 'automatic' ? ['auto-drain'] : []),
    ...(hasRegulator(plate) ? ['regulator'] : []),
    ...(hasLubricator(plate) ? ['line-lubricator'] : []),
    'hose',
  ];
}
