import seedrandom from 'seedrandom';
import {
  guardRules,
  isolationOf,
  missingFor,
  type IsolateBody,
  type IsolationEvent,
} from '../isolation/index.js';
import type { DataPlate } from '../machine/index.js';
import { Simulation } from '../simulator/index.js';
import { runCourses } from './index.js';
import { sites } from './machine-sites.js';

const EACH = Math.ceil(1000 / Object.keys(sites).length);

describe('courses of people at simulated machines, one liar in a space at the most', () => {
  test.each(Object.keys(sites))('%s: what is let to be opened is empty, and the machine stands', (name) => {
    const run = runCourses({
      courses: EACH,
      random: seedrandom(`test ${name}`),
      liars: 1,
      machines: [name],
    });
    expect(run.unsafe.map((story) => story.join('\n'))).toEqual([]);
    // Courses that never get as far as an opening would show nothing.
    expect(run.admitted).toBeGreaterThan(EACH / 3);
    expect(run.admittedWithLiar).toBeGreaterThan(5);
  });

  test.each(['oil-free', 'screw', 'high-pressure, four stages'])(
    'without the rule of two signs they find the danger: %s',
    (machine) => {
      const rules = new Set(guardRules.filter((one) => one !== 'two-signs'));
      const run = runCourses({
        courses: 100,
        random: seedrandom('two signs'),
        liars: 1,
        machines: [machine],
        rules,
      });
      expect(run.unsafe.length).toBeGreaterThan(0);
    },
  );
});

const START = Date.UTC(2026, 0, 5, 7);

/** A course as it was told, and what is lacking at its end for what was to be opened. */
function lacking(
  plate: DataPlate,
  opening: string,
  told: readonly (readonly [number, Omit<IsolateBody, 'kind'>])[],
  at: number,
) {
  const events = told.map(([seconds, body], index): IsolationEvent => ({
    id: `e${String(index).padStart(4, '0')}`,
    doneAt: START + seconds * 1000,
    by: 'mira',
    session: 'mira',
    body: { kind: 'isolate', ...body },
  }));
  const asking = { at: START + at * 1000, by: 'mira', session: 'mira' };
  return missingFor({ plate }, isolationOf({ plate }, events), [opening], asking).map(({ point }) => point);
}

