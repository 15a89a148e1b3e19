import { stepKind } from './step-kind.js';

/** The unit is done with and signed for. */
export interface SignBody {
  readonly kind: 'sign';
  readonly name: string;
  /** Strokes of the signature in a box 300 by 100: `x,y x,y;x,y …` */
  readonly strokes?: string | undefined;
  /** Left out of service: who was told. */
  readonly informed?: string | undefined;
  /** Whoever took it over again, and their signature. */
  readonly customer?: string | undefined;
  readonly customerStrokes?: string | undefined;
}

const sign = stepKind<SignBody>({
  kind: 'sign',
  isSigned: true,
  fields: { name: 'text', strokes: 'text?', informed: 'text?', customer: 'text?', customerStrokes: 'text?' },
  text: ({ name, informed }) =>
    `Signed for by ${name}${informed === undefined ? '' : `, left out of service, told to ${informed}`}`,
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
