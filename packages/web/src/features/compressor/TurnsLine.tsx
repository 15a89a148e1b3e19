import { Box, Button, Stack, Typography } from '@mui/material';
import { ChangePlate, type CompressorView, type TurnsView } from '@entretien/contracts';
import { formatFigure } from '@entretien/core/quantities';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { v7 as newId } from 'uuid';
import { getJson, postJson, sentenceOf } from '../../data/api.js';
import { currentInstantText } from '../../data/clock.js';
import { useMay } from '../../data/me.js';
import { refuseMalformed } from '../../data/refuse-malformed.js';
import { refresh } from '../../data/queries.js';

/** The sets that feed one network: which leads, and whose turn it is so that their hours stay even. */
export function TurnsLine({ unit }: { readonly unit: CompressorView }) {
  const client = useQueryClient();
  const mayWork = useMay('work');
  const [problem, setProblem] = useState<string | null>(null);
  const [isSending, setSending] = useState(false);
  const { data } = useQuery({
    queryKey: ['unit', unit.id, 'turns'],
    queryFn: () => getJson<TurnsView>(`/compressors/${unit.id}/turns`),
    enabled: Boolean(unit.network),
    retry: false,
  });
  if (!data || data.sentence === null) return null;
  const next = data.sets.find(({ id }) => id === data.next);
  /** One leads, the others wait: each is a change of its plate. */
  const hand = async () => {
    setSending(true);
    setProblem(null);
    try {
      for (const { id, turn } of data.sets) {
        const wanted = id === data.next ? 'lead' : 'standby';
        if (turn === wanted) continue;
        const change = { id: newId(), changedAt: currentInstantText(), turn: wanted };
        refuseMalformed(ChangePlate, change);
        await postJson(`/compressors/${id}/plate`, change);
      }
      await refresh(client);
    } catch (error) {
      setProblem(sentenceOf(error));
    } finally {
      setSending(false);
    }
  };
  return (
    <Box component="section" aria-label="Lead and standby" sx={{ mb: 2 }}>
      <Typography variant="h3" component="h3">
        Lead and standby on {data.network}
      </Typography>
      <Typography sx={{ my: 0.5 }}>{data.sentence}</Typography>
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {data.sets.map(({ id, tag, turn, runHours, isStopped }) => (
          <Stack
            key={id}
            component="li"
            direction="row"
            sx={{ gap: 1.5, alignItems: 'center', minHeight: 44, borderBottom: 1, borderColor: 'divider' }}
          >
            <Box
              component={Link}
              to={`/units/${id}?tab=hours`}
              sx={{ width: 84, fontWeight: 650, color: 'primary.main' }}
            >
              {tag}
            </Box>
            <Typography sx={{ width: 110 }}>
              {runHours === null ? 'hours not known' : `${formatFigure(runHours, { decimals: 0 })} h`}
            </Typography>
            <Typography sx={{ color: isStopped ? 'oxide' : 'text.secondary' }}>
              {isStopped ? 'out of service' : (turn ?? '')}
            </Typography>
          </Stack>
        ))}
      </Box>
      {next && mayWork && (
        <Button
          variant="outlined"
          disabled={isSending}
          onClick={() => void hand()}
          sx={{ minHeight: 44, mt: 1 }}
        >
          {next.tag} leads from now on
        </Button>
      )}
      {problem && (
        <Typography role="alert" sx={{ color: 'oxide' }}>
          {problem}
        </Typography>
      )}
    </Box>
  );
}
