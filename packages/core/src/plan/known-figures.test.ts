import type { DataPlate } from '../machine/index.js';
import { formatQuantity } from '../quantities/index.js';
import {
  defaultPlan,
  kitItemText,
  kitOf,
  knownFigures,
  knownForCheck,
  type FormatQuantity,
} from './index.js';

const format: FormatQuantity = (value, quantity) => {
  const { figure, unit } = formatQuantity(value, quantity);
  return `${figure} ${unit}`;
};
const plate = (more: Partial<DataPlate> = {}): DataPlate => ({
  siteId: 's',
  tag: 'T-1',
  family: 'piston',
  commissionedOn: '2024-01-01',
  history: 'new',
  ...more,
});
const known = plate({
  oilChargeL: 1.5,
  oilGrade: 'VG 100',
  oilDrainAt: 'plug at the front, 17 mm',
  oilFillAt: 'through the glass',
  levelRead: 'dot',
  levelSeenBy: 'mirror',
});

test('what is known stands at the oil’s tasks, and at no other', () => {
  expect(knownFigures('oil-change', known, format)).toEqual([
    'Oil: 1.5 L of VG 100',
    'Drain: plug at the front, 17 mm',
    'Fill: through the glass',
    'Level: at the dot, seen by mirror',
  ]);
  expect(knownFigures('oil-level', known, format)).toHaveLength(4);
  expect(knownFigures('belt-check', known, format)).toEqual([]);
  expect(knownFigures('oil-change', plate(), format)).toEqual([]);
  expect(knownFigures('oil-change', plate({ oilGrade: 'VG 46' }), format)).toEqual(['Oil: VG 46']);
  expect(knownFigures('cartridge-replace', plate({ cartridgeWay: 'arrow down' }), format)).toEqual([
    'Cartridge: arrow down',
  ]);
});

test('a charge is packed by its litres and grade; an engine’s oil is another', () => {
  expect(kitItemText('compressor oil of its grade, one charge', known, format)).toBe(
    '1.5 L of compressor oil VG 100',
  );
  expect(kitItemText('compressor oil of its grade, one charge', plate(), format)).toBe(
    'compressor oil of its grade, one charge',
  );
  expect(kitItemText('coolant of its grade, top-up', known, format)).toBe('coolant VG 100, top-up');
  expect(kitItemText('engine oil, one charge', known, format)).toBe('engine oil, one charge');
  expect(kitItemText('drain plug seal', known, format)).toBe('drain plug seal');
});

test('no default kit of a machine with a known charge speaks of one charge, but of the engine’s', () => {
  for (const family of ['piston', 'screw', 'high-pressure'] as const) {
    const of = { ...known, family };
    const lines = kitOf(defaultPlan(of).tasks).map(({ part }) => kitItemText(part, of, format));
    expect(lines.filter((line) => /one charge/.test(line) && !/engine/.test(line))).toEqual([]);
  }
});

test('where it is drained, by whom and how often', () => {
  const set = { ...known, family: 'high-pressure', stages: 3 } as const;
  expect(knownFigures('separator-drain', { ...set, drainsBy: 'hand', drainsRest: 'open' }, format)).toEqual([
    'Drains: Separator 2, Final separator',
    'Every 12 min of running, by hand (usual)',
    'At rest they stand open',
  ]);
  expect(knownFigures('tower-drain', { ...set, drainEveryMin: 10 }, format)).toEqual([
    'Drains: Purifier tower',
    'Every 10 min of running',
  ]);
  const twoStages = { ...known, family: 'piston', stages: 2, hasDryer: undefined } as const;
  expect(knownFigures('drain-receiver', twoStages, format)[1]).toBe('Every 8 h of running (usual)');
});

test('what is known for a task stands at its checks', () => {
  expect(knownForCheck('oil-level', known, format)).toEqual(knownFigures('oil-level', known, format));
  expect(knownForCheck('oil-look', known, format)).toEqual(knownFigures('oil-level', known, format));
  const set = { ...known, family: 'high-pressure', stages: 3 } as const;
  expect(knownForCheck('auto-drain', set, format)[0]).toBe('Drains: Separator 2, Final separator');
  expect(knownForCheck('pump-up', known, format)).toEqual([]);
});
