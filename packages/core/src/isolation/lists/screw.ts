import type { DataPlate } from '../../machine/index.js';
import type { IsolationList, IsolationPoint } from '../point.js';
import { drive, receiverSpace, warmOil, withOwn, workingBar } from './shared.js';

const VESSEL_L = 40;

function vessel(plate: DataPlate, after: readonly string[]): IsolationPoint {
  return {
    code: 'vessel',
    kind: 'vent',
    name: 'Separator vessel empty',
    hint: 'Its needle fell by itself; then the hand vent opened and left open. The vessel’s own gauge, not the panel.',
    beware:
      'A stuck blow-down keeps 4 to 8 bar over hot oil; foaming oil gives air back. Noise and oil mist: eyes and ears.',
    spaces: ['vessel'],
    after,
    gauge: 'vessel gauge',
    vented: { litres: VESSEL_L, fromBar: workingBar(plate, 8), boreMm: 8 },
  };
}

const secondLook: IsolationPoint = {
  code: 'second-look',
  kind: 'look',
  name: 'Second look',
  hint: 'Five minutes after the last silence, every vent still open: nothing comes, no needle moved.',
  beware: 'A minimum-pressure valve that leaks back refills the vessel; foaming oil gives air back.',
  waitMinutes: 5,
};

/** Points of whatever opens the air of this machine. */
const BIG = ['lock-out', 'outlet', 'vessel', 'outlet-side', 'second-look'];

const openings: IsolationList['openings'] = {
  outside: { name: 'Nothing under pressure', needs: ['lock-out'] },
  // What oil gives back, and cold air that warms, can turn the airend: the look is for that. The minimum-pressure
  // valve is no isolation: what lies behind it is shut off by hand.
  belt: { name: 'Belt or coupling', needs: ['lock-out', 'outlet', 'vessel', 'second-look'] },
  oil: {
    name: 'Oil: top-up, sample from a plug, change, filter',
    needs: ['lock-out', 'outlet', 'vessel', 'second-look', 'warm-oil'],
  },
  separator: {
    name: 'Separator, valves, thermostat, relief valve',
    needs: [...BIG, 'warm-oil'],
    hasLid: true,
  },
  receiver: { name: 'Receiver', needs: ['receiver-valves', 'receiver', 'second-look'], hasLid: true },
  dryer: { name: 'Dryer', needs: ['dryer-off', 'dryer', 'second-look'] },
};

/** A stationary screw with its vessel; receiver and dryer are isolated only where they are opened themselves. */
export function screwList(plate: DataPlate): IsolationList {
  return {
    points: [
      drive(plate),
      {
        code: 'outlet',
        kind: 'shut',
        name: 'Outlet valve shut and tagged',
        hint: 'Handle across the pipe. After the space before it is open nothing must come.',
        beware: 'Where the valve stands after the receiver, the receiver belongs to the space before it.',
        spaces: ['outlet-side'],
        after: ['lock-out'],
        ...withOwn('Outlet valve', plate.moreValves),
      },
      vessel(plate, ['lock-out', 'outlet']),
      {
        code: 'outlet-side',
        kind: 'vent',
        name: 'Between minimum-pressure valve and outlet valve: empty',
        hint: 'Drain or bleed of the water separator opened and left open.',
        beware: 'A leaking minimum-pressure valve refills the vessel from here.',
        spaces: ['outlet-side'],
        after: ['lock-out', 'outlet'],
      },
      secondLook,
      warmOil,
      {
        code: 'receiver-valves',
        kind: 'shut',
        name: 'The receiver’s own two valves shut',
        hint: 'Before and after it, tagged. Who hangs on it was told.',
        spaces: ['receiver'],
      },
      {
        code: 'receiver',
        kind: 'vent',
        name: 'Receiver empty',
        hint: 'Drain opened slowly and left open.',
        beware: 'Other compressors may stand on it. Inside it: a permit for confined spaces.',
        spaces: ['receiver'],
        after: ['receiver-valves'],
        gauge: 'receiver gauge',
        vented: receiverSpace(plate, 500),
        ...withOwn('Receiver', plate.moreVessels),
      },
      {
        code: 'dryer-off',
        kind: 'shut',
        name: 'Dryer off at its own supply, bypass set',
        hint: 'Its two valves shut and tagged, its switch locked.',
        beware: 'The refrigerant circuit is for a licensed person.',
        spaces: ['dryer'],
      },
      {
        code: 'dryer',
        kind: 'vent',
        name: 'Dryer and its filters empty',
        hint: 'Bleed opened and left open. Twin towers: each of the two.',
        beware: 'One of two towers is always under pressure.',
        spaces: ['dryer'],
        after: ['dryer-off'],
      },
    ],
    openings,
    everything: [...BIG, 'warm-oil'],
  };
}

/** A diesel portable screw. */
export function portableList(plate: DataPlate): IsolationList {
  const big = ['lock-out', 'vessel', 'manifold', 'second-look'];
  return {
    points: [
      drive(plate),
      vessel(plate, ['lock-out']),
      {
        code: 'manifold',
        kind: 'vent',
        name: 'Outlet cocks open to the air: nothing',
        hint: 'Hoses off and capped, each cock opened and left open.',
        beware: 'A second machine on the same manifold; a hose without its safety cable.',
        spaces: ['outlet-side'],
        after: ['lock-out'],
      },
      secondLook,
      warmOil,
    ],
    openings: {
      outside: { name: 'Engine, running gear: nothing under pressure', needs: ['lock-out'] },
      belt: { name: 'Belt or coupling', needs: big },
      oil: { name: 'Compressor oil, filters, hoses of the oil', needs: [...big, 'warm-oil'] },
      separator: { name: 'Separator, valves, relief valve', needs: [...big, 'warm-oil'], hasLid: true },
    },
    everything: [...big, 'warm-oil'],
  };
}
