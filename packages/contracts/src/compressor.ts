import {
  airUses,
  coolings,
  drives,
  dustLevels,
  families,
  historyKinds,
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
  type DataPlate,
  type Family,
} from '@entretien/core/machine';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsString,
  Max,
  MaxLength,
  Min,
  MinLength,
} from 'class-validator';
import {
  all,
  IsClosure,
  IsFigure,
  IsId,
  IsInstant,
  IsLocalDate,
  IsText,
  Omittable,
  Optional,
  textLimits,
} from './rules.js';

function oneOf(what: string, values: readonly string[]): PropertyDecorator {
  return IsIn(values, { message: `${what} must be one of ${values.join(', ')}.` });
}

/** Most valves, and most vessels, that a machine's isolation has besides the usual ones. */
const MOST_OWN = 8;

function AreNames(what: string): PropertyDecorator {
  const message = `${what}: a list of ${MOST_OWN} names at most.`;
  return all(
    IsArray({ message }),
    ArrayMaxSize(MOST_OWN, { message }),
    ArrayUnique({ message: `${what}: name each once.` }),
    IsString({ each: true, message }),
    MinLength(1, { each: true, message: `${what}: a name must not be empty.` }),
    MaxLength(textLimits.short, {
      each: true,
      message: `${what}: ${textLimits.short} characters a name at most.`,
    }),
  );
}

/** What may stand on a data plate besides its identity. All of it is optional and shown as unknown. */
export class PlateDetails {
  @Optional() @IsText('The name', textLimits.name) name?: string | null;
  @Optional() @IsText('The maker', textLimits.short) maker?: string | null;
  @Optional() @IsText('The model', textLimits.short) model?: string | null;
  @Optional() @IsText('The serial number', textLimits.short) serial?: string | null;

  @Optional()
  @IsInt({ message: 'Stages must be a whole number.' })
  @Min(1, { message: 'There is at least 1 stage.' })
  @Max(5, { message: 'There are 5 stages at most.' })
  stages?: number | null;

  @Optional() @oneOf('The drive', drives) drive?: DataPlate['drive'] | null;
  @Optional() @oneOf('The motor', motors) motor?: DataPlate['motor'] | null;
  @Optional() @oneOf('Cooling', coolings) cooling?: DataPlate['cooling'] | null;
  @Optional() @oneOf('Lubrication', lubrications) lubrication?: DataPlate['lubrication'] | null;
  @Optional() @oneOf('Speed control', speedControls) speedControl?: DataPlate['speedControl'] | null;
  @Optional() @IsBoolean({ message: 'A dryer is there or not.' }) hasDryer?: boolean | null;
  @Optional()
  @oneOf('The separator element', separatorKinds)
  separatorElement?: DataPlate['separatorElement'] | null;
  @Optional() @IsBoolean({ message: 'A lubricator is there or not.' }) hasLubricator?: boolean | null;

  @Optional() @IsFigure('Working pressure', 0, 600) workingPressureBar?: number | null;
  @Optional() @IsFigure('The maximum pressure', 0, 600) maximumPressureBar?: number | null;
  @Optional() @IsFigure('Cut-in', 0, 600) cutInBar?: number | null;
  @Optional() @IsFigure('Cut-out', 0, 600) cutOutBar?: number | null;
  @Optional() @IsFigure('The relief setting', 0, 600) reliefBar?: number | null;
  @Optional() @IsFigure('Displacement', 0, 200_000) displacementLpm?: number | null;
  @Optional() @IsFigure('Free air delivered', 0, 200_000) fadLpm?: number | null;
  @Optional() @IsFigure('Free air, second figure on the plate', 0, 200_000) fadQuotedLpm?: number | null;
  @Optional() @IsFigure('The receiver', 0, 200_000) receiverL?: number | null;

