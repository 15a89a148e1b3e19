import { err, formatsInUse, ok, type Result } from '../basics/index.js';

const PLAIN = /^[+-]?(\d+\.?\d*|\.\d+)$/;

/**
 * Reads a figure as people write it: `1234.5`, `1 234,5`, `1'234.5`, `1,234.5`, `0,34`.
 *
 * @returns the number; or a problem: `no-figure` for nothing, `not-a-number`, `ambiguous-comma` for
 * `1,234` and `ambiguous-point` for `1.234` (one thousand odd, or one and a bit?), which are asked back rather than
 * guessed.
 */
export function readNumber(text: string): Result<number> {
  const compact = text.trim().replace(/(?<=\d)[\s\u00a0\u202f'’](?=\d{3}(?!\d))/g, '');
  if (compact === '') return err('no-figure', 'Type a figure.');
  const commas = compact.split(',').length - 1;
  let figure = compact;
  if (commas > 0 && compact.includes('.')) {
    if (!/^[+-]?\d{1,3}(,\d{3})+\.\d*$/.test(compact)) return notANumber(text);
    figure = compact.replaceAll(',', '');
  } else if (commas > 1) {
    if (!/^[+-]?\d{1,3}(,\d{3})+$/.test(compact)) return notANumber(text);
    figure = compact.replaceAll(',', '');
  } else if (commas === 1) {
    if (/^[+-]?[1-9]\d{0,2},\d{3}$/.test(compact)) {
      const whole = compact.replace(',', '');
      return err(
        'ambiguous-comma',
        `Is that ${whole}, or ${compact.replace(',', '.')}? Write it without the comma.`,
      );
    }
    figure = compact.replace(',', '.');
  } else if (/^[+-]?[1-9]\d{0,2}\.\d{3}$/.test(compact)) {
    // A point parts thousands for half of the world.
    return err(
      'ambiguous-point',
      `Is that ${compact.replace('.', '')}, or ${Number(compact)}? Write ${compact.replace('.', '')}, or ${compact}0.`,
    );
  }
  if (!PLAIN.test(figure)) return notANumber(text);
  const value = Number(figure);
  return Number.isFinite(value) ? ok(value) : notANumber(text);
}

function notANumber(text: string): Result<never> {
  const shown = text.trim().slice(0, 24);
  return err('not-a-number', `“${shown}” is not a figure. Type digits, like 145 or 9.5.`);
}

/**
 * A shown figure as it can be typed again and is understood: without thousands, and never with three decimals that
 * could be taken for them.
 *
 * @example typedFigure('1,234.5') // → '1234.5'
 * @example typedFigure('1.013') // → '1.0130'
 */
export function typedFigure(shown: string): string {
  const plain =
    formatsInUse().decimal === 'point' ? shown.replaceAll(',', '') : shown.replaceAll('\u202f', '');
  return /^-?[1-9]\d{0,2}[.,]\d{3}$/.test(plain) ? `${plain}0` : plain;
}
