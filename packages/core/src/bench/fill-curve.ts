import { compressibility } from '../air/index.js';
import { steps, type CurvePoint } from './bench.js';

const POINTS = 24;

/** A receiver between two pressures, at a flow. */
export interface FillRun {
  readonly fromBar: number;
  readonly toBar: number;
  readonly seconds: number;
  readonly atmosphereBarAbs: number;
  readonly tempC: number;
}

/**
 * Gauge pressure over time while a receiver fills or empties at a steady flow, real gas.
 *
 * @param share flow over the flow that takes the run's own time; 2 takes half of it
 * @returns seconds against bar
 */
export function fillCurve(run: FillRun, share = 1): CurvePoint[] {
  const density = (bar: number) => {
    const absolute = Math.max(0.3, bar + run.atmosphereBarAbs);
    const z = compressibility(absolute, run.tempC);
    return absolute / (z.ok ? z.value : 1);
  };
  const [first, last] = [density(run.fromBar), density(run.toBar)];
  return steps(run.fromBar, run.toBar, POINTS).map((bar) => ({
    x: (run.seconds / share) * ((density(bar) - first) / (last - first)),
    y: bar,
  }));
}
