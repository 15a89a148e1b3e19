import { TZDate } from '@date-fns/tz';
import { format, isValid } from 'date-fns';
import type { ComponentProps } from 'react';
import { DayAndTimeField } from './DayField.js';

const SHAPE = "yyyy-MM-dd'T'HH:mm";

/** A moment as the clock at the site shows it, for a field of date and time. */
export function toLocalText(instant: number, timeZone: string): string {
  return format(new TZDate(instant, timeZone), SHAPE);
}

/** The instant of a local text; null when it is empty or no moment. */
export function fromLocalText(text: string, timeZone: string): number | null {
  const read = /^(\d{4})-(\d{2})-(\d{2})T(\d{2}):(\d{2})/.exec(text);
  if (!read) return null;
  const [year, month, day, hour, minute] = read.slice(1).map(Number) as [
    number,
    number,
    number,
    number,
    number,
  ];
  const moment = new TZDate(year, month - 1, day, hour, minute, timeZone);
  // A day that the month does not have would be one of the next.
  return isValid(moment) && moment.getDate() === day ? moment.getTime() : null;
}

/** When something happened, by the clock at the site. */
export function WhenField(field: Omit<ComponentProps<typeof DayAndTimeField>, 'hint'>) {
  return <DayAndTimeField {...field} hint=" " />;
}
