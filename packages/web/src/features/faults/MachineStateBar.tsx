import { Box, Button, Stack, Typography } from '@mui/material';
import type { MachineState } from '@entretien/core/faults';
import { useState } from 'react';
import { HoldButton } from '../../components/isolation/HoldButton.js';

const stateNames: Readonly<Record<MachineState, string>> = {
  run: 'It runs, or is ready to run',
  lock: 'Stopped and locked, under pressure',
  open: 'Isolated, vented and proved',
};

export const LOCK_ON_RECORD = 'A lock is on record: it runs again once that is taken off there.';

interface MachineStateBarProps {
  readonly state: MachineState;
  /** A lock is on record. */
  readonly hasLock: boolean;
  readonly onState: (state: MachineState) => void;
}

/** How the machine stands now: only what that allows is proposed. */
export function MachineStateBar({ state, hasLock, onState }: MachineStateBarProps) {
  const [isLocking, setLocking] = useState(false);
  return (
    <Box component="section" aria-label="The machine now" sx={{ mb: 2 }}>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 1, flexWrap: 'wrap' }}>
        <Typography variant="body2" sx={{ color: 'text.secondary', flex: '1 1 200px' }}>
          The machine now:{' '}
          <Box component="strong" sx={{ color: 'text.primary' }}>
            {stateNames[state]}
          </Box>
        </Typography>
        {state === 'run' ? (
          !isLocking && (
            <Button onClick={() => setLocking(true)} sx={{ minHeight: 44 }}>
              Stop and lock it
            </Button>
          )
        ) : hasLock ? (
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            {LOCK_ON_RECORD}
          </Typography>
        ) : (
          <Button onClick={() => onState('run')} sx={{ minHeight: 44 }}>
            My lock is off, it may run
          </Button>
        )}
      </Stack>
      {isLocking && state === 'run' && (
        <LockHold
          onLocked={() => {
            setLocking(false);
            onState('lock');
          }}
        />
      )}
    </Box>
  );
}

/** Lock-out is four things in one hold. */
export function LockHold({ onLocked }: { readonly onLocked: () => void }) {
  return (
    <Box>
      <Typography variant="body2" sx={{ mb: 1 }}>
        Off, your own lock and tag on (or the plug in your sight), tried: it does not start, automatic and
        remote start off. It is still under pressure: nothing is opened.
      </Typography>
      <HoldButton onHeld={onLocked} fullWidth>
        Hold: off, locked, tried, automatic off
      </HoldButton>
    </Box>
  );
}
