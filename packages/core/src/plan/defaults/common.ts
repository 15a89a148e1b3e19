import { isBreathed, stagesOf } from '../../machine/index.js';
import {
  dampHalves,
  dustMonthly,
  hours,
  kit,
  months,
  run,
  type Circumstances,
  type DefaultTask,
} from './default-task.js';

const vented = 'Vented through an open drain: a gauge at rest proves nothing by itself.';

/** A gauge is taken off the space that it reads. */
const gaugeSpaces = {
  piston: 'receiver',
  'piston-oil-free': 'receiver',
  screw: 'separator',
  'high-pressure': 'stages',
};
const isBreathing = ({ plate }: Circumstances) => isBreathed(plate);
const opensTheGauge = ({ plate }: Circumstances) => [gaugeSpaces[plate.family]];

/** Work that every compressor has, whatever its family. Intervals are common practice. */
export const commonTasks: readonly DefaultTask[] = [
  {
    code: 'drain-receiver',
    name: 'Drain the receiver',
    station: 'receiver',
    action: 'drain',
    triggers: [run('each-day')],
    when: ({ plate }) => plate.family !== 'high-pressure',
    severity: [dampHalves],
    isolation: 'stopped-under-pressure',
    minutes: 2,
    how: 'Daily in use, weekly at least while idle; more in wet weather. An automatic drain is tested, not trusted.',
    caution:
      'Crack the drain slowly, face away. Oily water, from the unloader too, goes to licensed disposal.',
  },
  {
    code: 'relief-test',
    name: 'Relief valve lift test',
    station: 'receiver',
    action: 'test',
    triggers: ({ plate }) => (plate.family === 'screw' ? [months(12), hours(2000)] : [months(12)]),
    isolation: 'running',
    testedBy: ['relief-valve'],
    minutes: 10,
    safety: true,
    how: 'By this valve’s own means: lifted by its ring at three quarters of its setting or more, its knob turned back and locked, or a new or bench-tested valve with its paper. An opening pressure is not demanded. It must open, and reseat without leaking. Those between the stages too, each by its own figure.',
    because:
      'Yearly and at each major service. It has to let off what all compressors that can feed the vessel deliver together, with no shut-off before it.',
    caution:
      'Goggles and ear protection; stand beside the outlet, not in front. By this valve’s own means only, and never to bleed air off. Local pressure-equipment law may ask for more.',
  },
  {
    code: 'shutdown-test',
    name: 'Shutdown tests',
    station: 'motor',
    action: 'test',
    triggers: [months(12)],
    isolation: 'running',
    testedBy: ['shutdowns'],
    minutes: 20,
    how: 'Whatever this machine has, each by its test button, by opening its signal, by lowering its switch point (put back, and proved), or by warming a sensor taken from a dry pocket. Never by really overheating it or running it short of oil, never a sensor lifted out of a wet port: hot oil.',
    because: 'Test it, or you cannot rely on it.',
    caution: 'The machine stops and may start by itself. Keep clear of belt and fan.',
  },
  {
    code: 'leak-survey',
    name: 'Leak survey',
    station: 'outlet',
    action: 'inspect',
    triggers: [months(12)],
    isolation: 'running',
    minutes: 30,
    how: ({ option }) =>
      `Soapy water or ultrasonic. Joints are mended with two spanners, one to hold; new pipework is put together loose, then tightened from the compressor on. ${
        option('thread-sealing') === 'book'
          ? 'A joint made again, vented, gets the sealant that the manual names for it.'
          : 'A joint made again, vented: flared joints and O-rings dry, tapered threads sealed.'
      }`,
    caution:
      'Nothing is tightened or loosened under pressure. Goggles and ear protection; what can whip is held.',
    because: 'Leaks commonly waste about a quarter of the air.',
    tools: ['soapy water or ultrasonic detector'],
  },
  {
    code: 'fasteners-check',
    name: 'Fasteners, hoses, guards',
    station: 'motor',
    action: 'inspect',
    triggers: [months(1)],
    isolation: 'stopped',
    minutes: 10,
    how: 'Looked at only: vibration loosens. Hoses held every 0.45 m, none rubbing. Whatever holds pressure is mended as a repair, vented; a cracked hose is taken out of use.',
    caution:
      'Locked out before a guard comes off: the machine may start by itself. Plastic (PVC) pressure pipe, a hose that is blistered, past its date or shows wires: out of service.',
  },
  {
    code: 'gauge-test',
    name: 'Gauge and switch points',
    station: 'receiver',
    action: 'test',
    triggers: [months(12)],
    isolation: 'isolated-and-vented',
    opens: opensTheGauge,
    verifiedBy: [],
    testedBy: ['gauge-zero'],
    minutes: 15,
    how: ({ option }) =>
      `At zero when empty; cut-in and cut-out where they should be. ${
        option('gauge') === 'filled'
          ? 'A filled gauge has to be clear and still full.'
          : 'A dry gauge that is out is replaced, not bent.'
      }`,
    caution: vented,
  },
  {
    code: 'co-calibrate',
    name: 'Calibrate the CO monitor',
    station: 'co-monitor',
    action: 'calibrate',
    triggers: [months(1)],
    when: isBreathing,
    safety: true,
    isolation: 'stopped',
    verifiedBy: ['co-monitor'],
    testedBy: ['co-monitor'],
    minutes: 15,
    how: 'Two different known gases within its range. Loss of the sample flow must stop the compressor; gas bottles there and in date.',
    caution: 'With two known gases, in date. Somebody will breathe this air.',
    kit: kit('calibration gases'),
  },
  {
    code: 'air-quality-test',
    name: 'Breathing-air quality test',
    station: 'outlet',
    action: 'sample',
    triggers: [months(3)],
    when: isBreathing,
    isolation: 'running',
    minutes: 30,
    because: 'Quarterly by a laboratory; the local rule decides.',
  },
  {
    code: 'cooling-clean',
    name: 'Clean fins, fan and cooler',
    station: 'cooling',
    action: 'clean',
    triggers: [months(3)],
    severity: [dustMonthly],
    isolation: 'stopped',
    // Where the oil cools the air, its temperature shows what was cleaned.
    verifiedBy: ({ plate }) => (plate.family === 'screw' ? ['discharge-temperature'] : []),
    minutes: 20,
    how: 'Dirt is heat. Canopy panels back on: they steer the air. While it runs a panel is off for seconds only.',
    because: ({ plate }) =>
      stagesOf(plate) > 1
        ? 'The cooler after the first stage counts most: what leaves it warm is warm in every stage after it.'
        : undefined,
    caution:
      'Locked out: the fan can start by itself. Surfaces stay hot for a while. No solvent near a motor, no washing with the motor on it.',
    tools: ['brush', 'vacuum cleaner'],
  },
];
