import { inNamesOfToday } from '@entretien/contracts/light';
import type { ServicePlan } from '@entretien/core/plan';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';

/** A plan being changed: kept on the device, so that a reload or a call away loses nothing. */
export interface PlanDraft {
  /** The version that it was begun on. */
  readonly basedOn: number;
  readonly plan: ServicePlan;
  /** Of the request that will save it. */
  readonly saveId: string;
}

interface PlanDrafts {
  readonly byCompressor: Readonly<Record<string, PlanDraft>>;
  keep(compressorId: string, draft: PlanDraft): void;
  drop(compressorId: string): void;
}

export const usePlanDrafts = create<PlanDrafts>()(
  persist(
    (set) => ({
      byCompressor: {},
      keep: (compressorId, draft) =>
        set(({ byCompressor }) => ({ byCompressor: { ...byCompressor, [compressorId]: draft } })),
      drop: (compressorId) =>
        set(({ byCompressor }) => {
          const { [compressorId]: _dropped, ...rest } = byCompressor;
          return { byCompressor: rest };
        }),
    }),
    {
      name: 'entretien-plan-drafts',
      version: 1,
      // Drafts of release 0.3 and before: other names, the same plans.
      migrate: (kept) => ({
        byCompressor: inNamesOfToday((kept as { byUnit?: object }).byUnit ?? {}),
      }),
    },
  ),
);
