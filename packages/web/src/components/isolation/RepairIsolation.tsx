import { Box, Button, Collapse, Stack, Typography } from '@mui/material';
import { type CompressorView, OpenRepair, RecordRepairStep, type RepairView } from '@entretien/contracts';
import {
  isLockedBy,
  restartSteps,
  describeMissing,
  type IsolateBody,
  type RestartBody,
} from '@entretien/core/isolation';
import { useState } from 'react';
import { v7 as newId } from 'uuid';
import { currentInstant } from '../../data/clock.js';
import { sentenceOf } from '../../data/api.js';
import { usePost } from '../../data/queries.js';
import { SESSION } from '../../data/session.js';
import { IsolationGuide } from './IsolationGuide.js';
import { useIsolationFold } from './use-isolation-fold.js';

interface RepairIsolationProps {
  readonly repair: RepairView;
  readonly unit: CompressorView;
  readonly opens: readonly string[] | null;
}

/** The isolation of the unit, told of a repair: the same guard as in a visit. */
export function RepairIsolation({ repair, unit, opens }: RepairIsolationProps) {
  const isolation = useIsolationFold(unit);
  const [isOpen, setOpen] = useState(false);
  const post = usePost<object, unknown>(RecordRepairStep, `/repairs/${repair.id}/steps`);
  const open = usePost<OpenRepair, unknown>(OpenRepair, `/compressors/${unit.id}/repairs`);
  if (!isolation) return null;
  const { guarded, fold, by, now, lastAt } = isolation;
  const missing = isolation.missingFor(opens);
  const record = async ({ kind, ...details }: IsolateBody | RestartBody) => {
    const doneAt = new Date(Math.max(currentInstant(), lastAt + 1)).toISOString();
    await post.mutateAsync({ id: newId(), kind, doneAt, session: SESSION, details }).catch(() => undefined);
  };
  const find = (found: string) =>
    open.mutate({ id: newId(), kind: 'fault', foundAt: new Date(currentInstant()).toISOString(), found });
  const isLocked = isLockedBy(fold, by);
  return (
    <Box
      component="section"
      aria-label="Isolation"
      sx={{
        border: 1,
        borderColor: missing.length > 0 ? 'brass' : 'slate',
        borderRadius: 1,
        p: 1.25,
        mb: 1.5,
      }}
    >
      <Stack direction="row" sx={{ alignItems: 'center', gap: 1 }}>
        <Typography sx={{ flex: 1, fontWeight: 600 }}>
          {missing.length === 0 ? 'Isolated for this.' : describeMissing(unit, missing)}
        </Typography>
        <Button
          variant={missing.length > 0 && !isOpen ? 'contained' : 'outlined'}
          onClick={() => setOpen(!isOpen)}
          aria-expanded={isOpen}
          sx={{ minHeight: 44, flex: 'none' }}
        >
          {isOpen ? 'Fold' : missing.length > 0 ? 'Isolate' : 'Show'}
        </Button>
      </Stack>
      {post.error && (
        <Typography role="alert" sx={{ color: 'oxide', fontWeight: 600 }}>
          {sentenceOf(post.error)}
        </Typography>
      )}
      <Collapse in={isOpen} unmountOnExit>
        <IsolationGuide here={{ guarded, fold, by, session: SESSION, opens, now, record, onFound: find }} />
        {isLocked && <StartAgain unit={unit} onStart={(steps) => void record({ kind: 'restart', steps })} />}
      </Collapse>
    </Box>
  );
}

/** Back to power and air, everything before it named. */
function StartAgain({
  unit,
  onStart,
}: {
  readonly unit: CompressorView;
  readonly onStart: (steps: readonly string[]) => void;
}) {
  const steps = restartSteps(unit);
  const [isAsking, setAsking] = useState(false);
  if (!isAsking) {
    return (
      <Button variant="outlined" onClick={() => setAsking(true)} sx={{ minHeight: 48 }}>
        Start it again
      </Button>
    );
  }
  return (
    <Box>
      <Box component="ul" sx={{ pl: 2.5, my: 1 }}>
        {steps.map(({ code, name, hint }) => (
          <li key={code}>
            <Typography component="span" sx={{ fontWeight: 650 }}>
              {name}.
            </Typography>{' '}
            {hint}
          </li>
        ))}
      </Box>
      <Button
        variant="contained"
        onClick={() => onStart(steps.map(({ code }) => code))}
        sx={{ minHeight: 48 }}
      >
        All of it: it runs again
      </Button>
    </Box>
  );
}
