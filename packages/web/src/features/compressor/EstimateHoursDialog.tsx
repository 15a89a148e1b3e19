import { Alert, Box, TextField, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import { type CompressorView, RecordReading } from '@entretien/contracts';
import { hoursFromAir, hoursFromCycles, readingProblem, describeEstimate } from '@entretien/core/hours';
import { formatFigure, readNumber } from '@entretien/core/quantities';
import { useState } from 'react';
import type { CompressorFacts } from '../../data/queries.js';
import { FormDialog } from '../../components/FormDialog.js';
import { NoteField } from '../../components/NoteField.js';
import { emptyEntry, entryOf, QuantityField } from '../../components/QuantityField.js';
import { formatAgo } from '../../components/describe-due.js';
import { useNow } from '../../components/use-now.js';
import { WhenField } from '../../components/WhenField.js';
import { hourLogOf, lastFigure, typedReading } from '../../components/meter/hour-log.js';
import { useFactForm } from '../../components/use-fact-form.js';

interface EstimateProps {
  readonly unit: CompressorView;
  readonly compressorId: string;
  readonly tag: string;
  readonly facts: CompressorFacts;
  readonly timeZone: string;
  readonly onClose: () => void;
}

/** Works out the hours of a machine without a meter, from what can be counted on it. */
export function EstimateHoursDialog({ unit, compressorId, tag, facts, timeZone, onClose }: EstimateProps) {
  const [way, setWay] = useState<'cycles' | 'air'>(unit.family === 'high-pressure' ? 'air' : 'cycles');
  const [cycles, setCycles] = useState('');
  const [minutes, setMinutes] = useState('');
  const [air, setAir] = useState(emptyEntry);
  const [fad, setFad] = useState(() => entryOf(unit.fadLpm, 'flow'));
  const form = useFactForm<RecordReading>(
    RecordReading,
    `/compressors/${compressorId}/readings`,
    timeZone,
    onClose,
  );
  const now = useNow();
  const at = form.when ?? now;
  const log = hourLogOf(facts);
  const last = lastFigure(log, at);
  const byCycles = way === 'cycles' ? cyclesOf(cycles, minutes) : null;
  const byAir =
    way === 'air' && air.value !== null && fad.value !== null ? { airL: air.value, fadLpm: fad.value } : null;
  const gained = byCycles
    ? hoursFromCycles(byCycles.cycles, byCycles.pumpUpMinutes)
    : byAir && hoursFromAir(byAir.airL, byAir.fadLpm);
  const hours = gained?.ok ? (last?.hours ?? 0) + gained.value : null;
  const judged = hours === null ? null : readingProblem(log, typedReading(hours, at, now), { now, timeZone });
  const problem = gained && !gained.ok ? gained.problem.sentence : judged?.sentence;
  const send = () => {
    const fields = byCycles ?? byAir;
    if (hours === null || !fields) return;
    const note = [describeEstimate(fields), form.note.trim()].filter(Boolean).join(' ');
    form.send({
      takenAt: new Date(at).toISOString(),
      hours: Math.round(hours * 10) / 10,
      counts: 'total',
      source: 'estimated',
      note,
    });
  };
  return (
    <FormDialog
      title={`Estimate the hours of ${tag}`}
      submit="Save estimate"
      canSubmit={hours !== null && judged === null && form.when !== null}
      isSending={form.isSending}
      problem={form.generalProblem ?? form.problemOf('hours') ?? form.problemOf('takenAt') ?? null}
      onClose={onClose}
      onSubmit={send}
    >
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {last
          ? `Counted on from ${format(last.hours)} h, ${formatAgo(last.takenAt, now, timeZone)}.`
          : 'Nothing on record yet: counted from its commissioning.'}
      </Typography>
      <ToggleButtonGroup
        exclusive
        value={way}
        onChange={(_event, next: typeof way | null) => next && setWay(next)}
        aria-label="What was counted"
        sx={{ '& .MuiToggleButton-root': { minHeight: 44, flex: 1, textTransform: 'none' } }}
      >
        <ToggleButton value="cycles">Cycles counted</ToggleButton>
        <ToggleButton value="air">Air delivered</ToggleButton>
      </ToggleButtonGroup>
      {way === 'cycles' ? (
        <>
          <CountField
            label={last ? 'Cycles since then' : 'Cycles counted'}
            text={cycles}
            onText={setCycles}
            hint="Starts of the motor."
          />
          <CountField
            label="Minutes of one pump-up"
            text={minutes}
            onText={setMinutes}
            hint="From cut-in to cut-out."
          />
        </>
      ) : (
        <>
          <QuantityField
            kind="volume"
            label={last ? 'Free air delivered since then' : 'Free air delivered'}
            entry={air}
            onEntry={setAir}
            min={0}
            hint="The sum of its fills, at intake conditions."
          />
          <QuantityField
            kind="flow"
            label="Free air delivery"
            entry={fad}
            onEntry={setFad}
            min={0}
            max={200_000}
            hint="From the data plate, or as measured last."
          />
        </>
      )}
      <Box role="status" sx={{ typography: 'body1', minHeight: 28 }}>
        {gained?.ok && hours !== null && (
          <>
            <strong>{format(gained.value)} h</strong> more: about <strong>{format(hours)} h est.</strong>
          </>
        )}
      </Box>
      {problem !== undefined && (
        <Alert severity="error" variant="outlined">
          {problem}
        </Alert>
      )}
      <WhenField
        label="Counted up to"
        text={form.whenText}
        onText={form.setWhenText}
        problem={form.when === null ? 'Say up to when.' : null}
      />
      <NoteField form={form} longest={1900} />
    </FormDialog>
  );
}

function format(figure: number): string {
  return formatFigure(figure, { figures: 6, maxDecimals: 1 });
}

/** Cycles with the minutes that each takes; null while one of them is not understood. */
function cyclesOf(cycles: string, minutes: string) {
  const [counted, pumpUp] = [readNumber(cycles), readNumber(minutes)];
  return counted.ok && pumpUp.ok ? { cycles: counted.value, pumpUpMinutes: pumpUp.value } : null;
}

interface CountFieldProps {
  readonly label: string;
  readonly text: string;
  readonly onText: (text: string) => void;
  readonly hint: string;
}

/** A plain figure, with what is not understood said beneath it. */
function CountField({ label, text, onText, hint }: CountFieldProps) {
  const read = readNumber(text);
  const problem = text === '' || read.ok ? null : read.problem.sentence;
  return (
    <TextField
      label={label}
      value={text}
      onChange={(event) => onText(event.target.value)}
      error={problem !== null}
      helperText={problem ?? hint}
      slotProps={{ htmlInput: { inputMode: 'decimal', maxLength: 20 } }}
    />
  );
}
