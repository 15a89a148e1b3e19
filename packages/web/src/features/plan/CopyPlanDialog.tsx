import { Box, Checkbox, FormControlLabel, Typography } from '@mui/material';
import type { CompressorView, Page, PlanPreviewView, PlanView } from '@entretien/contracts';
import { fitPlan, type ServicePlan } from '@entretien/core/plan';
import { useQueries, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { v7 as newId } from 'uuid';
import { getJson, postJson, putJson, sentenceOf } from '../../data/api.js';
import { refresh } from '../../data/queries.js';
import { FormDialog } from '../../components/FormDialog.js';
import { LoadingSkeleton } from '../../components/States.js';
import { Differences } from './Differences.js';

interface CopyPlanProps {
  readonly unit: CompressorView;
  readonly plan: ServicePlan;
  readonly onClose: () => void;
}

/** Copies a plan to sister machines, with what it changes for each of them. */
export function CopyPlanDialog({ unit, plan, onClose }: CopyPlanProps) {
  const client = useQueryClient();
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const [ids] = useState(() => new Map<string, string>());
  const [problem, setProblem] = useState<string | null>(null);
  const [isSending, setIsSending] = useState(false);
  const sisters = useQuery({
    queryKey: ['sisters', unit.family],
    queryFn: () => getJson<Page<CompressorView>>('/compressors?limit=200').then(({ items }) => items),
  });
  const others = (sisters.data ?? []).filter(({ id, family }) => id !== unit.id && family === unit.family);
  const previews = useQueries({
    queries: others.map((other) => ({
      queryKey: ['unit', other.id, 'plan-preview', plan],
      queryFn: () =>
        postJson<PlanPreviewView>(`/compressors/${other.id}/plan-preview`, fitPlan(plan, other).plan),
      retry: false,
    })),
  });
  const idOf = (compressorId: string) => {
    if (!ids.has(compressorId)) ids.set(compressorId, newId());
    return ids.get(compressorId)!;
  };
  const send = async () => {
    setIsSending(true);
    try {
      for (const other of others.filter(({ id }) => chosen.includes(id))) {
        const theirs = await getJson<PlanView>(`/compressors/${other.id}/plan`);
        const body = { id: idOf(other.id), ...fitPlan(plan, other).plan, note: `Copied from ${unit.tag}.` };
        await putJson(`/compressors/${other.id}/plan`, body, theirs.latest);
      }
      await refresh(client);
      onClose();
    } catch (error) {
      setProblem(sentenceOf(error));
    } finally {
      setIsSending(false);
    }
  };
  return (
    <FormDialog
      title={`Copy the plan of ${unit.tag}`}
      submit={chosen.length === 1 ? 'Copy to 1 unit' : `Copy to ${chosen.length} units`}
      canSubmit={chosen.length > 0}
      isSending={isSending}
      problem={problem}
      onClose={onClose}
      onSubmit={() => void send()}
      wide
    >
      {sisters.isPending && <LoadingSkeleton lines={4} />}
      {sisters.isSuccess && others.length === 0 && (
        <Typography>There is no other unit of this family in service.</Typography>
      )}
      {others.map((other, index) => {
        const preview = previews[index]?.data;
        const { leftOut } = fitPlan(plan, other);
        return (
          <Box key={other.id} sx={{ borderBottom: 1, borderColor: 'divider', pb: 1 }}>
            <FormControlLabel
              control={
                <Checkbox
                  checked={chosen.includes(other.id)}
                  disabled={preview?.differences.length === 0}
                  onChange={(event) =>
                    setChosen(
                      event.target.checked ? [...chosen, other.id] : chosen.filter((id) => id !== other.id),
                    )
                  }
                />
              }
              label={
                <b>
                  {other.tag} {other.name}
                </b>
              }
            />
            {leftOut.length > 0 && (
              <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                Left out, having no place there: {leftOut.join(', ')}.
              </Typography>
            )}
            {preview && (
              <Differences differences={preview.differences} none="It is the same there already." />
            )}
          </Box>
        );
      })}
    </FormDialog>
  );
}
