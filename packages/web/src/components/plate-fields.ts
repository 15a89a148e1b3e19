import type { PlateDetails } from '@entretien/contracts';
import { describeDay } from '@entretien/core/basics';
import {
  airUses,
  coolings,
  drives,
  dustLevels,
  humidities,
  levelMarks,
  meterOrigins,
  coolerPlaces,
  coolingWaterSources,
  drainRests,
  drainWays,
  cylinderOilSources,
  highPressureValveWays,
  lowPressureValveWays,
  networkTurns,
  separatorKinds,
  lubrications,
  motors,
  speedControls,
  stopKinds,
  type Family,
} from '@entretien/core/machine';
import type { QuantityKind } from '@entretien/core/quantities';

type FieldName = keyof PlateDetails;

interface FieldBase {
  readonly name: FieldName;
  readonly label: string;
  /** Left out: every family. */
  readonly families?: readonly Family[];
  readonly hint?: string;
}

export type PlateField = FieldBase &
  (
    | { readonly as: 'text' }
    | { readonly as: 'whole' }
    | { readonly as: 'figure'; readonly unit: string; readonly max: number }
    | { readonly as: 'flag' }
    | { readonly as: 'weekdays' }
    | { readonly as: 'closures' | 'names' }
    | { readonly as: 'quantity'; readonly kind: QuantityKind; readonly max: number }
    | { readonly as: 'choice'; readonly options: readonly string[] }
  );

interface FieldGroup {
  readonly title: string;
  readonly fields: readonly PlateField[];
}

const filling: readonly Family[] = ['high-pressure'];
const oiled: readonly Family[] = ['piston', 'screw', 'high-pressure'];

/** The data plate as it is asked for and shown: one list, so that a field is added in one place. */
export const plateGroups: readonly FieldGroup[] = [
  {
    title: 'Machine',
    fields: [
      { name: 'name', label: 'Name or place', as: 'text' },
      { name: 'maker', label: 'Maker', as: 'text' },
      { name: 'model', label: 'Model', as: 'text' },
      { name: 'serial', label: 'Serial number', as: 'text' },
      { name: 'stages', label: 'Stages', as: 'whole', families: ['piston', 'high-pressure'] },
      { name: 'drive', label: 'Drive', as: 'choice', options: drives },
      { name: 'motor', label: 'Driven by', as: 'choice', options: motors },
      { name: 'cooling', label: 'Cooling', as: 'choice', options: coolings },
      { name: 'lubrication', label: 'Lubrication', as: 'choice', options: lubrications },
      { name: 'speedControl', label: 'Speed', as: 'choice', options: speedControls, families: ['screw'] },
      { name: 'hasDryer', label: 'Dryer built in', as: 'flag', families: ['screw'] },
      {
        name: 'separatorElement',
        label: 'Separator element',
        as: 'choice',
        options: separatorKinds,
        families: ['screw'],
      },
      { name: 'hasLubricator', label: 'Cylinder lubricator', as: 'flag', families: ['piston'] },
      {
        name: 'lowPressureValve',
        label: 'Low-pressure valve',
        as: 'choice',
        options: lowPressureValveWays,
        families: ['piston'],
        hint: 'Of large two-stage sets: under its own cover, it comes out without the head.',
      },
      {
        name: 'highPressureValves',
        label: 'High-pressure valves',
        as: 'choice',
        options: highPressureValveWays,
        families: ['piston'],
      },
      { name: 'coolersAre', label: 'Coolers', as: 'choice', options: coolerPlaces, families: ['piston'] },
      {
        name: 'cylinderOilFrom',
        label: 'Cylinder oil from',
        as: 'choice',
        options: cylinderOilSources,
        families: ['piston'],
      },
      {
        name: 'coolingWaterFrom',
        label: 'Cooling water from',
        as: 'choice',
        options: coolingWaterSources,
        families: ['piston'],
      },
      {
        name: 'drainsBy',
        label: 'Drains opened by',
        as: 'choice',
        options: drainWays,
        hint: 'Where they are follows from its stations.',
      },
      {
        name: 'drainsRest',
        label: 'Drains at rest',
        as: 'choice',
        options: drainRests,
        hint: 'Open: it starts without load. Closed: opened by hand after it stopped.',
      },
      { name: 'drainEveryMin', label: 'Drained every', as: 'figure', unit: 'min of running', max: 1440 },
      {
        name: 'network',
        label: 'Network that it feeds',
        as: 'text',
        hint: 'The same name for every set on it.',
      },
      {
        name: 'turn',
        label: 'Its turn there',
        as: 'choice',
        options: networkTurns,
        hint: 'Lead runs first; standby waits.',
      },
    ],
  },
  {
    title: 'Pressure and air',
    fields: [
      { name: 'workingPressureBar', label: 'Working pressure', as: 'quantity', kind: 'pressure', max: 600 },
      { name: 'cutInBar', label: 'Cut-in', as: 'quantity', kind: 'pressure', max: 600 },
      { name: 'cutOutBar', label: 'Cut-out or auto-stop', as: 'quantity', kind: 'pressure', max: 600 },
      { name: 'reliefBar', label: 'Relief setting', as: 'quantity', kind: 'pressure', max: 600 },
      { name: 'maximumPressureBar', label: 'Maximum allowed', as: 'quantity', kind: 'pressure', max: 600 },
      { name: 'fadLpm', label: 'Free air delivered', as: 'quantity', kind: 'flow', max: 200_000 },
      {
        name: 'fadQuotedLpm',
        label: 'Free air, second figure on the plate',
        as: 'quantity',
        kind: 'flow',
        max: 200_000,
      },
      { name: 'displacementLpm', label: 'Displacement', as: 'quantity', kind: 'flow', max: 200_000 },
      { name: 'receiverL', label: 'Receiver', as: 'quantity', kind: 'volume', max: 200_000 },
      { name: 'airUse', label: 'Air used for', as: 'choice', options: airUses },
      { name: 'stopsBy', label: 'A fill is ended by', as: 'choice', options: stopKinds, families: filling },
      {
        name: 'maintainingValveBar',
        label: 'Holding valve keeps',
        as: 'quantity',
        kind: 'pressure',
        max: 600,
        families: filling,
      },
      {
        name: 'moistureCapacityG',
        label: 'Water the cartridge holds',
        as: 'quantity',
        kind: 'mass',
        max: 100_000,
        families: filling,
      },
    ],
  },
  {
    title: 'Oil',
    fields: [
      { name: 'oilGrade', label: 'Oil grade', as: 'text', families: oiled },
      { name: 'oilChargeL', label: 'Oil charge', as: 'quantity', kind: 'volume', max: 2000, families: oiled },
      {
        name: 'oilRatedTempC',
        label: 'Oil is rated at',
        as: 'quantity',
        kind: 'temperature',
        max: 200,
        families: ['screw'],
      },
      {
        name: 'levelRead',
        label: 'Oil level shown by',
        as: 'choice',
        options: levelMarks,
        families: oiled,
      },
      { name: 'levelSeenBy', label: 'Where to look', as: 'text', families: oiled },
      {
        name: 'oilDrainAt',
        label: 'Oil is drained at',
        as: 'text',
        families: oiled,
        hint: 'With the size of its key: plug at the front, 17 mm.',
      },
      { name: 'oilFillAt', label: 'Oil is filled at', as: 'text', families: oiled },
    ],
  },
];

