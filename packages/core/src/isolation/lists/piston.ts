import { stagesOf, type DataPlate } from '../../machine/index.js';
import type { IsolationList } from '../point.js';
import { cool, drive, receiverSpace, warmOil, withOwn } from './shared.js';

/** A piston set with its receiver, on a network or not. */
export function pistonList(plate: DataPlate): IsolationList {
  const hasIntercooler = stagesOf(plate) > 1;
  return {
    points: [
      drive(plate),
      {
        code: 'network',
        kind: 'shut',
        name: 'Network valve shut and tagged',
        hint: 'Handle across the pipe. After the receiver is open nothing must come.',
        beware: 'Other compressors feed back; a worn ball valve passes. A check valve is no isolation.',
        spaces: ['receiver'],
        after: ['lock-out'],
        ...withOwn('Valve to the network', plate.moreValves),
      },
      {
        code: 'receiver',
        kind: 'vent',
        name: 'Receiver empty',
        hint: 'Drain opened slowly, face away, and left open.',
        beware:
          'A caked drain passes nothing, or only water. A gauge after the regulator reads another space.',
        spaces: ['receiver'],
        after: ['lock-out', 'network'],
        gauge: 'receiver gauge',
        vented: receiverSpace(plate, 100),
        ...withOwn('Receiver', plate.moreVessels),
      },
      {
        code: 'head-side',
        kind: 'vent',
        name: 'Head side silent',
        hint: hasIntercooler
          ? 'The unloader hissed and stopped; drain or bleed of the intercooler opened and left open.'
          : 'The unloader hissed at the stop and fell silent.',
        beware: hasIntercooler
          ? 'The unloader often empties only the last stage: 2 to 3 bar stay between the stages.'
          : 'A blocked unloader keeps the line full behind a good check valve.',
        spaces: ['head-side'],
        after: ['lock-out'],
        emptiesInto: 'receiver',
        ...(hasIntercooler ? { gauge: 'intercooler gauge' } : {}),
      },
      {
        code: 'second-look',
        kind: 'look',
        name: 'Second look',
        hint: 'Two minutes after the last silence, every vent still open: nothing comes, no needle moved.',
        beware: 'Whatever trickles is being fed: check valve or network valve passing.',
        waitMinutes: 2,
      },
      cool,
      warmOil,
    ],
    openings: {
      outside: { name: 'Nothing under pressure', needs: ['lock-out'] },
      oil: { name: 'Oil plug, oil filter or strainer', needs: ['lock-out', 'warm-oil'] },
      crankcase: {
        name: 'Crankcase',
        needs: ['lock-out', 'network', 'receiver', 'head-side', 'second-look', 'cool'],
      },
      belt: { name: 'Belt off, turned by hand', needs: ['lock-out', 'head-side'] },
      stages: {
        name: 'Head, valves, coolers, unloader',
        needs: ['lock-out', 'network', 'receiver', 'head-side', 'second-look', 'cool'],
      },
      receiver: {
        name: 'Receiver: drain, relief valve, gauge, switch',
        needs: ['lock-out', 'network', 'receiver', 'second-look'],
      },
      'check-valve': {
        name: 'Check valve',
        needs: ['lock-out', 'network', 'receiver', 'head-side', 'second-look'],
      },
    },
    everything: ['lock-out', 'network', 'receiver', 'head-side', 'second-look', 'cool'],
  };
}
