import type { DataPlate } from '../machine/index.js';
import type { CheckDefinition, FieldDefinition } from './check.js';
import { driveChecks } from './library/drive.js';
import { fillingChecks } from './library/filling.js';
import { feedChecks } from './library/feeds.js';
import { flowChecks } from './library/flow.js';
import { heatChecks } from './library/heat.js';
import { laboratoryChecks } from './library/laboratory.js';
import { lookChecks } from './library/looks.js';
import { oilChecks } from './library/oil.js';
import { pointOfUseChecks } from './library/points-of-use.js';
import { purityChecks } from './library/purity.js';
import { stageCheck } from './library/stages.js';
import { settingChecks } from './library/settings.js';
import { valvePointChecks } from './library/valve-points.js';
import { stagesOf } from '../machine/index.js';

/** Every check there is. */
export const checkLibrary: readonly CheckDefinition[] = [
  ...oilChecks,
  ...driveChecks,
  ...settingChecks,
  ...flowChecks,
  stageCheck,
  ...heatChecks,
  ...purityChecks,
  ...fillingChecks,
  ...valvePointChecks,
  ...feedChecks,
  ...pointOfUseChecks,
  ...lookChecks,
  ...laboratoryChecks,
];

const byCode = new Map(checkLibrary.map((check) => [check.code, check]));

export function checkByCode(code: string): CheckDefinition | undefined {
  return byCode.get(code);
}

/** The checks that a machine can have, by its data plate. */
export function checksFor(plate: DataPlate): CheckDefinition[] {
  return checkLibrary.filter((check) => check.applies(plate));
}

/** How a check is done on a machine. */
export function howOf({ how }: CheckDefinition, plate: DataPlate | undefined): string {
  return typeof how === 'string' ? how : how(plate);
}

/** The hazard of a check on a machine, where there is one. */
export function cautionOf({ caution }: CheckDefinition, plate: DataPlate | undefined): string | undefined {
  return typeof caution === 'function' ? caution(plate) : caution;
}

/** The fields that a check asks for on a machine; all of them where the machine is not known. */
export function fieldsOf(check: CheckDefinition, plate: DataPlate | undefined): readonly FieldDefinition[] {
  if (!plate) return check.fields;
  return check.fields.filter(
    ({ stage, onlyOn }) => (stage === undefined || stage <= stagesOf(plate)) && (onlyOn?.(plate) ?? true),
  );
}
