import { USUAL_HOLDING_BAR } from '../../checks/index.js';
import { hasEngine, isBreathed, type DataPlate } from '../../machine/index.js';
import type { Trigger } from '../service-plan.js';
import type { SeasonTrigger, WaterTrigger } from '../triggers/index.js';
import {
  beltHow,
  dampHalves,
  dustHalves,
  firstAt,
  hours,
  kit,
  maybeBelt,
  months,
  run,
  valveTriggers,
  type Circumstances,
  type DefaultTask,
} from './default-task.js';

const isBreathing = ({ plate }: Circumstances) => isBreathed(plate);
const isLarge = ({ plate }: Circumstances) => plate.lubrication === 'pump';
const isEngineDriven = ({ plate }: Circumstances) => hasEngine(plate);

const opensTheBlock =
  'High pressure maims. Locked out, bank valves closed, all drains open and left open, every gauge seen to fall, cooler than 50 °C by instrument.';

const withTheOil = (given: Circumstances): readonly Trigger[] => [
  ...(given.option('oil-interval') === 'yearly'
    ? []
    : [hours(isLarge(given) ? 1000 : 100, firstAt(given, 25))]),
  months(12),
];

/** Where the last separator is no warmer than this by day in the warm season, and in the cold (practice). */
const SEPARATOR_C = { warm: 32, cold: 18 };
/** Water in breathing air at the compressor’s outlet: EN 12021:2014 (memory). */
const MOST_WATER_MG_M3 = 25;
/** Warm 20 h and cold 30 h for a portable tower (practice). */
const bySeason: SeasonTrigger = { kind: 'season', warm: 20, cold: 30 };

/** Life of the cartridge from the water that reaches it; by season where the plate lacks the figures. */
function computedLife({
  moistureCapacityG,
  fadLpm,
  maintainingValveBar,
}: DataPlate): SeasonTrigger | WaterTrigger {
  if (moistureCapacityG === undefined || fadLpm === undefined) return bySeason;
  return {
    kind: 'water',
    moistureCapacityG: moistureCapacityG,
    fadLpm,
    maintainingValveBar: maintainingValveBar ?? USUAL_HOLDING_BAR,
    warmC: SEPARATOR_C.warm,
    coldC: SEPARATOR_C.cold,
  };
}

function cartridgeTriggers({ plate, option }: Circumstances): readonly Trigger[] {
  switch (option('cartridge')) {
    case 'weight':
      return [{ kind: 'condition', check: 'cartridge-weight', limit: 100, unmeasured: computedLife(plate) }];
    case 'monitor':
      return [
        {
          kind: 'condition',
          check: 'water-content',
          limit: MOST_WATER_MG_M3,
          unmeasured: computedLife(plate),
        },
      ];
    case 'computed':
      return [computedLife(plate)];
    default:
      return [bySeason];
  }
}

const cartridgeBecause: Readonly<Record<string, string>> = {
  weight: 'By weight: dry and saturated weight are printed on it.',
  monitor: 'When the monitor shows 25 mg/m³ of water (EN 12021, at the compressor).',
  computed: 'Calculated from the water that reaches it; by season where the plate lacks a figure.',
  'season-hours': 'Warm weather 20 h, cold 30 h, for a portable tower.',
};

const stopHow: Readonly<Record<string, string>> = {
  switch: 'Working ≤ auto-stop < relief ≤ maximum allowed.',
  hand: 'Stopped by hand 10 % under the maximum of the compressor; working < relief ≤ maximum allowed.',
  relief: 'The relief is the end signal here: see that it opens below the maximum allowed, every time.',
};

