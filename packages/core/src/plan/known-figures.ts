import { levelReadOn } from '../checks/index.js';
import { drainsOf, type DataPlate } from '../machine/index.js';
import type { FormatQuantity } from './format-figures.js';

/** Checks that stand for a task: what is known for it stands at them, too. */
const TASK_OF_CHECK: Readonly<Record<string, string>> = {
  'oil-look': 'oil-level',
  'oil-sample': 'oil-level',
  'cartridge-weight': 'cartridge-replace',
};

/** What is known of this machine for a check; like that for a task. */
export function knownForCheck(check: string, plate: DataPlate, format: FormatQuantity): readonly string[] {
  const drained = plate.family === 'high-pressure' ? 'separator-drain' : 'drain-receiver';
  return knownFigures(check === 'auto-drain' ? drained : (TASK_OF_CHECK[check] ?? check), plate, format);
}

const DRAIN_TASKS = new Set(['separator-drain', 'tower-drain', 'drain-receiver']);
const OIL_TASKS = new Set(['oil-change', 'oil-level', 'first-service', 'oil-filter']);

/**
 * What is known of this machine for a task, at hand where it is done: charge and grade of the oil, where it is drained
 * and filled, how its level is read, which way its cartridge goes.
 */
export function knownFigures(task: string, plate: DataPlate, format: FormatQuantity): readonly string[] {
  if (task === 'cartridge-replace') return plate.cartridgeWay ? [`Cartridge: ${plate.cartridgeWay}`] : [];
  if (DRAIN_TASKS.has(task)) return drainLines(task, plate);
  if (!OIL_TASKS.has(task)) return [];
  const { oilChargeL, oilGrade, oilDrainAt, oilFillAt, levelRead, levelSeenBy } = plate;
  const charge = [oilChargeL === undefined ? '' : format(oilChargeL, 'volume'), oilGrade ?? ''].filter(
    Boolean,
  );
  return [
    charge.length === 0 ? '' : `Oil: ${charge.join(' of ')}`,
    oilDrainAt ? `Drain: ${oilDrainAt}` : '',
    oilFillAt ? `Fill: ${oilFillAt}` : '',
    levelRead || levelSeenBy
      ? `Level: ${levelReadOn(plate)}${levelSeenBy ? `, seen by ${levelSeenBy}` : ''}`
      : '',
  ].filter(Boolean);
}

/** Where a task drains, who opens it and how often. */
function drainLines(task: string, plate: DataPlate): readonly string[] {
  const all = drainsOf(plate);
  const isTower = task === 'tower-drain';
  const meant = all.filter(({ station }) =>
    plate.family === 'high-pressure' ? (station === 'tower') === isTower : true,
  );
  const [first] = meant;
  if (!first) return [];
  const every = first.everyMin >= 60 ? `${first.everyMin / 60} h` : `${first.everyMin} min`;
  const by = first.by === null ? '' : first.by === 'hand' ? ', by hand' : ', by themselves';
  return [
    `Drains: ${meant.map(({ name }) => name).join(', ')}`,
    `Every ${every} of running${by}${first.isUsual ? ' (usual)' : ''}`,
    first.rests === null ? '' : `At rest they stand ${first.rests}`,
  ].filter(Boolean);
}

/** A line of a kit as it is packed on this machine: “9 L of compressor oil”, and not one charge of it. */
export function kitItemText(part: string, plate: DataPlate, format: FormatQuantity): string {
  const { oilChargeL, oilGrade } = plate;
  // An engine’s oil is another, and nobody entered how much of it goes in.
  if (/engine/i.test(part)) return part;
  const graded = oilGrade === undefined ? part : part.replace(/ of its grade/i, ` ${oilGrade}`);
  if (oilChargeL === undefined || !/, one charge$/i.test(graded)) return graded;
  return `${format(oilChargeL, 'volume')} of ${graded.replace(/, one charge$/i, '')}`;
}
