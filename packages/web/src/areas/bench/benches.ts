import { lazy, type ComponentType } from 'react';

/** A bench by the last part of its address, with the page that it is. */
interface Bench {
  readonly code: string;
  readonly name: string;
  readonly Tool: ComponentType;
}

function bench<Name extends string>(
  code: string,
  name: string,
  tool: Name,
  load: () => Promise<Readonly<Record<Name, ComponentType>>>,
): Bench {
  const Tool = lazy(async () => ({ default: (await load())[tool] as ComponentType }));
  return { code, name, Tool };
}

/** Every bench, in the order in which they are offered; each is fetched when it is opened. */
export const benches: readonly [Bench, ...Bench[]] = [
  bench('pump-up', 'Pump-up and leak-down', 'PumpUp', () => import('./tools/PumpUp.js')),
  bench('leaks', 'Leaks and their cost', 'Leaks', () => import('./tools/Leaks.js')),
  bench('ladder', 'Compression ladder', 'Ladder', () => import('./tools/Ladder.js')),
  bench('water', 'Condensate and cartridge', 'Water', () => import('./tools/Water.js')),
  bench('cylinders', 'Cylinders and banks', 'Cylinders', () => import('./tools/Cylinders.js')),
  bench('convert', 'Convert', 'Convert', () => import('./tools/Convert.js')),
];
