import { isBreathed, isOilLubricated, stagesOf, type DataPlate } from './data-plate.js';

/** A place on the machine where tasks are done and measurements taken. */
export interface Station {
  readonly code: string;
  readonly name: string;
}

/** A machine as the technician walks it: along the air, then what stands beside the path. */
export interface AirPathStations {
  readonly path: readonly Station[];
  readonly beside: readonly Station[];
}

function station(code: string, name: string): Station {
  return { code, name };
}

/** The stations of a machine in the order the air goes, from its data plate. */
export function stationsOf(plate: DataPlate): AirPathStations {
  switch (plate.family) {
    case 'piston':
    case 'piston-oil-free':
      return pistonStations(plate);
    case 'screw':
      return screwStations(plate);
    case 'high-pressure':
      return highPressureStations(plate);
  }
}

/** The codes of all stations of a machine, on the path and beside it. */
export function stationCodes(plate: DataPlate): ReadonlySet<string> {
  const { path, beside } = stationsOf(plate);
  return new Set([...path, ...beside].map(({ code }) => code));
}

/** The name of a station on this machine; its code in words when this machine has no such station. */
export function stationName(plate: DataPlate, code: string): string {
  const { path, beside } = stationsOf(plate);
  return [...path, ...beside].find((place) => place.code === code)?.name ?? code.replaceAll('-', ' ');
}

function stage(number: number): Station {
  return station(`stage-${number}`, `Stage ${number}`);
}

const intake = station('intake', 'Intake filter');
const receiver = station('receiver', 'Receiver');
const outlet = station('outlet', 'Outlet');
const cooling = station('cooling', 'Cooling');

function driveAndMotor(plate: DataPlate): Station[] {
  const drive = station('drive', plate.drive === 'direct' ? 'Coupling' : 'Belt');
  const engine = plate.motor === 'petrol' || plate.motor === 'diesel';
  return [drive, station('motor', engine ? 'Engine' : 'Motor')];
}

/** Where somebody breathes the air, whatever the family. */
function coMonitor(plate: DataPlate): Station[] {
  return isBreathed(plate) ? [station('co-monitor', 'CO monitor')] : [];
}

function pistonStations(plate: DataPlate): AirPathStations {
  const twoStage = stagesOf(plate) === 2;
  return {
    path: [
      intake,
      stage(1),
      ...(twoStage ? [station('intercooler-1', 'Intercooler'), stage(2)] : []),
      station('aftercooler', 'Aftercooler'),
      station('separator', 'Moisture separator'),
      station('check-valve', 'Unloader and check valve'),
      receiver,
      outlet,
    ],
    beside: [
      ...(isOilLubricated(plate) ? [station('crankcase', 'Crankcase oil')] : []),
      ...driveAndMotor(plate),
      cooling,
      ...coMonitor(plate),
    ],
  };
}

function screwStations(plate: DataPlate): AirPathStations {
  return {
    path: [
      station('pre-filter', 'Pre-filter'),
      intake,
      station('intake-valve', 'Intake valve'),
      station('airend', 'Airend'),
      station('separator', 'Separator vessel'),
      station('minimum-pressure-valve', 'Minimum-pressure valve'),
      station('aftercooler', 'Aftercooler'),
      station('water-separator', 'Water separator'),
      ...(plate.hasDryer ? [station('dryer', 'Dryer')] : []),
      receiver,
      outlet,
    ],
    beside: [
      station('oil', 'Oil circuit'),
      station('oil-filter', 'Oil filter'),
      station('thermostatic-valve', 'Thermostatic valve'),
      ...driveAndMotor(plate),
      cooling,
      ...coMonitor(plate),
    ],
  };
}

function highPressureStations(plate: DataPlate): AirPathStations {
  const stages = stagesOf(plate);
  const compression = Array.from({ length: stages }, (_, index) => index + 1).flatMap((number) => [
    stage(number),
    ...(number < stages ? [station(`intercooler-${number}`, `Cooler ${number}`)] : []),
    ...(number >= 2 && number < stages ? [station(`separator-${number}`, `Separator ${number}`)] : []),
  ]);
  return {
    path: [
      intake,
      ...compression,
      station('final-separator', 'Final separator'),
      station('tower', 'Purifier tower'),
      station('pressure-maintaining-valve', 'Pressure-maintaining valve'),
      station('check-valve', 'Check valve'),
      station('fill', 'Fill hose and valve'),
    ],
    beside: [
      station('crankcase', 'Crankcase oil'),
      ...driveAndMotor(plate),
      cooling,
      station('relief', 'Final relief and auto-stop'),
      ...coMonitor(plate),
      station('collector', 'Condensate collector'),
    ],
  };
}
