import type { BestCascade, CascadeJob, WaterYear, WaterYearInput } from '@entretien/core/air';
import type { Result } from '@entretien/core/basics';

/** What the worker is asked. */
export type WorkerRequest =
  | { readonly kind: 'year'; readonly input: WaterYearInput }
  | { readonly kind: 'cascade'; readonly job: CascadeJob };

export type WorkerResult =
  | { readonly kind: 'year'; readonly outcome: Result<WaterYear> }
  | { readonly kind: 'cascade'; readonly best: BestCascade };

/** What it tells. */
export type WorkerAnswer =
  | { readonly kind: 'progress'; readonly share: number }
  | { readonly kind: 'done'; readonly result: WorkerResult };
