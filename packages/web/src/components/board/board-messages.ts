import type { Board, Button } from '@entretien/core/simulator';
import type { DataPlate } from '@entretien/core/machine';

/** What the page asks of the machine that runs beside it. */
export type BoardRequest =
  | { readonly kind: 'begin'; readonly plate: DataPlate; readonly faults: Readonly<Record<string, number>> }
  | { readonly kind: 'turn'; readonly code: string; readonly share: number }
  | { readonly kind: 'press'; readonly button: Button }
  | { readonly kind: 'fault'; readonly code: string; readonly size: number }
  /** Seconds of the machine in one of the clock; 0 halts it. */
  | { readonly kind: 'pace'; readonly pace: number };

export interface BoardFault {
  readonly code: string;
  readonly name: string;
}

/** What it answers: the board as it stands; what can be wrong with it, once, at the beginning. */
export interface BoardAnswer {
  readonly board: Board;
  readonly faults?: readonly BoardFault[];
}
