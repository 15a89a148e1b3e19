import { TextField, type TextFieldProps } from '@mui/material';

interface DayFieldProps extends Omit<TextFieldProps, 'value' | 'onChange' | 'error' | 'type'> {
  /** A local date like 2026-11-24; empty where there is none. */
  readonly day: string;
  readonly onDay: (day: string) => void;
  readonly problem?: string | null | undefined;
  readonly hint?: string | undefined;
}

/** A day. */
export function DayField({ day, onDay, problem, hint, ...field }: DayFieldProps) {
  const wrong = problem ?? null;
  return (
    <TextField
      {...field}
      type="date"
      value={day}
      onChange={(event) => onDay(event.target.value)}
      error={wrong !== null}
      helperText={wrong ?? hint}
      slotProps={{
        inputLabel: { shrink: true },
        formHelperText: { role: wrong === null ? undefined : 'alert' },
      }}
    />
  );
}
