import { Alert, Button, Stack, Typography } from '@mui/material';
import type { StandingView } from '@entretien/contracts';
import { formatFigure } from '@entretien/core/quantities';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { v7 as newId } from 'uuid';
import { postJson, sentenceOf } from '../../data/api.js';
import { refresh } from '../../data/queries.js';
import { currentInstantText } from '../../data/clock.js';

/** Asked once of a used machine that is known from new: whether its meter counts its whole life. */
export function MeterQuestion({ standing }: { readonly standing: StandingView }) {
  const client = useQueryClient();
  const [problem, setProblem] = useState<string | null>(null);
  const [isSending, setSending] = useState(false);
  const { meterQuestion: hours } = standing;
  if (hours === null) return null;
  const answer = async (meterFrom: 'new' | 'later') => {
    setSending(true);
    setProblem(null);
    try {
      const change = { id: newId(), changedAt: currentInstantText(), meterFrom };
      await postJson(`/compressors/${standing.compressorId}/plate`, change);
      await refresh(client);
    } catch (error) {
      setProblem(sentenceOf(error));
    } finally {
      setSending(false);
    }
  };
  return (
    <Alert severity="info" variant="outlined" icon={false} sx={{ mb: 1.5 }}>
      <Typography sx={{ fontWeight: 600 }}>
        Has it run these {formatFigure(hours, { figures: 7, maxDecimals: 0 })} h since new, or was this meter
        fitted later?
      </Typography>
      <Stack direction="row" sx={{ gap: 1, mt: 1, flexWrap: 'wrap' }}>
        <Button
          variant="outlined"
          disabled={isSending}
          onClick={() => void answer('new')}
          sx={{ minHeight: 44 }}
        >
          Since new
        </Button>
        <Button
          variant="outlined"
          disabled={isSending}
          onClick={() => void answer('later')}
          sx={{ minHeight: 44 }}
        >
          Meter fitted later
        </Button>
      </Stack>
      {problem && (
        <Typography role="alert" variant="body2" sx={{ color: 'error.main', mt: 0.5 }}>
          {problem}
        </Typography>
      )}
    </Alert>
  );
}
