import { Button, Box, Typography } from '@mui/material';
import { missingFor } from '@entretien/core/isolation';
import { opensTogether } from '@entretien/core/visit';
import { IsolationGuide } from '../../components/isolation/IsolationGuide.js';
import { plannedTasks } from './phases.js';
import { PhaseFooter, type PhaseProps } from './PhaseFooter.js';

/** The isolation that the planned work needs, one space after the other. */
export function IsolatePhase({ atWork, onGo }: PhaseProps) {
  const { unit, guarded, isolation, by, session, now, record } = atWork;
  const planned = plannedTasks(atWork);
  const opens = opensTogether(planned, unit.plate);
  const missing = missingFor(guarded, isolation, opens, { at: now, by, session });
  const opening = planned.filter((task) => opensTogether([task], unit.plate)?.length !== 0);
  return (
    <>
      <IsolationGuide
        here={{
          guarded,
          fold: isolation,
          by,
          session,
          opens,
          now,
          record: (body) => record(body),
          onFound: (found) => void record({ kind: 'fault', found }),
        }}
      />
      <PhaseFooter
        about={
          opening.length === 0
            ? undefined
            : `For: ${opening.map(({ name }) => name.toLowerCase()).join('; ')}`
        }
      >
        <Button variant={missing.length === 0 ? 'contained' : 'outlined'} onClick={() => onGo('work')}>
          {missing.length === 0 ? 'To the work' : 'Other work first'}
        </Button>
      </PhaseFooter>
    </>
  );
}

/** Why the isolation is asked again, where only the look after a pause is missing. */
export function AfterPause({ atWork, onGo }: PhaseProps) {
  const { unit, guarded, isolation, by, session, now } = atWork;
  const opens = opensTogether(plannedTasks(atWork), unit.plate);
  const [first] = missingFor(guarded, isolation, opens, { at: now, by, session });
  if (first?.point !== 'still') return null;
  return (
    <Box
      role="alert"
      sx={{
        bgcolor: 'oxideGround',
        borderLeft: 4,
        borderColor: 'oxide',
        px: 1.75,
        py: 1.25,
        mb: 1.5,
      }}
    >
      <Typography sx={{ fontWeight: 700, color: 'oxide' }}>
        There was a pause, or the page was reloaded.
      </Typography>
      <Typography>Look at lock, vents and needles again before you open anything.</Typography>
      <Button variant="outlined" color="error" onClick={() => onGo('isolate')} sx={{ minHeight: 48, mt: 1 }}>
        Look again
      </Button>
    </Box>
  );
}
