import type { DataPlate } from '../../machine/index.js';
import {
  beltHow,
  dustHalves,
  heatHalves,
  hours,
  kit,
  maybeBelt,
  months,
  run,
  type Circumstances,
  type DefaultTask,
} from './default-task.js';

/** Hours that each kind of screw oil lasts at its rated temperature (practice). */
const screwOilHours = { mineral: 2000, 'semi-synthetic': 4000, synthetic: 8000 } as const;

/** The kind of oil by its grade as written on the plate; unknown oil is treated as the shortest-lived. */
function screwOilKind({ oilGrade }: DataPlate): keyof typeof screwOilHours {
  const grade = oilGrade?.toLowerCase() ?? '';
  if (/semi/.test(grade)) return 'semi-synthetic';
  return /synth/.test(grade) ? 'synthetic' : 'mineral';
}

const isDiesel = ({ plate }: Circumstances) => plate.motor === 'diesel';

/** Life of a separator element until manual or label are known, h (practice). */
const separatorLife = { portable: 1500, 'spin-on': 2000, vessel: 4000 } as const;

function separatorHours({ motor, separatorElement }: DataPlate): number {
  if (motor === 'diesel') return separatorLife.portable;
  return separatorLife[separatorElement ?? 'spin-on'];
}

function separatorText({ motor, separatorElement }: DataPlate): string {
  if (motor === 'diesel') return 'On portables 1,500 h.';
  if (separatorElement === 'vessel') return 'An element in a vessel, 4,000 h.';
  return separatorElement === 'spin-on'
    ? 'A spin-on, 2,000 h.'
    : 'Spin-on 2,000 h, in a vessel 4,000 h: which it is nobody entered.';
}

const opensTheVessel =
  'Isolated from the network, vented and at zero, left open while it is open. The minimum-pressure valve holds air back. Oil stays hot for long.';

const spinOn =
  'Face wiped, seal oiled with the same oil, turned to contact, then by hand as far as the manual says (often';

