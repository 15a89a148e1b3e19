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
  readonly byUnit: Readonly<Record<string, PlanDraft>>;
  keep(unitId: string, draft: PlanDraft): void;
  drop(unitId: string): void;
}

export const usePlanDrafts = create<PlanDrafts>()(
  persist(
    (set) => ({
      byUnit: {},
      keep: (unitId, draft) => set(({ byUnit }) => ({ byUnit: { ...byUnit, [unitId]: draft } })),
      drop: (unitId) =>
        set(({ byUnit }) => {
          const { [unitId]: _dropped, ...rest } = byUnit;
          return { byUnit: rest };
        }),
    }),
    { name: 'entretien-plan-drafts' },
  ),
);