  @Optional() @IsText('The oil grade', textLimits.short) oilGrade?: string | null;
  @Optional() @IsFigure('The oil charge', 0, 2000) oilChargeL?: number | null;
  @Optional() @IsFigure('The rated temperature of the oil', 20, 200) oilRatedTempC?: number | null;
  @Optional() @oneOf('The meter', meterOrigins) meterFrom?: DataPlate['meterFrom'] | null;
  @Optional()
  @oneOf('The low-pressure valve', lowPressureValveWays)
  lowPressureValve?: DataPlate['lowPressureValve'] | null;
  @Optional()
  @oneOf('The high-pressure valves', highPressureValveWays)
  highPressureValves?: DataPlate['highPressureValves'] | null;
  @Optional() @oneOf('The coolers', coolerPlaces) coolersAre?: DataPlate['coolersAre'] | null;
  @Optional()
  @oneOf('The cylinder oil', cylinderOilSources)
  cylinderOilFrom?: DataPlate['cylinderOilFrom'] | null;
  @Optional()
  @oneOf('The cooling water', coolingWaterSources)
  coolingWaterFrom?: DataPlate['coolingWaterFrom'] | null;
  @Optional() @oneOf('The drains', drainWays) drainsBy?: DataPlate['drainsBy'] | null;
  @Optional() @oneOf('The drains at rest', drainRests) drainsRest?: DataPlate['drainsRest'] | null;
  @Optional() @IsFigure('The minutes between two drainings', 1, 1440) drainEveryMin?: number | null;
  /** The network that it feeds, by a name that its sets share. */
  @Optional() @IsText('The network', textLimits.short) network?: string | null;
  @Optional() @oneOf('Its turn', networkTurns) turn?: DataPlate['turn'] | null;
  @Optional() @oneOf('The level', levelMarks) levelRead?: DataPlate['levelRead'] | null;
  @Optional() @IsText('How the level is seen', textLimits.short) levelSeenBy?: string | null;
  @Optional() @IsText('Where the oil is drained', textLimits.short) oilDrainAt?: string | null;
  @Optional() @IsText('Where the oil is filled', textLimits.short) oilFillAt?: string | null;
  @Optional() @IsText('The way of the cartridge', textLimits.short) cartridgeWay?: string | null;

  @Optional() @oneOf('What ends a fill', stopKinds) stopsBy?: DataPlate['stopsBy'] | null;
  @Optional() @IsFigure('The holding pressure', 1, 600) maintainingValveBar?: number | null;
  @Optional() @IsFigure('The water that the cartridge holds', 0.1, 100_000) moistureCapacityG?: number | null;

  @Optional() @IsFigure('The supply voltage', 0, 1000) supplyV?: number | null;
  @Optional() @IsFigure('The fuse or breaker', 0, 2000) breakerA?: number | null;
  @Optional() @IsText('The cable', textLimits.short) cable?: string | null;
  @Optional() @IsText('The torques', textLimits.note) torques?: string | null;
  @Optional() @IsText('The sealing of joints', textLimits.note) jointSealing?: string | null;
  @Optional() @AreNames('Valves to shut') moreValves?: string[] | null;
  @Optional() @AreNames('Vessels to empty') moreVessels?: string[] | null;
  @Optional() @IsText('The modifications', textLimits.note) modifications?: string | null;

  @Optional() @IsBoolean({ message: 'An hour meter is there or not.' }) hasHourMeter?: boolean | null;
  @Optional() @IsFigure('Declared duty', 0, 168) declaredHoursPerWeek?: number | null;
  @Optional()
  @IsArray({ message: 'Closed weekdays are a list, 1 Monday to 7 Sunday.' })
  @ArrayMaxSize(6, { message: 'On one day of the week at least it runs.' })
  @ArrayUnique({ message: 'Name each weekday once.' })
  @IsInt({ each: true, message: 'A weekday is a number, 1 Monday to 7 Sunday.' })
  @Min(1, { each: true, message: 'A weekday is a number, 1 Monday to 7 Sunday.' })
  @Max(7, { each: true, message: 'A weekday is a number, 1 Monday to 7 Sunday.' })
  closedWeekdays?: number[] | null;
  @Optional()
  @IsArray({ message: 'Closures are a list.' })
  @ArrayMaxSize(30, { message: 'No more than 30 closures.' })
  @IsClosure()
  closures?: string[] | null;

  @Optional() @oneOf('Dust', dustLevels) dust?: DataPlate['dust'] | null;
  @Optional() @oneOf('Humidity', humidities) humidity?: DataPlate['humidity'] | null;
  @Optional() @oneOf('The use of the air', airUses) airUse?: DataPlate['airUse'] | null;
}

/** A compressor taken into the register. */
export class RegisterCompressor extends PlateDetails {
  @IsId() id: string;
  @IsId() siteId: string;
  @IsText('The tag', textLimits.tag) tag: string;
  @oneOf('The family', families) family: Family;
  @IsLocalDate() commissionedOn: string;
  @Optional() @oneOf('The history', historyKinds) history?: DataPlate['history'];
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() by?: string;
}

/** A dated change of data plate or site: only the fields that change; null makes one unknown again. */
export class ChangePlate extends PlateDetails {
  @IsId() id: string;
  @IsInstant() changedAt: string;
  @Omittable() @IsId() siteId?: string;
  @Omittable() @IsText('The tag', textLimits.tag) tag?: string;
  @Omittable() @IsLocalDate() commissionedOn?: string;
  @Omittable() @oneOf('The history', historyKinds) history?: DataPlate['history'];
  /** The day it went out of service; null takes it back. */
  @Optional() @IsLocalDate() retiredOn?: string | null;
  @Optional() @IsText('The note', textLimits.note) note?: string;
  @Optional() @IsId() by?: string;
}
