import type { Sharp } from 'sharp';
import { ProblemError } from './problem.js';

const MOST_PIXELS = 80_000_000;
const TAKEN = new Set(['jpeg', 'png', 'webp']);

interface Drawing {
  /** How it is drawn again. */
  readonly draw: (picture: Sharp) => Sharp;
  /** What is said of something that is no picture. */
  readonly refuse: () => ProblemError;
}

/** A picture out of what was sent, made anew from its pixels: its content says what it is, whatever it is called. */
export async function pixelsOf(sent: Buffer, { draw, refuse }: Drawing) {
  try {
    // Its library is large, and most starts of the server see no picture.
    const { default: sharp } = await import('sharp');
    const picture = sharp(sent, { failOn: 'error', limitInputPixels: MOST_PIXELS });
    const { format } = await picture.metadata();
    if (!TAKEN.has(format ?? '')) throw refuse();
    return await draw(picture.rotate()).toBuffer({ resolveWithObject: true });
  } catch (error) {
    if (error instanceof ProblemError) throw error;
    throw refuse();
  }
}
