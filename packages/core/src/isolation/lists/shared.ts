import type { DataPlate } from '../../machine/index.js';
import type { IsolationPoint, Tile } from '../point.js';
import { usualDrainMm } from '../vent-time.js';

/** Off, locked, tried, automatic off: four things in one hold, by drive. */
export function drive({ motor, speedControl, family }: DataPlate): IsolationPoint {
  const code = 'lock-out';
  const kind = 'drive';
  const beware =
    family === 'high-pressure'
      ? 'Many start by themselves when the pressure falls.'
      : 'It starts by itself when the pressure falls.';
  switch (motor) {
    case 'petrol':
      return {
        code,
        kind,
        name: 'Engine stopped, spark lead off, tried',
        hint: 'Fuel tap shut, lead tied away from the plug, own tag on. Pulled once: it does not start.',
        beware: 'The exhaust stays hot.',
      };
    case 'diesel':
      return {
        code,
        kind,
        name: 'Stopped, key and battery switch off, tried',
        hint: 'Idled down, then stopped; key kept by you, battery switch off, remote start off, own tag on. Tried: it does not start.',
        beware: 'Level ground, braked, chocked. Never unhook the battery while it runs.',
      };
    case 'single-phase':
      return {
        code,
        kind,
        name: 'Unplugged, plug in sight, tried',
        hint: 'Switched off, plug in your sight or locked away, own tag on. Switched on once: nothing.',
        beware: 'Called away, and somebody plugs it in. A capacitor keeps its charge.',
      };
    default:
      return {
        code,
        kind,
        name: 'Off, locked, tried, automatic off',
        hint: [
          'Main switch off, own lock and tag on. Tried: it does not start. Automatic and remote start off.',
          speedControl === 'variable'
            ? 'The drive keeps its charge: the time in its manual, or 10 min, before any electrical cover.'
            : '',
        ]
          .filter(Boolean)
          .join(' '),
        beware: `${beware} Dryer, fan, heater and drain timer often have a supply of their own.`,
      };
  }
}

/** The receiver of a machine as a space that takes its time. */
export function receiverSpace(plate: DataPlate, usualL: number) {
  const litres = plate.receiverL ?? usualL;
  return { litres, fromBar: workingBar(plate, 8), boreMm: usualDrainMm(litres) };
}

export function workingBar(plate: DataPlate, usual: number): number {
  return plate.workingPressureBar ?? plate.cutOutBar ?? usual;
}

/** The places of what a machine always has and of what this one has besides; without those, one place. */
export function withOwn(
  name: string,
  more: readonly string[] | undefined,
): { readonly tiles?: readonly Tile[] } {
  if (!more || more.length === 0) return {};
  const own = more.map((one, index) => ({ code: `own-${index + 1}`, name: one }));
  return { tiles: [{ code: '', name }, ...own] };
}

/** Heads, valves and coolers are touched. */
export const cool: IsolationPoint = {
  code: 'cool',
  kind: 'heat',
  name: 'Cooler than 50 °C',
  hint: 'Head and delivery pipe, by a contact or infra-red thermometer. Never by hand: valve covers reach 200 °C.',
  betweenC: [-40, 50],
};

/** Oil runs out of it. */
export const warmOil: IsolationPoint = {
  code: 'warm-oil',
  kind: 'heat',
  name: 'Oil warm, not hot: 40 to 60 °C',
  hint: 'By instrument. A screw straight from load holds 80 to 95 °C and scalds: about 20 min.',
  betweenC: [0, 60],
};
