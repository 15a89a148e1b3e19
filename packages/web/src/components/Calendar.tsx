import { DateCalendar } from '@mui/x-date-pickers/DateCalendar';
import { LocalizationProvider } from '@mui/x-date-pickers/LocalizationProvider';
import { AdapterDateFns } from '@mui/x-date-pickers/AdapterDateFns';
import { format, isValid, parseISO } from 'date-fns';
import { enGB } from 'date-fns/locale/en-GB';
import { useMemo } from 'react';
import { usePreferences } from '../data/preferences.js';

interface CalendarProps {
  /** A local date; empty where none is chosen. */
  readonly day: string;
  readonly onDay: (day: string) => void;
}

/** The days of a month to choose from, in weeks as the person counts them. */
export function Calendar({ day, onDay }: CalendarProps) {
  const firstDay = usePreferences((preferences) => preferences.firstDay);
  const locale = useMemo(
    () => ({ ...enGB, options: { ...enGB.options, weekStartsOn: firstDay } }),
    [firstDay],
  );
  const chosen = parseISO(day);
  return (
    <LocalizationProvider dateAdapter={AdapterDateFns} adapterLocale={locale}>
      <DateCalendar
        autoFocus
        value={isValid(chosen) ? chosen : null}
        onChange={(next, state) => {
          // Turning to another month or year chooses no day yet.
          if (next && isValid(next) && state === 'finish') onDay(format(next, 'yyyy-MM-dd'));
        }}
      />
    </LocalizationProvider>
  );
}
