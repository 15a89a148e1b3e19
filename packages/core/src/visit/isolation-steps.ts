import type { DataPlate } from '../machine/index.js';
import type { IsolationState } from '../plan/index.js';

/** One thing to do, and to say that it was done, before a machine is opened. */
export interface IsolationStep {
  readonly code: string;
  readonly name: string;
  /** Where, and what to mind. */
  readonly hint: string;
  /** Asks for the figure on the gauge. */
  readonly reads?: 'pressure';
}

/** Which state each step belongs to: what is only stopped must be locked, but holds its pressure. */
const LOCKED = new Set(['lock-out']);

function lockOut({ motor, family }: DataPlate): IsolationStep {
  const code = 'lock-out';
  switch (motor) {
    case 'petrol':
      return {
        code,
        name: 'Stop the engine, spark lead off',
        hint: 'Fuel tap shut, lead tied away from the plug, your own tag on it.',
      };
    case 'diesel':
      return {
        code,
        name: 'Stop the engine, battery disconnected',
        hint: 'Key out and kept by you, your own tag on it.',
      };
    case 'single-phase':
      return {
        code,
        name: 'Switch off and unplug',
        hint: 'Plug in your sight or locked away, your own tag on it: it starts by itself.',
      };
    default:
      return {
        code,
        name: 'Stop, switch off, lock out',
        hint:
          family === 'high-pressure'
            ? 'Main switch, your own lock and tag: many start by themselves when the pressure falls.'
            : 'Main switch, your own lock and tag: it starts by itself.',
      };
  }
}

function closeOff({ family }: DataPlate): IsolationStep {
  return family === 'high-pressure'
    ? {
        code: 'close-storage',
        name: 'Close bank and cylinder valves',
        hint: 'Then vent the fill hose. Never loosen a coupling under pressure.',
      }
    : {
        code: 'close-network',
        name: 'Close the valve to the network',
        hint: 'Other compressors and the pipes feed air back.',
      };
}

const ventHints = {
  piston: 'Receiver and moisture separator. The check valve holds air behind it.',
  'piston-oil-free': 'Receiver drain. The check valve holds air behind it.',
  screw: 'Separator vessel and receiver. The minimum-pressure valve holds air back.',
  'high-pressure': 'Every separator and the tower. The holding valve can let air creep back into the tower.',
} as const;

const zeroHints = {
  piston: 'Receiver gauge, drain open. Gauges lie: nothing must come from the drain.',
  'piston-oil-free': 'Receiver gauge, drain open. Gauges lie: nothing must come from the drain.',
  screw: 'Gauge of the separator vessel, vent open. Gauges lie: nothing must come.',
  'high-pressure': 'Final stage and tower, drains open. Gauges lie: nothing must come.',
} as const;

const coolHints = {
  piston: 'Head and delivery pipe, back of the hand.',
  'piston-oil-free': 'Head and delivery pipe, back of the hand.',
  screw: 'Vessel and oil pipes: oil stays hot for long.',
  'high-pressure': 'Final stage head and coolers, back of the hand.',
} as const;

/**
 * The steps that isolate a machine, in their order, from its family, its drive and its cooling. Common
 * practice: the maker's manual, local rules for lock-out and licensed trades come first.
 */
export function isolationSteps(plate: DataPlate): readonly IsolationStep[] {
  return [
    lockOut(plate),
    closeOff(plate),
    ...(plate.cooling === 'water'
      ? [
          {
            code: 'shut-water',
            name: 'Shut the cooling water',
            hint: 'Flow and return, then drain the jacket.',
          },
        ]
      : []),
    { code: 'open-drains', name: 'Open all drains, leave them open', hint: ventHints[plate.family] },
    { code: 'gauge-zero', name: 'Gauge at zero', hint: zeroHints[plate.family], reads: 'pressure' },
    { code: 'cool', name: 'Cool enough to touch', hint: coolHints[plate.family] },
  ];
}

/** The codes of the steps that must hold for work in a state of the machine. */
export function stepsNeededFor(state: IsolationState, plate: DataPlate): readonly string[] {
  if (state === 'running') return [];
  const codes = isolationSteps(plate).map(({ code }) => code);
  return state === 'isolated-and-vented' ? codes : codes.filter((code) => LOCKED.has(code));
}

/** One thing to do before power comes back. */
export type RestartStep = Omit<IsolationStep, 'reads'>;

/** What is done before a machine starts again, in its order. */
export function restartSteps(plate: DataPlate): readonly RestartStep[] {
  return [
    {
      code: 'clear',
      name: 'Tools out, guards and panels back',
      hint: 'Turned over by hand where that can be done. Everybody clear.',
    },
    {
      code: 'drains-shut',
      name: plate.family === 'high-pressure' ? 'Drains shut, tower head closed' : 'Drains shut',
      hint:
        plate.cooling === 'water'
          ? 'Cooling water open again, and seen flowing.'
          : 'All that were left open.',
    },
    {
      code: 'valves-open',
      name:
        plate.family === 'high-pressure' ? 'Fill valves as they belong' : 'Valve to the network open again',
      hint: 'Slowly, standing aside.',
    },
    {
      code: 'unlock',
      name: 'Your own lock off, started',
      hint:
        plate.motor === 'three-phase'
          ? 'After work by an electrician: the direction of rotation first.'
          : 'Listen: does it sound as it did?',
    },
  ];
}
