import type { DataPlate } from '../machine/index.js';
import { defaultPractices } from './defaults/practices.js';
import type { PracticeChoice } from './practice-choice.js';

/** A practice choice as it stands for one machine. */
export interface PracticeOfCompressor extends Pick<PracticeChoice, 'code' | 'name' | 'options' | 'why'> {
  readonly usual: string;
  readonly chosen: string;
}

/** The practice choices that a machine's plan has to choose from, with what is chosen. */
export function practicesFor(
  plate: DataPlate,
  choices: Readonly<Record<string, string>> = {},
): readonly PracticeOfCompressor[] {
  return defaultPractices
    .filter((practice) => practice.applies(plate))
    .map((practice) => ({
      code: practice.code,
      name: practice.name,
      options: practice.options,
      why: practice.why,
      usual: practice.usual(plate),
      chosen: chosenOf(practice, plate, choices),
    }));
}

/** The option chosen in a practice choice; an unknown choice is no choice. */
export function chosenOf(
  practice: PracticeChoice,
  plate: DataPlate,
  choices: Readonly<Record<string, string>>,
): string {
  const chosen = choices[practice.code];
  return practice.options.some(({ code }) => code === chosen) ? chosen! : practice.usual(plate);
}
