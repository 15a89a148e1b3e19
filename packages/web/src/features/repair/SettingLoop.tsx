import {
  Alert,
  Box,
  Button,
  Stack,
  TextField,
  ToggleButton,
  ToggleButtonGroup,
  Typography,
} from '@mui/material';
import type { CompressorView, RepairView } from '@entretien/contracts';
import {
  adviseSetting,
  attemptText,
  readAttempt,
  settingBounds,
  settingCeiling,
  settingTurns,
  type SettingAttempt,
  type SettingKind,
} from '@entretien/core/repairs';
import { readNumber } from '@entretien/core/quantities';
import { useState } from 'react';
import { ProblemLine } from '../../components/ProblemLine.js';
import { entryOf, emptyEntry, QuantityField } from '../../components/QuantityField.js';
import { useFormatQuantity } from '../../components/use-format-quantity.js';
import { newFact, useAdd } from './use-entry.js';

const turnNames = { none: 'as found', in: 'in', out: 'out' } as const;

interface LoopProps {
  readonly repair: RepairView;
  readonly unit: CompressorView;
  readonly of: SettingKind;
}

/** Turn a little, build up, note the figure, again: each look on record, and what to do next. */
export function SettingLoop({ repair, unit, of }: LoopProps) {
  const add = useAdd(repair);
  const format = useFormatQuantity();
  const [wanted, setWanted] = useState(() =>
    entryOf(of === 'relief' ? unit.reliefBar : (unit.cutOutBar ?? unit.workingPressureBar), 'pressure'),
  );
  const [weakest, setWeakest] = useState(emptyEntry);
  const [turned, setTurned] = useState<SettingAttempt['turned']>('none');
  const [turns, setTurns] = useState('0.25');
  const [acts, setActs] = useState(emptyEntry);
  const attempts = repair.entries.flatMap((entry) => {
    const read = entry.kind === 'note' ? readAttempt(entry.text) : null;
    return read?.of === of ? [read] : [];
  });
  const ceiling = settingCeiling(unit, of, weakest.value ?? undefined);
  const advice = wanted.value === null ? null : adviseSetting(wanted.value, attempts, ceiling);
  const count = turned === 'none' ? 0 : readTurns(turns);
  const isTurn = count !== null;
  const save = () => {
    const attempt = { turned, turns: count!, actsBar: acts.value! };
    add.mutate(
      { ...newFact(), kind: 'note', text: attemptText(of, attempt) },
      {
        onSuccess: () => {
          setActs(emptyEntry);
          setTurned(attempts.length === 0 ? 'in' : turned);
        },
      },
    );
  };
  const verb = of === 'relief' ? 'opens' : 'stops';
  return (
    <Box
      component="section"
      aria-label="Setting"
      sx={{ border: 1, borderColor: 'divider', borderRadius: 1, p: 1.5, my: 1 }}
    >
      <Typography variant="h3" component="h3">
        Looks at the setting
      </Typography>
      <Stack direction="row" sx={{ gap: 1.25, mt: 1 }}>
        <QuantityField
          label="Wanted"
          kind="pressure"
          entry={wanted}
          onEntry={setWanted}
          {...settingBounds.actsBar}
          min={0.1}
          sx={{ flex: 1 }}
        />
        <QuantityField
          label="Weakest part"
          kind="pressure"
          entry={weakest}
          onEntry={setWeakest}
          min={0.1}
          max={1000}
          hint={
            ceiling === null
              ? 'Block, vessel, hose, cylinder.'
              : `Never above ${format(ceiling, 'pressure')}.`
          }
          sx={{ flex: 1 }}
        />
      </Stack>
      <Box component="ol" aria-label="Looks so far" sx={{ pl: 2.5, my: 0.5 }}>
        {attempts.map((attempt, index) => (
          <Typography component="li" key={index} variant="body2">
            {attempt.turned === 'none' ? 'As found' : `${attempt.turns} turn ${attempt.turned}`}: {verb} at{' '}
            <strong>{format(attempt.actsBar, 'pressure')}</strong>
          </Typography>
        ))}
      </Box>
      {advice && <Advice advice={advice} />}
      <Stack direction="row" sx={{ gap: 1.25, alignItems: 'start', flexWrap: 'wrap' }}>
        <ToggleButtonGroup
          exclusive
          value={turned}
          aria-label="The screw was turned"
          onChange={(_event, way: SettingAttempt['turned'] | null) => way && setTurned(way)}
        >
          {settingTurns.map((way) => (
            <ToggleButton key={way} value={way} sx={{ minHeight: 48, minWidth: 64, textTransform: 'none' }}>
              {turnNames[way]}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        {turned !== 'none' && (
          <TextField
            label="Turns"
            value={turns}
            onChange={(event) => setTurns(event.target.value)}
            error={!isTurn}
            helperText={isTurn ? ' ' : 'More than 0, 4 at most.'}
            slotProps={{ htmlInput: { inputMode: 'decimal', maxLength: 5 } }}
            sx={{ width: 112 }}
          />
        )}
        <QuantityField
          label={`It ${verb} at`}
          kind="pressure"
          entry={acts}
          onEntry={setActs}
          {...settingBounds.actsBar}
          sx={{ width: 172 }}
        />
        <Button
          variant="outlined"
          onClick={save}
          disabled={!isTurn || acts.value === null || add.isPending}
          sx={{ minHeight: 48 }}
        >
          Save the look
        </Button>
      </Stack>
      <ProblemLine error={add.error} />
    </Box>
  );
}

/** How far a screw was turned; null where that is no figure for it. */
function readTurns(text: string): number | null {
  const read = readNumber(text);
  const { min, max } = settingBounds.turns;
  return read.ok && read.value > min && read.value <= max ? read.value : null;
}

function Advice({ advice }: { readonly advice: ReturnType<typeof adviseSetting> }) {
  const isBad = !advice.ok || advice.value.next === 'stop-now' || advice.value.next === 'odd';
  const severity = isBad ? 'error' : advice.value.next === 'set' ? 'success' : 'info';
  return (
    <Alert severity={severity} variant="outlined" role="status" sx={{ mb: 1 }}>
      {advice.ok ? advice.value.sentence : advice.problem.sentence}
    </Alert>
  );
}