/** Three- to five-stage sets of 200 to 500 bar. Intervals are common practice. */
export const highPressureTasks: readonly DefaultTask[] = [
  {
    code: 'start-check',
    name: 'Before each start',
    station: 'motor',
    action: 'inspect',
    triggers: [run('at-start')],
    isolation: 'stopped',
    minutes: 5,
    how: ({ plate }) =>
      [
        'Oil level; hoses and dates of cylinders; relief lifting screw back and locked; tower vented so that the motor starts light, drains closed, automatic ones switched on.',
        plate.motor === 'petrol'
          ? 'Fuel, engine oil, choke; the set upwind of its exhaust, raised intake up.'
          : '',
        plate.motor === 'diesel'
          ? 'Fuel, engine oil, coolant, battery, lamps and preheat; the set upwind of its exhaust, doors of a vehicle open. It must stop when told to.'
          : '',
        'A portable set is carried by two or on its dolly.',
      ]
        .filter(Boolean)
        .join(' '),
    caution: 'Engines outdoors only; somebody will breathe this air.',
  },
  {
    code: 'separator-drain',
    name: 'Drain the separators',
    station: 'final-separator',
    action: 'drain',
    triggers: [run('while-running', 15), run('at-stop')],
    severity: [dampHalves],
    isolation: 'running',
    minutes: 2,
    how: 'Until no water comes. An automatic drain shows by its stage gauge dipping as it opens; it passes water, and shuts.',
    because: 'Water does not compress: what a separator lets go into the next stage breaks its valves.',
    caution: 'Slowly, face and hands away from the outlet.',
  },
  {
    code: 'tower-drain',
    name: 'Drain the tower bottom',
    station: 'tower',
    action: 'drain',
    triggers: [run('while-running', 120), run('each-day')],
    severity: [dampHalves],
    isolation: 'running',
    minutes: 2,
    how: ({ option }) =>
      option('tower-idle') === 'drained'
        ? 'Drained and left empty between uses.'
        : 'Kept under pressure between uses; vented only to start and to change.',
    caution: 'Slowly: what comes out comes at full pressure.',
  },
  {
    code: 'oil-level',
    name: 'Oil level',
    station: 'crankcase',
    action: 'inspect',
    triggers: [run('at-start')],
    isolation: 'stopped',
    minutes: 1,
    how: 'Wipe the glass, look for the line to move. Wrong or low oil destroys the block.',
  },
  {
    code: 'oil-change',
    name: 'Oil change',
    station: 'crankcase',
    action: 'replace',
    triggers: withTheOil,
    covers: ['oil-level', 'oil-filter'],
    isolation: 'isolated-and-vented',
    opens: ['oil'],
    verifiedBy: [],
    minutes: 40,
    how: 'Drained warm, the case vented while filling, the charge measured, a new seal on the drain screw.',
    caution:
      'Measure the charge rather than trust the glass. Only oil meant for breathing air. Used oil goes to licensed disposal.',
    because: (given) =>
      `${
        given.option('oil-interval') === 'yearly'
          ? 'Yearly.'
          : 'Portable sets 100 h, large pressure-lubricated ones 1,000 h; yearly in any case.'
      } Never motor oil: its detergents hold water in suspension, the film fails and the case rusts; and somebody breathes what it gives off.`,
    kit: kit('breathing-air compressor oil, one charge', 'drain screw seal'),
    tools: ['drain pan', 'measuring jug', 'funnel'],
  },
  {
    code: 'oil-filter',
    name: 'New oil filter',
    station: 'crankcase',
    action: 'replace',
    triggers: withTheOil,
    when: isLarge,
    isolation: 'isolated-and-vented',
    opens: ['oil'],
    verifiedBy: [],
    minutes: 15,
    because: 'With the oil.',
    caution: opensTheBlock,
    kit: kit('oil filter'),
  },
  {
    code: 'intake-inspect',
    name: 'Inspect the intake filter',
    station: 'intake',
    action: 'inspect',
    triggers: [hours(25)],
    severity: [{ ...dustHalves, because: 'Dust halves it.' }],
    isolation: 'stopped',
    minutes: 5,
  },
  {
    code: 'intake-replace',
    name: 'New intake element',
    station: 'intake',
    action: 'replace',
    triggers: [hours(125)],
    severity: [dustHalves],
    covers: ['intake-inspect'],
    isolation: 'stopped',
    minutes: 10,
    kit: kit('intake element'),
  },
  {
    code: 'cartridge-replace',
    name: 'New purifier cartridge',
    station: 'tower',
    action: 'replace',
    triggers: cartridgeTriggers,
    safety: true,
    isolation: 'isolated-and-vented',
    opens: ['tower'],
    // Its own weight proves nothing of it: a tight head does, and what comes out.
    verifiedBy: (given) => (isBreathing(given) ? ['co', 'water-content'] : []),
    minutes: 20,
    how: ({ plate }) =>
      [
        'Packing intact until it goes in; seals greased with breathing-air grease; pushed home the right way round; thread clean, head seal looked at, head closed lightly.',
        hasEngine(plate)
          ? 'Driven by an engine: one that converts CO, and a raised intake, upwind of the exhaust.'
          : '',
      ]
        .filter(Boolean)
        .join(' '),
    caution:
      'Tower proved empty first: the valve after it lets air creep back. A stiff head: never forced; zero proved and drain seen to pass, then this model’s own tool.',
    because: ({ option }) => cartridgeBecause[option('cartridge')],
    kit: kit('purifier cartridge of the tower', 'head O-ring'),
    tools: ['breathing-air grease', 'scale'],
  },
  {
    code: 'belt-check',
    name: 'Belt check',
    station: 'drive',
    action: 'inspect',
    triggers: ({ plate }) => [hours(plate.motor === 'petrol' ? 100 : 200)],
    when: maybeBelt,
    isolation: 'isolated-and-vented',
    opens: ['belt'],
    verifiedBy: [],
    testedBy: ['belt-deflection'],
    minutes: 15,
    how: (given) => `${beltHow(given)} Renewed over the small pulley first, then rolled into the large one.`,
    caution: 'Locked out before the guard comes off: the compressor may start by itself.',
    because: 'Petrol drive shakes more: 100 h; otherwise 200 h.',
  },
  {
    code: 'valves-upper',
    name: 'Valves above stage 1',
    station: 'stage-2',
    action: 'overhaul',
    triggers: valveTriggers(500),
    counting: 'grid',
    isolation: 'isolated-and-vented',
    opens: ['stages'],
    verifiedBy: ['stage-pressures', 'pump-up'],
    minutes: 150,
    how: 'Every stage above the first: seats, plates, springs; new packings; torque by the manual, star pattern; turned over by hand.',
    caution: opensTheBlock,
    because: '500 h the upper stages, 1,000 h all of them, and so on by turns.',
    kit: kit('valve seal set, upper stages'),
    tools: ['torque wrench'],
  },
  {
    code: 'valves-all',
    name: 'Valves of all stages',
    station: 'stage-1',
    action: 'overhaul',
    triggers: valveTriggers(1000),
    counting: 'grid',
    covers: ['valves-upper'],
    isolation: 'isolated-and-vented',
    opens: ['stages'],
    verifiedBy: ['stage-pressures', 'pump-up'],
    minutes: 210,
    how: 'All stages: seats, plates, springs; new packings; torque by the manual, star pattern; turned over by hand.',
    caution: opensTheBlock,
    kit: kit('valve seal set, all stages'),
    tools: ['torque wrench'],
  },
  {
    code: 'seals-inspect',
    name: 'Drain seats, O-rings, fill hose',
    station: 'fill',
    action: 'inspect',
    triggers: [hours(50)],
    isolation: 'isolated-and-vented',
    opens: ['stages', 'panel'],
    verifiedBy: [],
    minutes: 20,
    how: 'Wear parts with a kit; hoses by the date on them.',
    caution: 'Hoses vented before a coupling is opened. A hose past its date is replaced.',
    kit: kit('O-ring kit'),
  },
  {
    code: 'collector-empty',
    name: 'Empty the condensate collector',
    station: 'collector',
    action: 'drain',
    triggers: [months(1)],
    isolation: 'stopped',
    minutes: 10,
    how: 'Monthly or at the float alarm.',
    caution: 'Oily water: not down the drain, to licensed disposal.',
  },
  {
    code: 'settings-test',
    name: 'Relief and auto-stop settings',
    station: 'relief',
    action: 'test',
    triggers: [months(12)],
    isolation: 'running',
    testedBy: ['pressure-settings'],
    minutes: 20,
    how: ({ option }) =>
      `${stopHow[option('stop')]} To set: vent, turn a little, close the drains, build up, note where it acts, repeat.`,
    caution: 'The relief always stays above the stop. Stand aside of its outlet.',
  },
  {
    code: 'engine-service',
    name: 'Engine service',
    station: 'motor',
    action: 'replace',
    triggers: [hours(100), months(12)],
    when: isEngineDriven,
    severity: [dustHalves],
    isolation: 'stopped',
    opens: ['outside'],
    verifiedBy: [],
    minutes: 40,
    how: ({ plate }) =>
      plate.motor === 'petrol'
        ? 'Engine oil, air filter, plug: its gap by the manual.'
        : 'Engine oil and its filter, fuel filter, air filter. Each gauge in its own place: oil pressure, temperature, fuel.',
    caution:
      'Cold engine, no flame near the fuel, exhaust away from the intake. Used oil goes to licensed disposal.',
    kit: kit('engine oil, one charge', 'engine air filter'),
  },
];