/** Courses that once were let in, with the pressure that the machine really held. */
describe('stories that the courses found', () => {
  test('a blocked drain with no gauge, called empty, and stood for ten minutes: 6 bar are behind it', () => {
    const { plate, supplyBar } = sites['screw']!;
    const simulation = new Simulation(plate, { supplyBar });
    simulation.press('power-off');
    simulation.fault('drain-separator-blocked', 1);
    simulation.turn('valve-outlet', 0);
    for (const code of ['vent-vessel', 'drain-separator']) simulation.turn(code, 1);
    simulation.advance(1200);
    expect(simulation.trueBar('outlet-side')).toBeGreaterThan(5);
    const course = [
      [0, { step: 'lock-out', confirmed: true, answer: 'holds' }],
      [10, { step: 'outlet', confirmed: true, answer: 'holds' }],
      [20, { step: 'vessel', confirmed: true, answer: 'passes' }],
      [120, { step: 'vessel', confirmed: true, answer: 'silent', needle: 'fell' }],
      [130, { step: 'outlet-side', confirmed: true, answer: 'found-empty', needle: 'none' }],
      [780, { step: 'outlet-side', confirmed: true, answer: 'stood', needle: 'none' }],
      [1100, { step: 'second-look', confirmed: true, answer: 'holds' }],
      [1150, { step: 'warm-oil', confirmed: true, answer: 'holds', tempC: 50 }],
    ] as const;
    expect(lacking(plate, 'separator', course, 1200)).toContain('outlet-side');
  });

  test('a vent that clogs at a tenth of a bar leaves cold air, which warms and presses again', () => {
    const simulation = new Simulation(sites['screw']!.plate);
    simulation.press('power-off');
    simulation.turn('valve-outlet', 0);
    simulation.turn('drain-separator', 1);
    for (let tries = 0; simulation.trueBar('outlet-side') > 0.1 && tries < 1000; tries++)
      simulation.advance(0.05);
    simulation.fault('drain-separator-blocked', 1);
    const clogged = simulation.trueBar('outlet-side');
    simulation.advance(300);
    expect(clogged).toBeLessThanOrEqual(0.1);
    expect(simulation.trueBar('outlet-side')).toBeGreaterThan(0.2);
  });

  test('a drain of a high-pressure set that clogs last of all: what creeps back from the tower waits for a second look', () => {
    const { plate } = sites['high-pressure, three stages']!;
    const course = [
      [0, { step: 'lock-out', confirmed: true, answer: 'holds' }],
      [1, { step: 'stages', tile: 'stage-1', confirmed: true, answer: 'passes' }],
      [1, { step: 'stages', tile: 'stage-2', confirmed: true, answer: 'passes' }],
      [20, { step: 'stages', tile: 'stage-1', confirmed: true, answer: 'silent', needle: 'fell' }],
      [20, { step: 'stages', tile: 'stage-2', confirmed: true, answer: 'silent', needle: 'fell' }],
    ] as const;
    expect(lacking(plate, 'belt', course, 60)).toEqual(['second-look']);
    const simulation = new Simulation(plate);
    simulation.put('stage-2', 40);
    simulation.put('tower', 250);
    simulation.fault('discharge-valve-3', 0.002);
    simulation.fault('suction-valve-3', 0.002);
    simulation.turn('drain-2', 1);
    for (let tries = 0; simulation.trueBar('stage-2') > 0.05 && tries < 1000; tries++)
      simulation.advance(0.5);
    simulation.fault('drain-2-blocked', 1);
    simulation.advance(300);
    expect(simulation.trueBar('stage-2')).toBeGreaterThan(0.1);
  });

  test('a screw whose outlet is opened again after it was proved: its minimum-pressure valve lets the network back', () => {
    const { plate, supplyBar } = sites['screw']!;
    const course = [
      [0, { step: 'lock-out', confirmed: true, answer: 'holds' }],
      [10, { step: 'outlet', confirmed: true, answer: 'holds' }],
      [20, { step: 'vessel', confirmed: true, answer: 'passes' }],
      [120, { step: 'vessel', confirmed: true, answer: 'silent', needle: 'fell' }],
      [500, { step: 'second-look', confirmed: true, answer: 'holds' }],
    ] as const;
    expect(lacking(plate, 'belt', course, 510)).toEqual([]);
    const opened = [...course, [520, { step: 'outlet', confirmed: false }]] as const;
    expect(lacking(plate, 'belt', opened, 530)).toEqual(['outlet', 'vessel', 'second-look']);
    // Shut again it is not as it was: what came through meanwhile is in the vessel.
    const shut = [...opened, [540, { step: 'outlet', confirmed: true, answer: 'holds' }]] as const;
    expect(lacking(plate, 'belt', shut, 550)).toEqual(['vessel', 'second-look']);
    const simulation = new Simulation(plate, { supplyBar });
    simulation.press('power-off');
    simulation.turn('valve-outlet', 0);
    simulation.turn('vent-vessel', 1);
    simulation.advance(600);
    expect(simulation.trueBar('vessel')).toBeLessThan(0.05);
    simulation.fault('minimum-pressure-open', 0.718);
    simulation.turn('valve-outlet', 1);
    simulation.advance(120);
    expect(simulation.trueBar('vessel')).toBeGreaterThan(0.1);
  });

  test('a drain of a water-cooled set that clogs at a tenth of a bar: the drive waits for a second look as well', () => {
    const { plate } = sites['water-cooled']!;
    const found = (tile: string, sign: string) =>
      [
        [45, { step: 'air-side', tile, confirmed: true, answer: 'found-empty', needle: 'stood' }],
        [46, { step: 'air-side', tile, confirmed: true, answer: sign }],
      ] as const;
    const course = [
      [26, { step: 'lock-out', confirmed: true, answer: 'holds' }],
      [30, { step: 'delivery', confirmed: true, answer: 'holds' }],
      ...found('low', 'second-gauge'),
      ...found('high', 'second-opening'),
      ...found('separator', 'second-gauge'),
    ] as const;
    expect(lacking(plate, 'belt', course, 60)).toEqual(['second-look']);
  });
});
