import { fitUse, forecastHours, type RunHours } from '@entretien/core/hours';
import seedrandom from 'seedrandom';
import { habits, randomOf, simulate, type Simulated } from './habits.js';
import { gaussianDays } from './inverse-gaussian.js';
import { median, report } from './measure.js';
import { DAY } from './seed.js';

/** Machines of each habit. */
const EACH = 400;
/** The choices of the model were made on this seed; `ENTRETIEN_CALIBRATION_SEED=tuning` shows it. */
const REPORT_SEED = 'report';

/** What became of the forecasts of one habit. A machine without a date has missed its band, and every date. */
interface Tally {
  inside: number;
  tooEarly: number;
  dateless: number;
  readonly widths: number[];
  readonly errors: Readonly<Record<Way, number[]>>;
  gaussianInside: number;
}

const ways = ['forecast', 'lifetime', 'lastTwo', 'gaussian'] as const;
type Way = (typeof ways)[number];

function emptyTally(): Tally {
  const errors = { forecast: [], lifetime: [], lastTwo: [], gaussian: [] };
  return { inside: 0, tooEarly: 0, dateless: 0, widths: [], errors, gaussianInside: 0 };
}

function judge({ at, hours, target, trueDays }: Simulated, tally: Tally): void {
  const runHours: RunHours = { at, hours, counts: 'total', lastEstimated: false };
  const last = at.length - 1;
  const remaining = target - hours[last]!;
  const { earlyAt, likelyAt, lateAt } = forecastHours(fitUse({ runHours })!, runHours, target);
  const days = (moment: number | null) => (moment === null ? Infinity : (moment - at[last]!) / DAY);
  const [early, likely, late] = [days(earlyAt), days(likelyAt), days(lateAt)];
  if (likelyAt === null) tally.dateless += 1;
  else tally.widths.push((late - early) / trueDays);
  if (trueDays >= early && trueDays <= late) tally.inside += 1;
  if (trueDays < early) tally.tooEarly += 1;
  const rate = (from: number) => (hours[last]! - hours[from]!) / ((at[last]! - at[from]!) / DAY);
  const gaussian = gaussianDays(at, hours, remaining);
  if (trueDays >= gaussian.early && trueDays <= gaussian.late) tally.gaussianInside += 1;
  const found = {
    forecast: likely,
    lifetime: remaining / rate(0),
    lastTwo: remaining / rate(last - 1),
    gaussian: gaussian.likely,
  };
  for (const way of ways) tally.errors[way].push(Math.abs(found[way] - trueDays));
}

function row(name: string, tallies: readonly Tally[]): string {
  const count = tallies.reduce((total, tally) => total + tally.errors.forecast.length, 0);
  const share = (pick: (tally: Tally) => number) =>
    `${((100 * tallies.reduce((total, tally) => total + pick(tally), 0)) / count).toFixed(1)} %`.padStart(8);
  const days = (way: Way) =>
    median(tallies.flatMap((tally) => tally.errors[way]))
      .toFixed(2)
      .padStart(9);
  const width = median(tallies.flatMap((tally) => tally.widths)).toFixed(2);
  return [
    `  ${name.padEnd(10)} ${String(count).padStart(5)}`,
    share((tally) => tally.inside),
    share((tally) => tally.tooEarly),
    share((tally) => tally.dateless),
    width.padStart(6),
    ...ways.map(days),
    share((tally) => tally.gaussianInside),
  ].join(' ');
}

/** How often the early-to-late band holds the true date, and how far off the likely date is. */
export function calibrationBench(): void {
  const random = randomOf(seedrandom(process.env['ENTRETIEN_CALIBRATION_SEED'] ?? REPORT_SEED));
  const tallies = new Map<string, Tally>();
  for (const habit of Object.keys(habits)) {
    const tally = emptyTally();
    tallies.set(habit, tally);
    for (let machine = 0; machine < EACH; machine++) judge(simulate(habit, random), tally);
  }
  const all = [...tallies.values()];
  console.log(
    [
      'Calibration of the forecast: early-to-late band (meant to hold 80 %) and median error of the likely date in days',
      '  habit      count  in band    before  no date  width  forecast lifetime  last two inv. Gauss.  its band',
      ...[...tallies].map(([habit, tally]) => row(habit, [tally])),
      row('all', all),
      '  before: the true date came before the early one. width: median of late − early over the days to the true',
      '  date, an open band counted as endless. A machine without a date counts as missed in every column.',
      '',
    ].join('\n'),
  );
  const held = (some: readonly Tally[]) =>
    some.reduce((total, tally) => total + tally.inside, 0) /
    some.reduce((total, tally) => total + tally.errors.forecast.length, 0);
  const overall = held(all);
  report('Band over all machines', overall, overall >= 0.77 && overall <= 0.83, '0.77 to 0.83', '');
  const shares = all.map((tally) => held([tally]));
  const [least, most] = [Math.min(...shares), Math.max(...shares)];
  report('Band in the habit it holds least', least, least >= 0.68, '≥ 0.68', '');
  report('Band in the habit it holds most', most, most <= 0.92, '≤ 0.92', '');
  const middle = (way: Way) => median(all.flatMap((tally) => tally.errors[way]));
  for (const [way, name] of [
    ['lifetime', 'average since commissioning'],
    ['lastTwo', 'last two readings'],
  ] as const) {
    const ratio = middle('forecast') / middle(way);
    report(`Median error over that of “${name}”`, ratio, ratio <= 0.6, '≤ 0.6', '');
  }
}
