import { months, type DefaultTask } from './default-task.js';

/** Work that every compressor has, whatever its family. Intervals are common practice. */
export const commonTasks: readonly DefaultTask[] = [
  {
    code: 'relief-test',
    name: 'Relief valve lift test',
    station: 'receiver',
    action: 'test',
    triggers: [months(12)],
    isolation: 'running',
    minutes: 10,
    safety: true,
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
  },
  {
    code: 'gauge-test',
    name: 'Gauge and switch points',
    station: 'receiver',
    action: 'test',
    triggers: [months(12)],
    isolation: 'isolated-and-vented',
    minutes: 15,
    caution: 'Vented through an open drain: a gauge at rest proves nothing by itself.',
  },
  {
    code: 'cooling-clean',
    name: 'Clean fins, fan and cooler',
    station: 'cooling',
    action: 'clean',
    triggers: [months(3)],
    inDust: { factor: 1 / 3, because: 'A dusty place: monthly instead of every three months.' },
    isolation: 'stopped',
    minutes: 20,
    caution: 'Locked out: the fan can start by itself. Surfaces stay hot for a while.',
  },
];
