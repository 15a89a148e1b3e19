import CalendarTodayIcon from '@mui/icons-material/CalendarToday';
import { IconButton, InputAdornment, Popover, TextField, type TextFieldProps } from '@mui/material';
import { describeDay, readDay, readDayAndTime, type Result } from '@entretien/core/basics';
import { lazy, Suspense, useState } from 'react';

const Calendar = lazy(() => import('./Calendar.js').then((part) => ({ default: part.Calendar })));

interface TypedFieldProps extends Omit<TextFieldProps, 'value' | 'onChange' | 'error' | 'type'> {
  /** What is kept, like `2026-11-24` or `2026-11-24T08:30`; empty where there is none. */
  readonly kept: string;
  readonly onKept: (kept: string) => void;
  readonly read: (text: string) => Result<string>;
  readonly write: (kept: string) => string;
  readonly problem?: string | null | undefined;
  readonly hint?: React.ReactNode;
}

/** Typed as one writes it, or chosen in a calendar; what cannot be read stays as it was typed, and says so. */
function TypedField({ kept, onKept, read, write, problem, hint, slotProps = {}, ...field }: TypedFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [hasLeft, setLeft] = useState(false);
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const outcome = typed === null || typed.trim() === '' ? null : read(typed);
  const unread = outcome && !outcome.ok && hasLeft ? outcome.problem.sentence : null;
  const wrong = unread ?? problem ?? null;
  const put = (text: string) => {
    setTyped(text);
    setLeft(false);
    const next = read(text);
    onKept(next.ok ? next.value : '');
  };
  return (
    <>
      <TextField
        {...field}
        value={typed ?? (kept === '' ? '' : write(kept))}
        onChange={(event) => put(event.target.value)}
        onBlur={(event) => {
          field.onBlur?.(event);
          setLeft(true);
          // Once it is understood it stands as everything else is written.
          if (outcome === null || outcome.ok) setTyped(null);
        }}
        error={wrong !== null}
        helperText={wrong ?? hint}
        slotProps={{
          ...slotProps,
          htmlInput: { maxLength: 40, autoComplete: 'off' },
          formHelperText: { role: wrong === null ? undefined : 'alert' },
          input: {
            endAdornment: (
              <InputAdornment position="end">
                <IconButton
                  aria-label="Choose the day"
                  edge="end"
                  onClick={(event) => setAnchor(event.currentTarget)}
                >
                  <CalendarTodayIcon fontSize="small" />
                </IconButton>
              </InputAdornment>
            ),
          },
        }}
      />
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'right' }}
        transformOrigin={{ vertical: 'top', horizontal: 'right' }}
      >
        <Suspense fallback={null}>
          <Calendar
            day={kept.slice(0, 10)}
            onDay={(day) => {
              setTyped(null);
              setAnchor(null);
              onKept(day + kept.slice(10));
            }}
          />
        </Suspense>
      </Popover>
    </>
  );
}

interface DayFieldProps extends Omit<TypedFieldProps, 'kept' | 'onKept' | 'read' | 'write'> {
  /** A local date like 2026-11-24; empty where there is none. */
  readonly day: string;
  readonly onDay: (day: string) => void;
}

/** A day. */
export function DayField({ day, onDay, ...field }: DayFieldProps) {
  return <TypedField {...field} kept={day} onKept={onDay} read={readDay} write={describeDay} />;
}

interface DayAndTimeFieldProps extends Omit<TypedFieldProps, 'kept' | 'onKept' | 'read' | 'write'> {
  /** A local moment like 2026-11-24T08:30; empty where there is none. */
  readonly text: string;
  readonly onText: (text: string) => void;
}

/** A day with its time. */
export function DayAndTimeField({ text, onText, ...field }: DayAndTimeFieldProps) {
  return <TypedField {...field} kept={text} onKept={onText} read={readDayAndTime} write={writeMoment} />;
}

function writeMoment(kept: string): string {
  return `${describeDay(kept.slice(0, 10))}, ${kept.slice(11, 16)}`;
}
