import type { DataPlate } from '../../machine/index.js';
import { hours, maybeBelt, months, type DefaultTask } from './default-task.js';

/** Hours that each kind of screw oil lasts at its rated temperature (practice). */
const screwOilHours = { mineral: 2000, 'semi-synthetic': 4000, synthetic: 8000 } as const;

/** The kind of oil by its grade as written on the plate; unknown oil is treated as the shortest-lived. */
function screwOilKind({ oilGrade }: DataPlate): keyof typeof screwOilHours {
  const grade = oilGrade?.toLowerCase() ?? '';
  if (/semi/.test(grade)) return 'semi-synthetic';
  return /synth/.test(grade) ? 'synthetic' : 'mineral';
}

const isDiesel = (plate: DataPlate) => plate.motor === 'diesel';

const opensTheVessel =
  'Isolated from the network, vented and at zero, left open while it is open. The minimum-pressure valve holds air back. Oil stays hot for long.';

/** Oil-injected rotary screw sets. Intervals are common practice. */
export const screwTasks: readonly DefaultTask[] = [
  {
    code: 'first-service',
    name: 'First service',
    station: 'oil-filter',
    action: 'replace',
    triggers: [hours(150)],
    once: true,
    covers: ['oil-filter'],
    isolation: 'isolated-and-vented',
    minutes: 45,
    caution: opensTheVessel,
    because: 'Once, after running in: oil filter and a top-up. Books say 50 to 500 h.',
  },
  {
    code: 'oil-change',
    name: 'Oil change',
    station: 'oil',
    action: 'replace',
    triggers: (plate) => [hours(screwOilHours[screwOilKind(plate)]), months(24)],
    covers: ['oil-level', 'oil-sample'],
    isolation: 'isolated-and-vented',
    minutes: 60,
    caution: opensTheVessel,
    because: 'By kind of oil: mineral 2,000 h, semi-synthetic 4,000 h, synthetic 8,000 h.',
  },
  {
    code: 'oil-sample',
    name: 'Oil sample',
    station: 'oil',
    action: 'sample',
    triggers: [hours(2000)],
    isolation: 'stopped',
    minutes: 10,
  },
  {
    code: 'oil-filter',
    name: 'New oil filter',
    station: 'oil-filter',
    action: 'replace',
    triggers: [hours(2000), months(12)],
    isolation: 'isolated-and-vented',
    minutes: 20,
    caution: opensTheVessel,
  },
  {
    code: 'intake-replace',
    name: 'New intake element',
    station: 'intake',
    action: 'replace',
    triggers: [hours(2000), months(12)],
    inDust: { factor: 0.5, because: 'Dust halves its life.' },
    isolation: 'stopped',
    minutes: 15,
  },
  {
    code: 'separator-replace',
    name: 'New separator element',
    station: 'separator',
    action: 'replace',
    triggers: [hours(4000)],
    isolation: 'isolated-and-vented',
    minutes: 60,
    caution: opensTheVessel,
    because: 'By model 2,000 to 8,000 h; take the book’s figure where there is one.',
  },
  {
    code: 'scavenge-clean',
    name: 'Clean the scavenge line',
    station: 'separator',
    action: 'clean',
    triggers: [hours(2000)],
    isolation: 'isolated-and-vented',
    minutes: 20,
    caution: opensTheVessel,
  },
  {
    code: 'valves-inspect',
    name: 'Inspect the valves',
    station: 'minimum-pressure-valve',
    action: 'inspect',
    triggers: [hours(2000)],
    isolation: 'isolated-and-vented',
    minutes: 40,
    caution: opensTheVessel,
    because: 'Intake, minimum-pressure and thermostatic valve.',
  },
  {
    code: 'belt-check',
    name: 'Belt check',
    station: 'drive',
    action: 'inspect',
    triggers: [hours(2000)],
    when: maybeBelt,
    isolation: 'isolated-and-vented',
    minutes: 20,
    caution: 'Locked out before the guard comes off: the set starts by itself.',
  },
  {
    code: 'engine-oil-change',
    name: 'Engine oil and filters',
    station: 'motor',
    action: 'replace',
    triggers: [hours(500), months(12)],
    when: isDiesel,
    isolation: 'isolated-and-vented',
    minutes: 60,
    caution: 'Battery disconnected. Engine and exhaust stay hot. Fuel away from sparks.',
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
    caution: 'On level ground, wheels chocked. A bent or rewelded drawbar is a licensed matter.',
  },
];
