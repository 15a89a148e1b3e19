import { clockForecast, hourClockOf, type CompressorHistory } from '@entretien/core/plan';
import { byTurns, report, timed } from './measure.js';
import { readFleet } from './fleet-readings.js';

const UNITS = 10_000;
const READINGS = 100;
const TASKS = 12;
/** Hours ahead at which the tasks of a machine fall due. */
const AHEAD = Array.from({ length: TASKS }, (_, task) => 20 + task * 60);

/** Early, likely and late dates of a large fleet against one ordered read of the readings they rest on. */
export async function datesBench(dataDir: string, now: number): Promise<void> {
  const fleet = await readFleet(dataDir, UNITS, READINGS, now);
  const histories = fleet.histories.map((readings): CompressorHistory => historyOf(readings));
  const datesOf = (history: CompressorHistory) => {
    const clock = hourClockOf(history, now);
    const from = clock.model!.fromHours;
    let dates = 0;
    for (const hours of AHEAD) {
      const found = clockForecast(clock, from + hours)!;
      dates +=
        Number(found.earlyAt !== null) + Number(found.likelyAt !== null) + Number(found.lateAt !== null);
    }
    return dates;
  };
  const all = () => {
    let dates = 0;
    for (const history of histories) dates += datesOf(history);
    if (dates < UNITS * TASKS * 2) throw new Error(`only ${dates} dates were found`);
  };
  /** A history made anew is a machine of which nothing is kept. */
  const forget = (share: number) => {
    const step = Math.round(1 / share);
    for (let unit = 0; unit < histories.length; unit += step)
      histories[unit] = historyOf(fleet.histories[unit]!);
  };
  const read = () => timed(() => void fleet.readIntoArrays());
  const name = `Three dates for each of ${TASKS} tasks on ${UNITS.toLocaleString('en')} machines, ${READINGS} readings each`;
  const cold = await byTurns(5, () => (forget(1), timed(all)), read);
  report(
    `${name}, from nothing`,
    cold.ratio,
    cold.ratio <= 3,
    '≤ 3',
    `${cold.first.toFixed(0)} ms over one ordered read into arrays ${cold.second.toFixed(0)} ms (medians of 5).`,
  );
  const kept = await byTurns(5, () => (forget(0.01), timed(all)), read);
  report(
    `${name}, fits kept, 1 % of machines changed`,
    kept.ratio,
    kept.ratio <= 0.3,
    '≤ 0.3',
    `${kept.first.toFixed(0)} ms over ${kept.second.toFixed(0)} ms (medians of 5).\n  Query: ${fleet.query}\n  Plan: ${fleet.plan} on reading_by_unit`,
  );
}

function historyOf(readings: CompressorHistory['readings']): CompressorHistory {
  return {
    timeZone: 'UTC',
    commissionedOn: '2024-01-01',
    history: 'new',
    readings,
    meterChanges: [],
    services: [],
  };
}
