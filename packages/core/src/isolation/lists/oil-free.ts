import type { DataPlate } from '../../machine/index.js';
import type { IsolationList } from '../point.js';
import { cool, drive, receiverSpace, withOwn } from './shared.js';

/** A small oil-free set with its own receiver. */
export function oilFreeList(plate: DataPlate): IsolationList {
  return {
    points: [
      drive(plate),
      {
        code: 'outlet',
        kind: 'shut',
        name: 'Hose off, or outlet valve shut',
        hint: 'Trigger pulled or coupling opened: nothing comes, the regulated gauge fell.',
        beware: 'A regulator without relief keeps the hose full: close it, then pull the trigger.',
        spaces: ['receiver'],
        after: ['lock-out'],
        ...withOwn('Outlet', plate.moreValves),
      },
      {
        code: 'receiver',
        kind: 'vent',
        name: 'Receiver empty',
        hint: 'Drain opened slowly and left open.',
        beware: 'Twin tanks have two drains.',
        spaces: ['receiver'],
        after: ['lock-out', 'outlet'],
        gauge: 'receiver gauge',
        vented: receiverSpace(plate, 24),
        ...withOwn('Receiver', plate.moreVessels),
      },
      {
        code: 'head-side',
        kind: 'vent',
        name: 'Head line silent',
        hint: 'It hissed at the stop and went silent. None heard: it stands 10 min after the receiver, and the head is eased, far side first.',
        beware: 'A blocked unloader keeps the line full behind a good check valve.',
        spaces: ['head-side'],
        after: ['lock-out'],
        emptiesInto: 'receiver',
      },
      {
        code: 'second-look',
        kind: 'look',
        name: 'Second look',
        hint: 'Two minutes after the last silence, drain still open: nothing comes, no needle moved.',
        beware: 'A drain that clogs at the end leaves cold air, which warms and presses again.',
        waitMinutes: 2,
      },
      cool,
    ],
    openings: {
      outside: { name: 'Nothing under pressure', needs: ['lock-out'] },
      receiver: {
        name: 'Receiver: drain, relief valve, switch, gauge',
        needs: ['lock-out', 'outlet', 'receiver', 'second-look'],
      },
      'check-valve': {
        name: 'Check valve',
        needs: ['lock-out', 'outlet', 'receiver', 'head-side', 'second-look'],
      },
      stages: {
        name: 'Head, reeds, ring and sleeve',
        needs: ['lock-out', 'outlet', 'receiver', 'head-side', 'second-look', 'cool'],
      },
    },
    everything: ['lock-out', 'outlet', 'receiver', 'head-side', 'second-look', 'cool'],
  };
}
