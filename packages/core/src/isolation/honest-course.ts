import type { DataPlate } from '../machine/index.js';
import type { IsolateBody } from './body.js';
import { leastSecondsOf, STOOD_MINUTES } from './against.js';
import { pointOf, pointsNeeded } from './lists/index.js';
import { tilesOf, type IsolationPoint } from './point.js';

/** Something said at a point, and how many seconds after the beginning. */
export interface CourseStep {
  readonly seconds: number;
  readonly body: IsolateBody;
}

const HOLD_SECONDS = 20;

/**
 * The isolation of a machine as it goes where every vent passes and every needle falls: one hold after the other,
 * each as soon as it can be said.
 *
 * @param opens codes of what is to be opened; null: everything
 */
export function honestCourse(plate: DataPlate, opens: readonly string[] | null): readonly CourseStep[] {
  const points = pointsNeeded(plate, opens).map((code) => pointOf(plate, code)!);
  const steps: CourseStep[] = [];
  let seconds = 0;
  let silentAt = 0;
  const format = (
    point: IsolationPoint,
    tile: string,
    more: Omit<IsolateBody, 'kind' | 'step' | 'confirmed'>,
  ) => {
    const place = tile === '' ? {} : { tile };
    steps.push({ seconds, body: { kind: 'isolate', step: point.code, confirmed: true, ...place, ...more } });
    seconds += HOLD_SECONDS;
  };
  const vent = (point: IsolationPoint, tile: string) => {
    format(point, tile, { answer: 'passes' });
    seconds += Math.ceil(leastSecondsOf(point));
    silentAt = seconds;
    const needle = point.gauge === undefined ? 'none' : 'fell';
    format(point, tile, { answer: 'silent', needle });
    const isOpenForward = points.some(({ code }) => code === point.emptiesInto);
    if (point.gauge !== undefined || point.hasTwoOpenings || isOpenForward) return;
    if (point.emptiesInto === undefined) {
      silentAt = seconds;
      format(point, tile, { answer: 'second-opening' });
    } else {
      seconds += STOOD_MINUTES * 60;
      silentAt = seconds;
      format(point, tile, { answer: 'stood' });
    }
  };
  // What is hot is waited for first; water is shut only then.
  const ordered = [
    ...points.filter(({ kind }) => kind !== 'look'),
    ...points.filter(({ kind }) => kind === 'look'),
  ];
  for (const point of ordered) {
    for (const { code } of tilesOf(point)) {
      if (point.kind === 'vent') vent(point, code);
      else {
        if (point.kind === 'look') seconds = Math.max(seconds, silentAt + (point.waitMinutes ?? 0) * 60);
        format(point, code, { answer: 'holds' });
      }
    }
  }
  return steps;
}
