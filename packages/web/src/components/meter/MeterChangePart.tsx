import { Box, Button, Stack, Typography } from '@mui/material';
import type { HourLog, HourReading, MeterChange } from '@entretien/core/hours';
import { guessMeterChange, meterChangeProblem } from '@entretien/core/hours';
import { v7 as newId } from 'uuid';
import { entryOf, QuantityField, type QuantityEntry } from '../QuantityField.js';
import { fromLocalText, toLocalText, WhenField } from '../WhenField.js';

type Reason = Extract<MeterChange['reason'], 'replaced' | 'rolled-over'>;

/** What is being said of a meter change while a lower figure is typed. */
export interface MeterChangeEntry {
  readonly id: string;
  readonly reason: Reason;
  readonly oldFinal: QuantityEntry;
  readonly newStart: QuantityEntry;
  readonly whenText: string;
  /** Guesses the moment for another last figure of the old meter, until somebody says when it was. */
  readonly guessWhen: ((oldFinalHours: number) => string) | null;
}

/** Begins with the guess that explains a figure lower than the last. */
export function beginMeterChange(
  reason: Reason,
  last: HourReading,
  figure: number,
  at: number,
  timeZone: string,
): MeterChangeEntry {
  const guess = guessMeterChange(reason, last, figure, at);
  return {
    id: newId(),
    reason,
    oldFinal: entryOf(guess.oldFinalHours, 'hours'),
    newStart: entryOf(guess.newStartHours, 'hours'),
    whenText: written(guess.changedAt, timeZone),
    guessWhen: (oldFinalHours) =>
      written(guessMeterChange(reason, last, figure, at, oldFinalHours).changedAt, timeZone),
  };
}

/** A field of minutes would cut the seconds off, and fall before the last reading. */
function written(changedAt: number, timeZone: string): string {
  return toLocalText(changedAt + 59_000, timeZone);
}

/** The change as the core judges it; null while something of it is missing. */
export function meterChangeOf(entry: MeterChangeEntry, timeZone: string, now: number): MeterChange | null {
  const changedAt = fromLocalText(entry.whenText, timeZone);
  if (changedAt === null || entry.oldFinal.value === null || entry.newStart.value === null) return null;
  return {
    changedAt,
    oldFinalHours: entry.oldFinal.value,
    newStartHours: entry.newStart.value,
    reason: entry.reason,
    recordedAt: now,
  };
}

interface AskProps {
  readonly onReason: (reason: Reason) => void;
}

/** A lower figure may be right: then the meter jumped, and it is said how. */
export function AskMeterChange({ onReason }: AskProps) {
  return (
    <Stack
      direction="row"
      spacing={1}
      role="group"
      aria-label="Why it is lower"
      sx={{ flexWrap: 'wrap', rowGap: 1 }}
    >
      <Button variant="outlined" size="small" onClick={() => onReason('replaced')}>
        A new meter was fitted
      </Button>
      <Button variant="outlined" size="small" onClick={() => onReason('rolled-over')}>
        It rolled over
      </Button>
    </Stack>
  );
}

interface FieldsProps {
  readonly entry: MeterChangeEntry;
  readonly log: HourLog;
  readonly timeZone: string;
  readonly now: number;
  readonly onEntry: (entry: MeterChangeEntry | null) => void;
}

export function MeterChangeFields({ entry, log, timeZone, now, onEntry }: FieldsProps) {
  const change = meterChangeOf(entry, timeZone, now);
  const problem = change && meterChangeProblem(log, change, { now, timeZone });
  const isNew = entry.reason === 'replaced';
  const hours = { kind: 'hours', size: 'small', min: 0, max: 1_000_000, fullWidth: true } as const;
  return (
    <Box
      sx={{
        borderLeft: 4,
        borderColor: 'slate',
        bgcolor: 'slateGround',
        p: 1.5,
        display: 'grid',
        gridTemplateColumns: 'minmax(0, 1fr)',
        gap: 0.5,
      }}
    >
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'center' }}>
        <Typography variant="h3" component="p">
          {isNew ? 'A new meter was fitted' : 'The meter rolled over'}
        </Typography>
        <Button size="small" onClick={() => onEntry(null)}>
          No, I mistyped
        </Button>
      </Stack>
      <QuantityField
        {...hours}
        label={isNew ? 'Last figure of the old meter' : 'It turned over at'}
        entry={entry.oldFinal}
        onEntry={(oldFinal) =>
          onEntry({
            ...entry,
            oldFinal,
            whenText:
              oldFinal.value === null
                ? entry.whenText
                : (entry.guessWhen?.(oldFinal.value) ?? entry.whenText),
          })
        }
        problem={problem?.field === 'oldFinalHours' ? problem.sentence : null}
      />
      {isNew && (
        <QuantityField
          {...hours}
          label="First figure of the new meter"
          entry={entry.newStart}
          onEntry={(newStart) => onEntry({ ...entry, newStart })}
        />
      )}
      <WhenField
        size="small"
        label="About when"
        text={entry.whenText}
        onText={(whenText) => onEntry({ ...entry, whenText, guessWhen: null })}
        problem={
          change === null && entry.oldFinal.problem === null
            ? 'Say about when.'
            : problem?.field === 'changedAt'
              ? problem.sentence
              : null
        }
      />
    </Box>
  );
}
