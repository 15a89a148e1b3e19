import type { IsolationPoint, Opening } from '../point.js';

/** A point of use behind its own shut-off: the compressor runs on. */
export const pointOfUse: readonly IsolationPoint[] = [
  {
    code: 'point-told',
    kind: 'done',
    name: 'Its people told, load held',
    hint: 'What moves, falls, brakes or opens when the air goes? The machine stopped by its people, nobody breathing from it.',
    beware: 'Clamps let go, cylinders drop, brakes apply.',
  },
  {
    code: 'point-supply',
    kind: 'shut',
    name: 'Its own valve shut and tagged',
    hint: 'A self-venting valve is heard. No valve of its own: the next one upstream, and everything on that branch.',
    spaces: ['point'],
    after: ['point-told'],
  },
  {
    code: 'point-empty',
    kind: 'vent',
    name: 'Both sides open and silent',
    hint: 'Bowl drain and outlet side, by trigger or coupling, both open: silent, and silent still after a minute. Needle at zero.',
    beware: 'A regulator without relief keeps its outlet side; a check valve or a second feed behind it.',
    spaces: ['point'],
    after: ['point-told', 'point-supply'],
    gauge: 'regulator gauge',
    hasTwoOpenings: true,
    waitMinutes: 1,
  },
];

export const pointOpening: Opening = {
  name: 'Filter, regulator or lubricator behind its own valve',
  needs: pointOfUse.map(({ code }) => code),
};
