import type { LocalDate } from '../basics/index.js';

export const families = ['piston', 'piston-oil-free', 'screw', 'high-pressure'] as const;
export type Family = (typeof families)[number];

export const historyKinds = ['new', 'unknown'] as const;
export const drives = ['belt', 'direct'] as const;
export const motors = ['single-phase', 'three-phase', 'petrol', 'diesel'] as const;
export const coolings = ['air', 'water'] as const;
export const lubrications = ['splash', 'pump', 'injected', 'none'] as const;
export const speedControls = ['fixed', 'variable'] as const;
export const dustLevels = ['clean', 'normal', 'dusty'] as const;
export const humidities = ['dry', 'normal', 'damp'] as const;
export const stopKinds = ['switch', 'hand', 'relief'] as const;
/** How the oil's level is read on a machine. */
export const levelMarks = ['marks', 'dot', 'bubble', 'rim', 'above-line'] as const;
/** How the separator element of a screw is built: its usual life hangs on it. */
export const separatorKinds = ['spin-on', 'vessel'] as const;
/** How large two-stage sets are built: it changes the order of their overhaul. */
export const lowPressureValveWays = ['under-head', 'own-cover'] as const;
export const highPressureValveWays = ['in-line', 'own-covers'] as const;
export const coolerPlaces = ['inside', 'beside'] as const;
export const cylinderOilSources = ['oil-pump', 'own-tank'] as const;
export const coolingWaterSources = ['own-pump', 'building'] as const;
/** Who opens the drains of the air, and how they stand while the machine does. */
export const drainWays = ['hand', 'automatic'] as const;
export const drainRests = ['open', 'closed'] as const;
/** Whether a set runs first on its network, or waits. */
export const networkTurns = ['lead', 'standby'] as const;
export const meterOrigins = ['new', 'later'] as const;
export const airUses = ['breathing', 'technical'] as const;

/** What is known of a compressor, at one moment. Whatever is left out is unknown. Pressures are gauge. */
/**
 * Whether something is out of service on a day: from the day of its retirement on, not from the moment at which
 * that became known.
 */
export function isRetiredOn(
  { retiredOn }: { readonly retiredOn?: LocalDate | null | undefined },
  day: LocalDate,
): boolean {
  return retiredOn !== undefined && retiredOn !== null && retiredOn <= day;
}

export interface DataPlate {
  readonly siteId: string;
  readonly tag: string;
  readonly family: Family;
  readonly commissionedOn: LocalDate;
  /** `new`: its tasks count from commissioning. `unknown`: nobody can say what was ever done. */
  readonly history: (typeof historyKinds)[number];
  readonly retiredOn?: LocalDate | undefined;

  readonly name?: string | undefined;
  readonly maker?: string | undefined;
  readonly model?: string | undefined;
  readonly serial?: string | undefined;

  readonly stages?: number | undefined;
  readonly drive?: (typeof drives)[number] | undefined;
  readonly motor?: (typeof motors)[number] | undefined;
  readonly cooling?: (typeof coolings)[number] | undefined;
  readonly lubrication?: (typeof lubrications)[number] | undefined;
  readonly speedControl?: (typeof speedControls)[number] | undefined;
  readonly hasDryer?: boolean | undefined;
  readonly separatorElement?: (typeof separatorKinds)[number] | undefined;
  /** Whether a lubricator feeds its cylinders; where nobody said, water-cooled sets are taken to have one. */
  readonly hasLubricator?: boolean | undefined;
  readonly lowPressureValve?: (typeof lowPressureValveWays)[number] | undefined;
  readonly highPressureValves?: (typeof highPressureValveWays)[number] | undefined;
  readonly coolersAre?: (typeof coolerPlaces)[number] | undefined;
  readonly cylinderOilFrom?: (typeof cylinderOilSources)[number] | undefined;
  readonly coolingWaterFrom?: (typeof coolingWaterSources)[number] | undefined;
  readonly drainsBy?: (typeof drainWays)[number] | undefined;
  readonly drainsRest?: (typeof drainRests)[number] | undefined;
  /** Minutes of running between two drainings. */
  readonly drainEveryMin?: number | undefined;
  /** The network that it feeds, by a name that its sets share. */
  readonly network?: string | undefined;
  readonly turn?: (typeof networkTurns)[number] | undefined;

  readonly workingPressureBar?: number | undefined;
  readonly maximumPressureBar?: number | undefined;
  readonly cutInBar?: number | undefined;
  readonly cutOutBar?: number | undefined;
  readonly reliefBar?: number | undefined;
  readonly displacementLpm?: number | undefined;
  readonly fadLpm?: number | undefined;
  /** Free air delivered as it is quoted a second time, in another unit: the two do not always agree. */
  readonly fadQuotedLpm?: number | undefined;
  readonly receiverL?: number | undefined;

