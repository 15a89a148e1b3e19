import type { DataPlate } from '../machine/index.js';
import { defaultSchools } from './defaults/schools.js';
import type { School } from './school.js';

/** A school as it stands for one machine. */
export interface SchoolOfUnit extends Pick<School, 'code' | 'name' | 'options' | 'why'> {
  readonly usual: string;
  readonly chosen: string;
}

/** The schools that a machine's plan has to choose from, with what is chosen. */
export function schoolsFor(
  plate: DataPlate,
  choices: Readonly<Record<string, string>> = {},
): readonly SchoolOfUnit[] {
  return defaultSchools
    .filter((school) => school.applies(plate))
    .map((school) => ({
      code: school.code,
      name: school.name,
      options: school.options,
      why: school.why,
      usual: school.usual(plate),
      chosen: chosenOf(school, plate, choices),
    }));
}

/** The way chosen in a school; an unknown choice is no choice. */
export function chosenOf(
  school: School,
  plate: DataPlate,
  choices: Readonly<Record<string, string>>,
): string {
  const chosen = choices[school.code];
  return school.options.some(({ code }) => code === chosen) ? chosen! : school.usual(plate);
}
