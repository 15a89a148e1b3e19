import { LARGEST_LOGO_MB } from '@entretien/contracts';
import { impossible, ProblemError } from '../common/problem.js';
import { pixelsOf } from '../common/pixels-of.js';

/** Two centimetres high on paper, sharp in print. */
const MOST_PX = { width: 900, height: 300 } as const;

export interface Logo {
  /** A PNG, as text. */
  readonly base64: string;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** A picture as it stands on papers: read and written again, so that nothing else comes along with it. */
export async function logoFrom(sent: Buffer): Promise<Logo> {
  if (sent.length > LARGEST_LOGO_MB * 1_000_000)
    throw new ProblemError(
      413,
      'logo-too-large',
      'That is too much at once.',
      `A logo can be ${LARGEST_LOGO_MB} MB large at most.`,
    );
  const { data, info } = await pixelsOf(sent, {
    draw: (picture) =>
      picture.resize(MOST_PX.width, MOST_PX.height, { fit: 'inside', withoutEnlargement: true }).png(),
    refuse: () =>
      impossible({
        code: 'not-a-logo',
        sentence: 'That is no picture that can be read: send a PNG, JPEG or WebP.',
      }),
  });
  return { base64: data.toString('base64'), widthPx: info.width, heightPx: info.height };
}
