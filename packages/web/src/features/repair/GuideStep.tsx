import { Box, Button, ButtonBase, Stack, Typography } from '@mui/material';
import type { CompressorView } from '@entretien/contracts';
import {
  formatNewtonMetres,
  formatTorque,
  roundsOf,
  torqueFor,
  type KnownTorque,
  type ProcedureStep,
} from '@entretien/core/repairs';
import { useState } from 'react';
import { Caution } from '../../components/Caution.js';
import { Tick } from '../../components/Tick.js';

interface GuideStepProps {
  readonly step: ProcedureStep;
  readonly unit: CompressorView;
  readonly isGone: boolean;
  readonly isSending: boolean;
  readonly onGone: () => void;
  readonly onUndo: () => void;
}

/** One step of a guided overhaul; bolts of which the figure is known are ticked round by round first. */
export function GuideStep({ step, unit, isGone, isSending, onGone, onUndo }: GuideStepProps) {
  const { name, how, caution, torque } = step;
  const known = torque === undefined ? null : torqueFor(torque, unit);
  const [rounds, setRounds] = useState(0);
  const isTightening = known !== null && !isGone && rounds < known.rounds;
  return (
    <Box sx={{ borderBottom: 1, borderColor: 'divider', py: 1 }}>
      {caution && !isGone && <Caution text={caution} />}
      <ButtonBase
        role="checkbox"
        aria-checked={isGone}
        aria-label={name}
        disabled={isSending || isTightening}
        onClick={isGone ? onUndo : onGone}
        sx={{
          display: 'flex',
          width: '100%',
          textAlign: 'left',
          justifyContent: 'start',
          alignItems: 'start',
          gap: 1.5,
          minHeight: 44,
        }}
      >
        <Tick on={isGone} size={24} />
        <Box>
          <Typography sx={{ fontWeight: 650, lineHeight: 1.3 }}>{name}</Typography>
          {how && (
            <Typography variant="body2" sx={{ color: 'text.secondary' }}>
              {how}
            </Typography>
          )}
          {torque && (
            <Typography variant="body2" sx={{ fontWeight: 600 }}>
              {formatTorque(torque, unit)}
            </Typography>
          )}
        </Box>
      </ButtonBase>
      {known && !isGone && <Rounds known={known} done={rounds} onDone={setRounds} />}
    </Box>
  );
}

interface RoundsProps {
  readonly known: KnownTorque;
  /** How many rounds were gone. */
  readonly done: number;
  readonly onDone: (rounds: number) => void;
}

function Rounds({ known, done, onDone }: RoundsProps) {
  return (
    <Stack
      direction="row"
      role="group"
      aria-label={`Rounds of the ${known.joint}`}
      sx={{ gap: 1, flexWrap: 'wrap', pl: 4.5, mt: 0.75 }}
    >
      {roundsOf(known).map((newtonMetres, index) => (
        <Button
          key={newtonMetres}
          variant={index < done ? 'contained' : 'outlined'}
          aria-pressed={index < done}
          // One after the other: a bolt that is tightened at once pulls its face askew.
          disabled={index > done}
          onClick={() => onDone(index < done ? index : index + 1)}
          sx={{ minHeight: 44 }}
        >
          {`Round ${index + 1}: ${formatNewtonMetres(newtonMetres)}`}
        </Button>
      ))}
    </Stack>
  );
}
