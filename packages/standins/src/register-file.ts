import { readFileSync } from 'node:fs';
import { readRegisterMap, type RegisterMap } from '@entretien/core/gateway';
import papaparse from 'papaparse';

/** Reads a table of registers out of a list of values; an error says what is wrong with it. */
export function readRegisterFile(file: string): RegisterMap {
  const { data } = papaparse.parse<Record<string, unknown>>(readFileSync(file, 'utf8'), {
    header: true,
    skipEmptyLines: true,
  });
  const read = readRegisterMap(data);
  if (!read.ok) throw new Error(`${file}: ${read.problem.sentence}`);
  return read.value;
}
