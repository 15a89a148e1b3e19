import type { CompressorView, MeasurementView, TaskStandingView } from '@entretien/contracts';
import type { DataPlate } from '@entretien/core/machine';
import { pathLayout } from '../../../components/air-path/path-layout.js';
import { leadingTask, machineFacts, stationToShow } from './station-facts.js';

function unit(more: Partial<DataPlate>): CompressorView {
  return {
    id: 'u',
    revision: 1,
    registeredAt: '2026-01-01T00:00:00Z',
    by: 'p',
    marks: [],
    doubts: [],
    siteId: 's',
    tag: 'T-1',
    family: 'high-pressure',
    commissionedOn: '2026-01-01',
    history: 'new',
    ...more,
  };
}

const task = (code: string, station: string, more: Partial<TaskStandingView> = {}) =>
  ({ code, name: code, station, state: 'fresh', coveredBy: null, vessel: null, ...more }) as TaskStandingView;

function measured(check: string, takenAt: string, more: object): MeasurementView {
  const judgement = {
    verdict: 'good',
    reason: '',
    limit: null,
    figure: null,
    figures: [],
    suggests: [],
    ...more,
  };
  return { id: takenAt, check, takenAt, values: {}, judgement, ...more } as unknown as MeasurementView;
}

const names = (stations: readonly { short: string }[]) => stations.map(({ short }) => short);

test('stations come in the order of the air, what stands beside after them', () => {
  const { path, beside } = machineFacts(unit({ stages: 3 }), { tasks: [], routine: [] }, [], {});
  expect(names(path)).toEqual([
    'Intake',
    'Stage 1',
    'Cooler 1',
    'Stage 2',
    'Cooler 2',
    'Separator 2',
    'Stage 3',
    'Final sep.',
    'Tower',
    'Holding valve',
    'Check valve',
    'Fill',
  ]);
  expect(path.map(({ place }) => place)).toEqual(path.map((_, index) => index + 1));
  expect(beside.every(({ place }) => place === null)).toBe(true);
});

test('a station leads with its most pressing task, and what a bigger one covers gives way', () => {
  const tasks = [
    task('big', 'tower'),
    task('small', 'tower', { coveredBy: 'big' }),
    task('oil', 'crankcase'),
  ];
  const machine = machineFacts(unit({}), { tasks, routine: [] }, [], {});
  const tower = machine.path.find(({ code }) => code === 'tower')!;
  expect(leadingTask(tower)!.code).toBe('big');
  expect(leadingTask({ ...tower, tasks: [tasks[1]!] })!.code).toBe('small');
  expect(leadingTask({ ...tower, tasks: [] })).toBeNull();
  expect(stationToShow({ tasks }, machine)).toBe('tower');
  expect(stationToShow({ tasks: [] }, machine)).toBe('intake');
});

test('what is known of a station: the stage’s pressure, the latest figure, or what stands on the plate', () => {
  const measurements = [
    measured('stage-pressures', '2026-11-20T00:00:00Z', { values: { stage1Bar: 5.1, stage2Bar: 41 } }),
    measured('cartridge-weight', '2026-11-18T00:00:00Z', {
      figure: { value: 30.6, uncertainty: 1 },
      verdict: 'watch',
    }),
  ];
  const given = unit({ stages: 3, reliefBar: 330, fadLpm: 255 });
  const { path, beside } = machineFacts(given, { tasks: [], routine: [] }, measurements, { pressure: 'bar' });
  const text = (code: string) => [...path, ...beside].find((one) => one.code === code)!;
  expect(text('stage-1').text).toBe('5.1 bar');
  expect(text('stage-2').text).toBe('41 bar');
  expect(text('stage-3').text).toBe('');
  expect(text('tower')).toMatchObject({ text: '30.6 %', verdict: 'watch' });
  expect(text('relief')).toMatchObject({ text: '330 bar', verdict: null });
});

test('a vessel of a kind that the machine has no station for stands where it fills', () => {
  const vessel = { id: 'v', tag: 'R-1', examination: 'test' } as const;
  const { path } = machineFacts(
    unit({}),
    { tasks: [task('x', 'receiver', { vessel })], routine: [] },
    [],
    {},
  );
  expect(path.find(({ code }) => code === 'fill')!.tasks).toHaveLength(1);
});

test.each([
  // Eighteen stations of a five-stage set beside a side sheet; twelve of a three-stage set; a piston set.
  [872, 18, 2, 48.4 / 56],
  [872, 12, 2, 1],
  [872, 8, 1, 1],
])('%i px for %i stations: labels on %i levels', (width, count, levels, scale) => {
  const layout = pathLayout(width, count);
  expect(layout.levels).toBe(levels);
  expect(layout.scale).toBeCloseTo(scale, 2);
  expect(layout.spacing * count).toBeCloseTo(width, 6);
});