  readonly oilGrade?: string | undefined;
  readonly oilChargeL?: number | undefined;
  /** Temperature of discharge that the oil's life is rated at. */
  readonly oilRatedTempC?: number | undefined;
  readonly levelRead?: (typeof levelMarks)[number] | undefined;
  /** How to see it: mirror, phone, stool. */
  readonly levelSeenBy?: string | undefined;
  /** Where the oil is drained and filled, with the size of the key. */
  readonly oilDrainAt?: string | undefined;
  readonly oilFillAt?: string | undefined;
  /** Which way round the cartridge goes into this tower. */
  readonly cartridgeWay?: string | undefined;

  /** What ends a fill. */
  readonly stopsBy?: (typeof stopKinds)[number] | undefined;
  /** Pressure that the holding valve after the tower keeps. */
  readonly maintainingValveBar?: number | undefined;
  /** Water that the cartridge takes up: saturated weight less dry weight. */
  readonly moistureCapacityG?: number | undefined;

  /** As found: its choice is an electrician's business. */
  readonly supplyV?: number | undefined;
  readonly breakerA?: number | undefined;
  readonly cable?: string | undefined;
  readonly torques?: string | undefined;
  /** How each kind of joint is sealed here. */
  readonly jointSealing?: string | undefined;
  /** Valves to be shut before it is opened, besides the usual one. */
  readonly moreValves?: readonly string[] | undefined;
  /** Vessels to be emptied before it is opened, besides the usual one. */
  readonly moreVessels?: readonly string[] | undefined;
  /** What was changed on it: parts must fit it as it is. */
  readonly modifications?: string | undefined;

  readonly hasHourMeter?: boolean | undefined;
  /** Whether its meter has counted since it was new, or was fitted later. */
  readonly meterFrom?: (typeof meterOrigins)[number] | undefined;
  readonly declaredHoursPerWeek?: number | undefined;
  /** Weekdays on which it never runs, 1 Monday to 7 Sunday. */
  readonly closedWeekdays?: readonly number[] | undefined;
  /** Days on which the place is closed, first and last, as `2026-07-20/2026-08-02`. */
  readonly closures?: readonly string[] | undefined;

  readonly dust?: (typeof dustLevels)[number] | undefined;
  readonly humidity?: (typeof humidities)[number] | undefined;
  readonly airUse?: (typeof airUses)[number] | undefined;
}

/** Fewest and most compression stages that each family is built with. */
export const stageBounds: Record<
  Family,
  { readonly min: number; readonly max: number; readonly usual: number }
> = {
  piston: { min: 1, max: 2, usual: 1 },
  'piston-oil-free': { min: 1, max: 2, usual: 1 },
  screw: { min: 1, max: 2, usual: 1 },
  'high-pressure': { min: 3, max: 5, usual: 3 },
};

/** Stages to reckon with: those of the plate, or the family's usual number while unknown. */
export function stagesOf(plate: Pick<DataPlate, 'family' | 'stages'>): number {
  return plate.stages ?? stageBounds[plate.family].usual;
}

/** The highest that its network sees of a machine by its plate: its relief valve, else where it stops or works. */
export function reachedBar({
  reliefBar,
  cutOutBar,
  workingPressureBar,
}: Pick<DataPlate, 'reliefBar' | 'cutOutBar' | 'workingPressureBar'>): number | undefined {
  return reliefBar ?? cutOutBar ?? workingPressureBar;
}

/** Whether somebody breathes what the machine delivers: high pressure unless it says otherwise, others where they say so. */
export function isBreathed({ family, airUse }: Pick<DataPlate, 'family' | 'airUse'>): boolean {
  return family === 'high-pressure' ? airUse !== 'technical' : airUse === 'breathing';
}

/** Whether a lubricator feeds the cylinders. */
export function hasLubricator(plate: Pick<DataPlate, 'family' | 'cooling' | 'hasLubricator'>): boolean {
  return plate.hasLubricator ?? (plate.family === 'piston' && plate.cooling === 'water');
}

/** Whether an engine drives it. */
export function hasEngine({ motor }: Pick<DataPlate, 'motor'>): boolean {
  return motor === 'petrol' || motor === 'diesel';
}

/** Whether the machine has oil in it at all. */
export function isOilLubricated(plate: Pick<DataPlate, 'family' | 'lubrication'>): boolean {
  return plate.family !== 'piston-oil-free' && plate.lubrication !== 'none';
}

/** The family in words, as a technician would name the machine across a yard. */
export function describeMachine(plate: DataPlate): string {
  switch (plate.family) {
    case 'piston': {
      const stages = stagesOf(plate) === 2 ? 'two-stage piston' : 'piston';
      return plate.cooling === 'water' ? `${stages}, water-cooled` : stages;
    }
    case 'piston-oil-free':
      return 'oil-free piston';
    case 'screw': {
      if (plate.motor === 'diesel') return 'portable diesel screw';
      if (plate.speedControl === 'variable') return 'screw, variable speed';
      return plate.hasDryer ? 'screw with dryer' : 'screw';
    }
    case 'high-pressure': {
      const fuel = plate.motor === 'petrol' || plate.motor === 'diesel' ? `, ${plate.motor}` : '';
      return `${stagesOf(plate)}-stage high pressure${fuel}`;
    }
  }
}
