import type { CauseCode } from './cause.js';

/** Machines of the board that answer tests: one of each family. */
export const simulatedFamilies = ['piston', 'oil-free', 'screw', 'high-pressure'] as const;
export type SimulatedFamily = (typeof simulatedFamilies)[number];

/** What a cause is in the simulator: one of these faults, drawn alike. */
export const simulatedCauses: Readonly<
  Record<SimulatedFamily, Readonly<Partial<Record<CauseCode, readonly string[]>>>>
> = {
  piston: {
    CHK: ['check-valve'],
    UNL: ['unloader-shut', 'unloader-open'],
    DRN: ['drain-receiver-open'],
    REL: ['relief-weeps'],
    LEAK: ['machine-leak'],
    NET: ['network-leak'],
    VS: ['suction-valve-1', 'suction-valve-2'],
    VD: ['discharge-valve-1', 'discharge-valve-2'],
    RING: ['ring-1', 'ring-2'],
    GSK: ['gasket'],
    INT: ['intake-blocked'],
    BELT: ['belt-slack'],
    GAUG: ['gauge-receiver-off'],
    COOL: ['cooler-dirty', 'fan'],
  },
  'oil-free': {
    CHK: ['check-valve'],
    UNL: ['unloader-shut', 'unloader-open'],
    DRN: ['drain-receiver-open'],
    REL: ['relief-weeps'],
    LEAK: ['machine-leak'],
    REED: ['suction-valve-1', 'discharge-valve-1'],
    RING: ['ring-1'],
    GSK: ['gasket'],
    INT: ['intake-blocked'],
    COOL: ['cooler-dirty', 'fan'],
  },
  screw: {
    INT: ['intake-blocked'],
    INTV: ['intake-valve-open', 'intake-valve-shut'],
    BLDN: ['blow-down-shut', 'blow-down-open'],
    MPV: ['minimum-pressure-open'],
    AIRE: ['airend-worn'],
    DRN: ['drain-separator-open'],
    COOL: ['cooler-dirty'],
  },
  'high-pressure': {
    DRN: ['drain-2-open', 'drain-3-open', 'bleed-tower-open'],
    LEAK: ['machine-leak'],
    REL: ['relief-weeps'],
    VS: ['suction-valve-2', 'suction-valve-3', 'suction-valve-4'],
    VD: ['discharge-valve-2', 'discharge-valve-3', 'discharge-valve-4'],
    V1: ['suction-valve-1', 'discharge-valve-1'],
    RING: ['ring-4'],
    INT: ['intake-blocked'],
    GAUG: ['gauge-stage-2-off', 'gauge-stage-3-off'],
    COOL: ['cooler-dirty', 'fan'],
  },
};
