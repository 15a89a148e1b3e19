import { hours, months, type DefaultTask } from './default-task.js';

/** Small dry reciprocating sets. Intervals are common practice. */
export const oilFreeTasks: readonly DefaultTask[] = [
  {
    code: 'intake-inspect',
    name: 'Inspect intake element',
    station: 'intake',
    action: 'inspect',
    triggers: [hours(100)],
    inDust: { factor: 0.5, because: 'Dust halves it.' },
    isolation: 'stopped',
    minutes: 5,
  },
  {
    code: 'intake-replace',
    name: 'New intake element',
    station: 'intake',
    action: 'replace',
    triggers: [hours(250), months(12)],
    inDust: { factor: 0.5, because: 'Dust halves its life.' },
    covers: ['intake-inspect'],
    isolation: 'stopped',
    minutes: 10,
    because: 'Never reused: grit past a torn element ruins ring and sleeve.',
  },
  {
    code: 'valves-inspect',
    name: 'Inspect the reed valves',
    station: 'stage-1',
    action: 'inspect',
    triggers: [hours(1000)],
    isolation: 'isolated-and-vented',
    minutes: 60,
    caution: 'Unplugged and vented, head cool. Mark how each reed lies before it comes off.',
  },
  {
    code: 'belt-check',
    name: 'Belt check',
    station: 'drive',
    action: 'inspect',
    triggers: [hours(500)],
    // These sets are direct driven unless their plate says otherwise.
    when: (plate) => plate.drive === 'belt',
    isolation: 'isolated-and-vented',
    minutes: 15,
    caution: 'Locked out before the guard comes off: the set starts by itself.',
  },
];
