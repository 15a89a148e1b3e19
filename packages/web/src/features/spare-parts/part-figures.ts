import { formatNumber } from '@entretien/core/basics';
import type { PartFigures } from '@entretien/core/parts';
import { readNumber } from '@entretien/core/quantities';

/** The figures of a part as they are asked for. */
export const figureFields: readonly {
  readonly code: keyof PartFigures;
  readonly label: string;
  readonly most: number;
}[] = [
  { code: 'ratedFlowLpm', label: 'Rated flow, L/min', most: 1_000_000 },
  { code: 'micron', label: 'Fineness, µm', most: 1000 },
  { code: 'thread', label: 'Thread', most: 0 },
  { code: 'dustG', label: 'Dust capacity, g', most: 100_000 },
  { code: 'maxTempC', label: 'Temperature up to, °C', most: 500 },
  { code: 'maxBar', label: 'Pressure up to, bar', most: 1000 },
  { code: 'lengthMm', label: 'Length, mm', most: 10_000 },
  { code: 'widthMm', label: 'Width, mm', most: 10_000 },
];

/** What the texts mean; what is left empty is unknown. */
export function readFigures(texts: Readonly<Record<string, string>>): {
  readonly figures: PartFigures;
  readonly problems: Readonly<Record<string, string>>;
} {
  const figures: Record<string, number | string> = {};
  const problems: Record<string, string> = {};
  for (const { code, most } of figureFields) {
    const text = texts[code]?.trim() ?? '';
    if (text === '') continue;
    if (code === 'thread') {
      figures[code] = text;
      continue;
    }
    const read = readNumber(text);
    if (read.ok && read.value > 0 && read.value <= most) figures[code] = read.value;
    else problems[code] = `A number above 0 and up to ${formatNumber(most)}.`;
  }
  return { figures, problems };
}
