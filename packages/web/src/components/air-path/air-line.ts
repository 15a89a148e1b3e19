import type { Station } from '@entretien/core/machine';
import { openWidth } from './glyphs.js';
import type { PathLayout } from './path-layout.js';

/** The line that the air takes at a height, broken where a drawing carries it on itself. */
export function airLine(
  path: readonly Pick<Station, 'code'>[],
  { spacing, scale }: Pick<PathLayout, 'spacing' | 'scale'>,
  y: number,
): string {
  const middle = (index: number) => spacing * (index + 0.5);
  return path
    .map(({ code }, index) => {
      const from = index === 0 ? 2 : middle(index - 1) + openWidth(path[index - 1]!.code).right * scale;
      return `M${from} ${y} H${middle(index) - openWidth(code).left * scale}`;
    })
    .join(' ');
}
