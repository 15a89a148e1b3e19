import { stepKind } from './step-kind.js';

/** The unit is done with and signed for. */
export interface SignBody {
  readonly kind: 'sign';
  readonly name: string;
  /** Strokes of the signature in a box 300 by 100: `x,y x,y;x,y …` */
  readonly strokes?: string | undefined;
  /** Left out of service: who was told. */
  readonly told?: string | undefined;
}

const sign = stepKind<SignBody>({
  kind: 'sign',
  fields: { name: 'text', strokes: 'text?', told: 'text?' },
  text: ({ name, told }) =>
    `Signed for by ${name}${told === undefined ? '' : `, left out of service, told to ${told}`}`,
});

/** The unit is left for another day. */
export interface LeaveBody {
  readonly kind: 'leave';
  readonly reason: string;
}

const leave = stepKind<LeaveBody>({
  kind: 'leave',
  fields: { reason: 'text' },
  text: ({ reason }) => `Left for another day: ${reason}`,
});

export const leavingSteps = [sign, leave] as const;
