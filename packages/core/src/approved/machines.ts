import type { DataPlate } from '../machine/index.js';

const plate = (more: Partial<DataPlate>): DataPlate => ({
  siteId: 's',
  tag: 'T-1',
  family: 'piston',
  commissionedOn: '2024-01-01',
  history: 'new',
  ...more,
});

/** Machines unlike each other, whose texts are approved. */
export const machines: Readonly<Record<string, DataPlate>> = {
  piston: plate({
    drive: 'belt',
    motor: 'three-phase',
    stages: 2,
    receiverL: 270,
    reliefBar: 11,
    cutOutBar: 10,
  }),
  bare: plate({ stages: 1, motor: 'single-phase' }),
  marine: plate({ stages: 2, cooling: 'water', workingPressureBar: 30, receiverL: 1000, history: 'unknown' }),
  oilFree: plate({
    family: 'piston-oil-free',
    stages: 2,
    motor: 'single-phase',
    receiverL: 24,
    airUse: 'breathing',
  }),
  screw: plate({
    family: 'screw',
    motor: 'three-phase',
    drive: 'direct',
    separatorElement: 'vessel',
    oilGrade: 'VG 46 synthetic',
    oilRatedTempC: 85,
    hasDryer: true,
    speedControl: 'variable',
    receiverL: 500,
    workingPressureBar: 8,
    maximumPressureBar: 10,
    fadLpm: 2000,
  }),
  towed: plate({ family: 'screw', motor: 'diesel', separatorElement: 'spin-on', workingPressureBar: 7 }),
  filling: plate({
    family: 'high-pressure',
    motor: 'three-phase',
    drive: 'belt',
    stages: 3,
    workingPressureBar: 225,
    reliefBar: 240,
    fadLpm: 200,
    airUse: 'breathing',
    moistureCapacityG: 48,
    maintainingValveBar: 150,
    stopsBy: 'switch',
  }),
  dive: plate({
    family: 'high-pressure',
    motor: 'petrol',
    stages: 4,
    lubrication: 'pump',
    workingPressureBar: 300,
    airUse: 'breathing',
    history: 'unknown',
  }),
};
