import AddIcon from '@mui/icons-material/Add';
import { Box, Button, Typography } from '@mui/material';
import type { FleetCompressorView, VisitStepView } from '@entretien/contracts';
import { worthPlanning } from '@entretien/core/visit';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { v7 as newId } from 'uuid';
import { currentInstantText } from '../../data/clock.js';
import { postJson, sentenceOf } from '../../data/api.js';
import { useFleet } from '../../data/queries.js';
import { SESSION } from '../../data/session.js';
import type { CompressorAtWork } from './use-visit.js';

interface JoinCompressorProps {
  readonly atWork: CompressorAtWork;
  /** The unit is part of the visit now. */
  readonly onJoined: (compressorId: string) => void;
}

/** Another machine of the site joins the visit, with what is due on it. */
export function JoinCompressor({ atWork, onJoined }: JoinCompressorProps) {
  const { visit } = atWork;
  const client = useQueryClient();
  const { units } = useFleet({ all: true });
  const [isOpen, setOpen] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const here = new Set(visit.units.map(({ compressorId }) => compressorId));
  const others = units.filter(
    ({ siteId, compressorId }) => siteId === visit.siteId && !here.has(compressorId),
  );
  const join = async ({ compressorId, tasks }: FleetCompressorView) => {
    setProblem(null);
    // What is needed to go through it comes from the server: without a connection it cannot join.
    const step = {
      id: newId(),
      compressorId,
      kind: 'plan',
      doneAt: currentInstantText(),
      session: SESSION,
      details: { tasks: [...worthPlanning(tasks)] },
    };
    try {
      await postJson<VisitStepView>(`/visits/${visit.id}/steps`, step);
      await client.invalidateQueries({ queryKey: ['visit', visit.id] });
      onJoined(compressorId);
    } catch (error) {
      setProblem(sentenceOf(error));
    }
  };
  if (others.length === 0) return null;
  if (!isOpen) {
    return (
      <Button startIcon={<AddIcon />} onClick={() => setOpen(true)} sx={{ minHeight: 44, px: 0 }}>
        Another machine of the site
      </Button>
    );
  }
  return (
    <Box component="section" aria-label="Another machine of the site">
      {problem && (
        <Typography role="alert" sx={{ color: 'oxide' }}>
          {problem}
        </Typography>
      )}
      {others.map((unit) => (
        <Button
          key={unit.compressorId}
          onClick={() => void join(unit)}
          fullWidth
          sx={{
            justifyContent: 'start',
            minHeight: 44,
            borderTop: 1,
            borderColor: 'divider',
            borderRadius: 0,
            px: 0.5,
          }}
        >
          {unit.tag}, {unit.description}
        </Button>
      ))}
    </Box>
  );
}