/** Where it stands and what feeds it: asked for when it is sited. */
export const placeFields: readonly PlateField[] = [
  { name: 'dust', label: 'Dust', as: 'choice', options: dustLevels },
  { name: 'humidity', label: 'Damp', as: 'choice', options: humidities },
  { name: 'supplyV', label: 'Supply as found', as: 'figure', unit: 'V', max: 1000 },
  { name: 'breakerA', label: 'Fuse or breaker as found', as: 'figure', unit: 'A', max: 2000 },
  { name: 'cable', label: 'Cable as found', as: 'text' },
];

/** What fits it as it is. */
export const fitFields: readonly PlateField[] = [
  {
    name: 'torques',
    label: 'Torques',
    as: 'text',
    hint: 'With semicolons: head bolts: 24 Nm, 3 rounds, manual; plug: 20 Nm.',
  },
  {
    name: 'cartridgeWay',
    label: 'Cartridge goes in',
    as: 'text',
    families: filling,
    hint: 'Which end up, or which colour to the head.',
  },
  { name: 'jointSealing', label: 'How its joints are sealed', as: 'text' },
  {
    name: 'moreValves',
    label: 'More valves to shut before it is opened',
    as: 'names',
    hint: 'Besides the usual one, with commas.',
  },
  {
    name: 'moreVessels',
    label: 'More vessels to empty before it is opened',
    as: 'names',
    hint: 'Besides the usual one, with commas.',
  },
  { name: 'modifications', label: 'What was changed on it', as: 'text' },
];

export const hourFields: readonly PlateField[] = [
  { name: 'hasHourMeter', label: 'It has an hour meter', as: 'flag' },
  { name: 'meterFrom', label: 'Meter counts since', as: 'choice', options: meterOrigins },
  {
    name: 'declaredHoursPerWeek',
    label: 'Declared duty, hours a week',
    as: 'quantity',
    kind: 'hours',
    max: 168,
    hint: 'Estimates stand on this until there are readings.',
  },
  { name: 'closedWeekdays', label: 'Closed on', as: 'weekdays' },
  {
    name: 'closures',
    label: 'Closed from and to',
    as: 'closures',
  },
];

/** Everything that can stand on a plate, in groups. */
export const allPlateGroups: readonly FieldGroup[] = [
  ...plateGroups,
  { title: 'Place and supply', fields: placeFields },
  { title: 'Fit', fields: fitFields },
  { title: 'Hours', fields: hourFields },
];

export const weekdayNames = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;

/** Choices that are called otherwise than their code. */
const choiceNames: Readonly<Record<string, string>> = {
  technical: 'industrial',
  marks: 'dipstick marks',
  bubble: 'sight glass',
  'above-line': 'above the line',
  hand: 'by hand',
  relief: 'relief valve',
};

/** A choice of the plate, as it is read. */
export function choiceText(code: string): string {
  return choiceNames[code] ?? code.replaceAll('-', ' ');
}

/** What stands on the plate, in words; lists too. */
export function formatPlateValue(field: PlateField, value: unknown): string {
  if (field.as === 'weekdays') return (value as number[]).map((day) => weekdayNames[day - 1]).join(', ');
  if (field.as === 'closures')
    return (value as string[]).map((text) => text.split('/').map(describeDay).join(' to ')).join(', ');
  if (field.as === 'names') return (value as string[]).join(', ');
  if (field.as === 'choice') return choiceText(value as string);
  return field.as === 'figure' ? `${String(value)} ${field.unit}` : String(value);
}

/** The fields that a machine of a family can have. */
export function fieldsFor(fields: readonly PlateField[], family: Family): PlateField[] {
  return fields.filter((field) => field.families?.includes(family) ?? true);
}

const familyNames: Record<Family, string> = {
  piston: 'Piston, oil-lubricated',
  'piston-oil-free': 'Piston, oil-free',
  screw: 'Rotary screw',
  'high-pressure': 'High pressure',
};

export function familyName(family: Family): string {
  return familyNames[family];
}
