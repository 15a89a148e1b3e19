import { TextField, type TextFieldProps } from '@mui/material';
import dayjs from 'dayjs';
import timezone from 'dayjs/plugin/timezone.js';
import utc from 'dayjs/plugin/utc.js';

dayjs.extend(utc);
dayjs.extend(timezone);

const SHAPE = 'YYYY-MM-DDTHH:mm';

/** A moment as the clock at the site shows it, for a field of date and time. */
export function toLocalText(instant: number, timeZone: string): string {
  return dayjs(instant).tz(timeZone).format(SHAPE);
}

/** The instant of a local text; null when it is empty or no moment. */
export function fromLocalText(text: string, timeZone: string): number | null {
  if (!/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}/.test(text)) return null;
  const moment = dayjs.tz(text.slice(0, 16), timeZone);
  return moment.isValid() ? moment.valueOf() : null;
}

interface WhenFieldProps extends Omit<TextFieldProps, 'value' | 'onChange' | 'error'> {
  readonly text: string;
  readonly onText: (text: string) => void;
  readonly problem?: string | null | undefined;
}

/** When something happened, by the clock at the site. */
export function WhenField({ text, onText, problem, ...field }: WhenFieldProps) {
  const wrong = problem ?? null;
  return (
    <TextField
      {...field}
      type="datetime-local"
      value={text}
      onChange={(event) => onText(event.target.value)}
      error={wrong !== null}
      helperText={wrong ?? ' '}
      slotProps={{
        inputLabel: { shrink: true },
        formHelperText: { role: wrong === null ? undefined : 'alert' },
      }}
    />
  );
}
