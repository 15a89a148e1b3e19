import type { TypedCylinder, TypedVessel } from '@entretien/core/bench';

/** Rows as they stand in the address: parts of a row by commas would meet decimal commas, so by stars. */
const [BETWEEN_ROWS, BETWEEN_PARTS] = ['~', '*'];
const MOST_ROWS = 60;

export function readVessels(text: string | undefined): TypedVessel[] {
  return rows(text).map(([volumeL = '', bar = '']) => ({ volumeL, bar }));
}

export function writeVessels(vessels: readonly TypedVessel[]): string {
  return vessels.map(({ volumeL, bar }) => write([volumeL, bar])).join(BETWEEN_ROWS);
}

export function readCylinders(text: string | undefined): TypedCylinder[] {
  return rows(text).map(([volumeL = '', bar = '', ratedBar = '', testedUntil = '']) => ({
    volumeL,
    bar,
    ratedBar,
    testedUntil,
  }));
}

export function writeCylinders(cylinders: readonly TypedCylinder[]): string {
  return cylinders
    .map(({ volumeL, bar, ratedBar, testedUntil }) => write([volumeL, bar, ratedBar, testedUntil]))
    .join(BETWEEN_ROWS);
}

function rows(text: string | undefined): string[][] {
  if (text === undefined || text === '') return [];
  return text
    .split(BETWEEN_ROWS)
    .slice(0, MOST_ROWS)
    .map((row) => row.split(BETWEEN_PARTS));
}

function write(parts: readonly string[]): string {
  return parts.map((part) => part.replaceAll(/[~*]/g, '')).join(BETWEEN_PARTS);
}
