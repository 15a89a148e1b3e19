import { Alert, Box, Button, Link as MuiLink, Typography } from '@mui/material';
import type { CompressorView, MeasurementView, RecordMeasurement } from '@entretien/contracts';
import { checkByCode, type CheckValues } from '@entretien/core/checks';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { postJson, sentenceOf } from '../../data/api.js';
import { refresh } from '../../data/queries.js';
import { useAttempt } from './use-attempt.js';

/** A measurement as the bench has it. */
export interface Savable {
  readonly check: string;
  readonly values: CheckValues;
  readonly note?: string;
}

interface SaveProps {
  readonly unit: CompressorView | undefined;
  /** What is saved; null while there is nothing whole. */
  readonly measurements: readonly Savable[] | null;
  /** Why it cannot be saved to this unit, where it cannot. */
  readonly refusal?: string | undefined;
}

/** Saves what the bench found as measurements of the unit, once. */
export function SaveToCompressor({ unit, measurements, refusal }: SaveProps) {
  const client = useQueryClient();
  const [saved, setSaved] = useState<string | null>(null);
  const attempt = useAttempt();
  const [isSending, setSending] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  if (!unit) {
    return (
      <Typography variant="caption" sx={{ color: 'text.secondary' }}>
        Choose a unit to save the result to it.
      </Typography>
    );
  }
  const reason = refusal ?? unfit(unit, measurements);
  const key = JSON.stringify([unit.id, measurements]);
  const save = async () => {
    if (!measurements) return;
    const { at, ids } = attempt(key, measurements.length);
    setSending(true);
    setProblem(null);
    try {
      for (const [index, measurement] of measurements.entries()) {
        const body: RecordMeasurement = { id: ids[index]!, takenAt: at, ...measurement };
        await postJson<MeasurementView>(`/compressors/${unit.id}/measurements`, body);
      }
      await refresh(client);
      setSaved(key);
    } catch (error) {
      setProblem(sentenceOf(error));
    } finally {
      setSending(false);
    }
  };
  return (
    <Box>
      <Button
        variant="contained"
        onClick={() => void save()}
        disabled={!measurements || reason !== null || isSending || saved === key}
        sx={{ minHeight: 44 }}
      >
        Save to {unit.tag}
      </Button>
      {reason !== null && (
        <Typography variant="caption" sx={{ display: 'block', color: 'text.secondary', mt: 0.5 }}>
          {reason}
        </Typography>
      )}
      {saved === key && measurements && (
        <Typography role="status" variant="body2" sx={{ mt: 0.5 }}>
          Saved.{' '}
          <MuiLink component={Link} to={`/units/${unit.id}?tab=checks&check=${measurements[0]!.check}`}>
            See it on {unit.tag}
          </MuiLink>
        </Typography>
      )}
      {problem !== null && (
        <Alert severity="error" variant="outlined" sx={{ mt: 1 }}>
          {problem}
        </Alert>
      )}
    </Box>
  );
}

function unfit(unit: CompressorView, measurements: readonly Savable[] | null): string | null {
  const check = measurements && checkByCode(measurements[0]!.check);
  if (!check || check.applies(unit)) return null;
  return `${unit.tag} has no ${check.name.toLowerCase()} to measure.`;
}