/** Oil-injected rotary screw sets. Intervals are common practice. */
export const screwTasks: readonly DefaultTask[] = [
  {
    code: 'first-service',
    name: 'First service',
    station: 'oil-filter',
    action: 'replace',
    triggers: [hours(150)],
    when: ({ option }) => option('break-in') === 'break-in',
    once: true,
    covers: ['oil-filter'],
    isolation: 'isolated-and-vented',
    opens: ['oil'],
    verifiedBy: ['discharge-temperature'],
    minutes: 45,
    caution: opensTheVessel,
    because: 'Once, after running in: oil filter and a top-up. Books say 50 to 500 h.',
    kit: kit('oil filter', 'coolant of its grade, top-up'),
  },
  {
    code: 'oil-level',
    name: 'Oil level and temperature',
    station: 'oil',
    action: 'inspect',
    triggers: [run('each-day')],
    isolation: 'stopped',
    minutes: 3,
    how: 'Looked at from outside, in the state its manual names, and round the machine for leaks and damage; temperature and pre-filter while it runs. Topping up opens the filler: vented and proved, like an oil change.',
  },
  {
    code: 'oil-change',
    name: 'Oil change',
    station: 'oil',
    action: 'replace',
    triggers: ({ plate }) => [hours(screwOilHours[screwOilKind(plate)]), months(24)],
    severity: [heatHalves],
    covers: ['oil-level', 'oil-sample', 'oil-filter'],
    isolation: 'isolated-and-vented',
    opens: ['oil'],
    verifiedBy: ['discharge-temperature'],
    minutes: 60,
    how: 'Drained warm, all low points. The oil filter goes with it. No mixing of kinds. Used oil goes to licensed disposal.',
    caution: opensTheVessel,
    tools: ['drain pan', 'funnel'],
    because: 'By kind of oil: mineral 2,000 h, semi-synthetic 4,000 h, synthetic 8,000 h.',
    kit: kit('coolant of its grade, one charge', 'oil filter', 'drain plug seal'),
  },
  {
    code: 'oil-sample',
    name: 'Oil sample',
    station: 'oil',
    action: 'sample',
    triggers: [hours(2000)],
    isolation: 'isolated-and-vented',
    opens: ['oil'],
    verifiedBy: [],
    minutes: 10,
    how: 'From a plug: vented and proved, oil 40 to 60 °C. From a cock made for it, while it runs: slowly, gloves and face shield, the first oil thrown away.',
    caution: opensTheVessel,
    kit: kit('sample bottle'),
  },
  {
    code: 'oil-filter',
    name: 'New oil filter',
    station: 'oil-filter',
    action: 'replace',
    triggers: [hours(2000), months(12)],
    isolation: 'isolated-and-vented',
    opens: ['oil'],
    verifiedBy: ['discharge-temperature'],
    minutes: 20,
    how: `${spinOn} half a turn). Used elements bagged.`,
    caution: opensTheVessel,
    kit: kit('oil filter'),
  },
  {
    code: 'intake-replace',
    name: 'New intake element',
    station: 'intake',
    action: 'replace',
    triggers: [hours(2000), months(12)],
    severity: [dustHalves],
    isolation: 'stopped',
    minutes: 15,
    kit: kit('intake element'),
  },
  {
    code: 'prefilter-replace',
    name: 'Pre-filter mat',
    station: 'pre-filter',
    action: 'replace',
    triggers: [hours(2000), months(12)],
    severity: [dustHalves],
    isolation: 'stopped',
    minutes: 10,
    how: 'Between services vacuumed or tapped out, away from the machine.',
    kit: kit('pre-filter mat'),
  },
  {
    code: 'dryer-filter',
    name: 'Dryer filter element',
    station: 'dryer',
    action: 'replace',
    triggers: [hours(2000), months(12)],
    when: ({ plate }) => plate.hasDryer === true,
    isolation: 'running',
    opens: ['point'],
    verifiedBy: [],
    minutes: 15,
    how: 'Bowl depressurised, its seal looked at, thread and ring clean, arrows in line.',
    caution: 'The bowl is vented before it is turned: under pressure it comes off by itself.',
    kit: kit('dryer filter element'),
  },
  {
    code: 'separator-replace',
    name: 'New separator element',
    station: 'separator',
    action: 'replace',
    triggers: ({ plate, option }) =>
      option('separator') === 'pressure-drop'
        ? [{ kind: 'condition', check: 'separator-drop', limit: 1 }, hours(8000)]
        : [hours(separatorHours(plate)), { kind: 'condition', check: 'separator-drop', limit: 0.8 }],
    isolation: 'isolated-and-vented',
    opens: ['separator'],
    verifiedBy: ['separator-drop', 'discharge-temperature'],
    minutes: 60,
    how: `${spinOn} a quarter turn for a spin-on). About 1 % more energy for every 0.14 bar across it.`,
    caution: opensTheVessel,
    because: ({ plate, option }) =>
      option('separator') === 'pressure-drop'
        ? 'When the drop across it nears 1 bar; at 8,000 h in any case.'
        : `${separatorText(plate)} Or 0.8 bar across it. That is a guess: manual or label say 1,500 to 8,000 h, enter theirs.`,
    kit: kit('separator element', 'vessel gasket'),
  },
  {
    code: 'scavenge-clean',
    name: 'Clean the scavenge line',
    station: 'separator',
    action: 'clean',
    triggers: [hours(2000)],
    isolation: 'isolated-and-vented',
    opens: ['separator'],
    verifiedBy: [],
    minutes: 20,
    how: 'Screen or restrictor clear: blocked, the oil goes out with the air.',
    caution: opensTheVessel,
  },
  {
    code: 'valves-inspect',
    name: 'Inspect the valves',
    station: 'minimum-pressure-valve',
    action: 'inspect',
    triggers: [hours(2000)],
    isolation: 'isolated-and-vented',
    opens: ['separator'],
    verifiedBy: ['discharge-temperature'],
    minutes: 40,
    how: 'Intake, minimum-pressure and thermostatic valve.',
    caution: opensTheVessel,
    because: 'A minimum-pressure valve stuck open carries oil over; a stuck thermostat makes hot or wet oil.',
    kit: kit('minimum-pressure valve seal kit'),
  },
  {
    code: 'bearing-check',
    name: 'Bearings and coolant condition',
    station: 'airend',
    action: 'inspect',
    triggers: [hours(2000)],
    isolation: 'running',
    minutes: 15,
    how: 'Sound and vibration against the baseline; look and smell of the coolant.',
  },
  {
    code: 'belt-check',
    name: 'Belt check',
    station: 'drive',
    action: 'inspect',
    triggers: [hours(2000)],
    when: maybeBelt,
    isolation: 'isolated-and-vented',
    opens: ['belt'],
    verifiedBy: [],
    testedBy: ['belt-deflection'],
    minutes: 20,
    how: (given) => `${beltHow(given)} Tensioned by moving the airend or the motor.`,
    caution: 'Locked out before the guard comes off: the compressor starts by itself.',
  },
  {
    code: 'engine-start-check',
    name: 'Engine: fuel, preheat, panels',
    station: 'motor',
    action: 'inspect',
    triggers: [run('at-start')],
    when: isDiesel,
    isolation: 'stopped',
    minutes: 3,
    how: 'Drains closed; fuel, engine oil, coolant, battery, lamps and preheat; panels as the cooling needs them. It must stop when told to.',
    caution: 'Outdoors only. No flame near the fuel. No hose without its safety cable.',
  },
  {
    code: 'engine-oil-change',
    name: 'Engine oil and filters',
    station: 'motor',
    action: 'replace',
    triggers: [hours(500), months(12)],
    when: isDiesel,
    severity: [dustHalves],
    isolation: 'stopped',
    opens: ['outside'],
    verifiedBy: [],
    minutes: 60,
    how: 'Engine oil and filter, fuel filter, engine air filter. Each gauge in its own place: oil pressure, temperature, fuel. After storage: gelled fuel; look at the injector seals.',
    caution: 'Battery disconnected. Engine and exhaust stay hot. Fuel away from sparks.',
    kit: kit('engine oil, one charge', 'engine oil filter', 'fuel filter', 'engine air filter'),
  },
  {
    code: 'running-gear-inspect',
    name: 'Tyres, brakes and drawbar',
    station: 'motor',
    action: 'inspect',
    triggers: [months(12)],
    when: isDiesel,
    isolation: 'stopped',
    minutes: 30,
    how: 'Tyres, brakes and cables, wheel bearings, drawbar, lights, hose reel; before the road, too.',
    caution: 'On level ground, wheels chocked. A bent or rewelded drawbar is a licensed matter.',
  },
];
