import type { DeviceView } from '@entretien/contracts';
import { formatMoment } from '@entretien/core/basics';

/** How a device answers, in words. */
export function answeringText({ state, answeredAt, timeZone }: DeviceView): string {
  const last = answeredAt === null ? null : formatMoment(Date.parse(answeredAt), timeZone);
  switch (state) {
    case 'answers':
      return `Answers, last ${last}`;
    case 'silent':
      return last === null ? 'No answer yet' : `No answer since ${last}`;
    case 'waiting':
      return 'Asked for the first time';
    case 'not-allowed':
      return 'Not asked';
    case 'off':
      return 'Off: not asked';
  }
}
