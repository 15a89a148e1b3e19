import { dampHalves, dustMonthly, months, run, type DefaultTask } from './default-task.js';

const vented = 'Vented through an open drain: a gauge at rest proves nothing by itself.';

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
    caution: 'Crack the drain slowly, face away. Oily water goes to licensed disposal.',
  },
  {
    code: 'relief-test',
    name: 'Relief valve lift test',
    station: 'receiver',
    action: 'test',
    triggers: [months(12)],
    isolation: 'running',
    minutes: 10,
    safety: true,
    how: 'By this valve’s own means: ring, knob turned back and locked, or the pressure at which it opens. It must open, and reseat without leaking.',
    because: 'Yearly and at each major service.',
    caution:
      'Eyes and ears covered, stand aside of the outlet. By this valve’s own means only, and never to bleed air off. Local pressure-equipment law may ask for more.',
  },
  {
    code: 'shutdown-test',
    name: 'Shutdown tests',
    station: 'motor',
    action: 'test',
    triggers: [months(12)],
    isolation: 'running',
    minutes: 20,
    how: 'Whatever this machine has, each tripped on purpose: over-temperature, low oil level or pressure, overload.',
    because: 'A shutdown that was never tested is not one.',
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
    how: ({ way }) =>
      `Soapy water or ultrasonic. ${
        way('thread-sealing') === 'book'
          ? 'A joint made again gets the sealant that the book names for it.'
          : 'A joint made again: flared joints and O-rings dry, tapered threads sealed.'
      }`,
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
    how: 'Vibration loosens. A cracked hose is replaced at once.',
    caution: 'Locked out before a guard comes off: the machine may start by itself.',
  },
  {
    code: 'gauge-test',
    name: 'Gauge and switch points',
    station: 'receiver',
    action: 'test',
    triggers: [months(12)],
    isolation: 'isolated-and-vented',
    verifiedBy: [],
    minutes: 15,
    how: ({ way }) =>
      `At zero when empty; cut-in and cut-out where they should be. ${
        way('gauge') === 'filled'
          ? 'A filled gauge has to be clear and still full.'
          : 'A dry gauge that is out is replaced, not bent.'
      }`,
    caution: vented,
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
    how: 'Dirt is heat. Canopy panels back on: they steer the air.',
    caution: 'Locked out: the fan can start by itself. Surfaces stay hot for a while.',
    tools: ['brush', 'vacuum cleaner'],
  },
];
