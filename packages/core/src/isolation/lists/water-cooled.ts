import type { DataPlate } from '../../machine/index.js';
import type { IsolationList } from '../point.js';
import { cool, drive, receiverSpace, warmOil, withOwn } from './shared.js';

/** Points of whatever opens the air of this machine. */
const AIR = ['lock-out', 'delivery', 'air-side', 'second-look'];

const openings: IsolationList['openings'] = {
  outside: { name: 'Outside the air path', needs: ['lock-out'] },
  oil: { name: 'Oil, fine oil filter', needs: ['lock-out', 'delivery', 'air-side', 'warm-oil'] },
  // A vent that clogs at the end leaves air that presses again: the look is for that.
  belt: { name: 'Drive, turned by hand', needs: AIR },
  valves: { name: 'Valves, separators, unloader', needs: [...AIR, 'cool'] },
  stages: { name: 'Head, piston, coolers', needs: [...AIR, 'cool', 'water'], hasLid: true },
  crankcase: { name: 'Crankcase', needs: [...AIR, 'cool'], hasLid: true },
  receiver: { name: 'Receiver', needs: ['receiver-valves', 'receiver', 'second-look'], hasLid: true },
};

/** A water-cooled two-stage set on shared receivers, which stay under pressure. */
export function waterCooledList(plate: DataPlate): IsolationList {
  return {
    points: [
      drive(plate),
      {
        code: 'delivery',
        kind: 'shut',
        name: 'Delivery valve to the receivers shut and tagged',
        hint: 'Handle across. After the separator is open nothing must come.',
        beware: 'The non-return valve is not the isolation: 30 bar against one worn valve.',
        spaces: ['head-side'],
        after: ['lock-out'],
        ...withOwn('Delivery valve', plate.moreValves),
      },
      {
        code: 'air-side',
        kind: 'vent',
        name: 'Both stages and the delivery separator empty',
        hint: 'Each unloader drain opened by hand and left open; both needles fell.',
        beware: 'A timer solenoid closes its drain when the power goes.',
        spaces: ['head-side'],
        after: ['lock-out', 'delivery'],
        gauge: 'gauge of that stage',
        isHigh: true,
        tiles: [
          { code: 'low', name: 'Low-pressure stage' },
          { code: 'high', name: 'High-pressure stage' },
          { code: 'separator', name: 'Delivery separator' },
        ],
        vented: { litres: 5, fromBar: 8, boreMm: 6 },
      },
      {
        code: 'second-look',
        kind: 'look',
        name: 'Second look',
        hint: 'Five minutes after the last silence: nothing from the separator’s drain, no needle moved.',
        beware: 'The delivery valve passes: shut the receiver’s valve as well, or stop the work.',
        waitMinutes: 5,
      },
      cool,
      {
        code: 'water',
        kind: 'done',
        name: 'Cooling water shut and drained',
        hint: 'Flow and return shut, jacket drain and top vent open: it runs empty, the vent sucks air.',
        beware: 'Cool first, then shut: water shut in a hot jacket boils and scalds.',
        after: ['lock-out', 'cool'],
      },
      warmOil,
      {
        code: 'receiver-valves',
        kind: 'shut',
        name: 'Receiver: every valve to it shut',
        hint: 'Each compressor’s delivery valve and each consumer’s, tagged.',
        beware: 'Starting air, brakes, safety air hang on it: who was told?',
        spaces: ['receiver'],
      },
      {
        code: 'receiver',
        kind: 'vent',
        name: 'Receiver empty',
        hint: 'Drain opened slowly and left open.',
        beware: 'Inside it: a permit for confined spaces.',
        spaces: ['receiver'],
        after: ['receiver-valves'],
        gauge: 'receiver gauge',
        isHigh: true,
        vented: { ...receiverSpace(plate, 1000), boreMm: 10 },
        ...withOwn('Receiver', plate.moreVessels),
      },
    ],
    openings,
    everything: [...AIR, 'cool', 'water'],
  };
}
