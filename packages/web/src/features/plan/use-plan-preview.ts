import type { PlanPreviewView } from '@entretien/contracts';
import { planParts, type ServicePlan } from '@entretien/core/plan';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { postJson } from '../../data/api.js';

/** Typing goes on: the plan is looked at when it rests so long. */
const REST_MS = 200;

/** What a plan would mean for a unit: asked again whenever it has changed and rested. */
export function usePlanPreview(compressorId: string, plan: ServicePlan) {
  const [rested, setRested] = useState(plan);
  useEffect(() => {
    const timer = setTimeout(() => setRested(plan), REST_MS);
    return () => clearTimeout(timer);
  }, [plan]);
  return useQuery({
    queryKey: ['unit', compressorId, 'plan-preview', rested],
    queryFn: () => postJson<PlanPreviewView>(`/compressors/${compressorId}/plan-preview`, planParts(rested)),
    placeholderData: keepPreviousData,
    retry: false,
  });
}
