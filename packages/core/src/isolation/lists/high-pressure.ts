import { stagesOf, type DataPlate } from '../../machine/index.js';
import type { IsolationList } from '../point.js';
import { cool, drive, warmOil, withOwn, workingBar } from './shared.js';

const [TOWER_L, TOWER_DRAIN_MM] = [2, 2];

/** Points of whatever opens the air of this machine. */
const ALL = ['lock-out', 'bank', 'panel', 'tower', 'stages', 'second-look'];

const openings: IsolationList['openings'] = {
  outside: { name: 'Nothing under pressure', needs: ['lock-out'] },
  // The tower stays full behind one valve: what creeps back past it shows at the second look.
  belt: { name: 'Belt off, turned by hand', needs: ['lock-out', 'stages', 'second-look'] },
  oil: { name: 'Oil', needs: ['lock-out', 'stages', 'second-look', 'warm-oil'] },
  tower: { name: 'Tower: cartridge, seals, relief and holding valve', needs: ALL },
  stages: { name: 'Valves, coolers, separators, stage gauges', needs: [...ALL, 'cool'] },
  panel: {
    name: 'Fill hose, panel, check valve after the tower',
    needs: ['lock-out', 'bank', 'panel', 'tower', 'second-look'],
  },
};

/** A high-pressure set with tower, panel and bank. */
export function highPressureList(plate: DataPlate): IsolationList {
  return {
    points: [
      drive(plate),
      {
        code: 'bank',
        kind: 'shut',
        name: 'Every bank and cylinder valve shut',
        hint: 'Each one by hand, tagged. Later nothing must come.',
        beware: 'One forgotten bottle; valves that shut the other way.',
        spaces: ['panel'],
        after: ['lock-out'],
        ...withOwn('Bank and cylinder valves', plate.moreValves),
      },
      {
        code: 'panel',
        kind: 'vent',
        name: 'Panel and fill hoses empty',
        hint: 'Opened at each fill valve and left open; hoses held: they whip.',
        beware: 'Two sides, 200 and 300 bar: both. Never loosen a coupling under pressure.',
        spaces: ['panel'],
        after: ['lock-out', 'bank'],
        gauge: 'panel gauge',
        isHigh: true,
        ...withOwn('Panel and fill hoses', plate.moreVessels),
      },
      {
        code: 'tower',
        kind: 'vent',
        name: 'Tower empty',
        hint: 'Bleed opened slowly and left open; ears covered.',
        beware:
          'A frozen or oil-caked bleed; a needle on its stop pin. The holding valve lets air creep back. The relief valve is never a vent.',
        spaces: ['tower'],
        after: ['lock-out', 'bank'],
        gauge: 'final gauge',
        isHigh: true,
        vented: { litres: TOWER_L, fromBar: workingBar(plate, 300), boreMm: TOWER_DRAIN_MM },
      },
      {
        code: 'stages',
        kind: 'vent',
        name: 'Every stage empty',
        hint: 'The drain of each separator opened and left open; each stage’s needle fell. Electric drains: by their hand bleed.',
        beware: 'One blocked drain hides one stage: that the others are silent says nothing about it.',
        spaces: Array.from({ length: stagesOf(plate) - 1 }, (_, index) => `stage-${index + 1}`),
        after: ['lock-out'],
        gauge: 'stage gauge',
        isHigh: true,
        tiles: Array.from({ length: stagesOf(plate) - 1 }, (_, index) => ({
          code: `stage-${index + 1}`,
          name: `Separator of stage ${index + 1}`,
        })),
        vented: { litres: 0.3, fromBar: 10, boreMm: 1.5 },
      },
      {
        code: 'second-look',
        kind: 'look',
        name: 'Second look',
        hint: 'Five minutes after the last silence, everything open: nothing comes, no needle moved.',
        beware: 'Bank valve and holding valve both passing fill the tower again in minutes.',
        waitMinutes: 5,
      },
      cool,
      warmOil,
    ],
    openings,
    everything: [...ALL, 'cool'],
  };
}
