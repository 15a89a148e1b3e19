import type { DataPlate } from '../machine/index.js';
import { defaultSchools } from './defaults/schools.js';

/** One way of doing it. */
export interface SchoolOption {
  readonly code: string;
  readonly name: string;
  /** What its followers say, in one sentence. */
  readonly sentence: string;
}

/** A question that practice answers in more than one way. */
export interface School {
  readonly code: string;
  /** What is decided. */
  readonly name: string;
  readonly options: readonly SchoolOption[];
  /** For which machines the question arises. */
  readonly applies: (plate: DataPlate) => boolean;
  /** The way taken where nobody chose. */
  readonly usual: (plate: DataPlate) => string;
  /** Why that one. */
  readonly why: string;
}

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
