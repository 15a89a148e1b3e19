import { cascadeProblem, cylinderRefusal, type CascadeJob } from '../air/index.js';
import { err, ok, type LocalDate, type Result, formatNumber } from '../basics/index.js';
import { readNumber } from '../quantities/index.js';

/** A cylinder or bank as it is typed: figures in litres and bar by gauge. */
export interface TypedVessel {
  readonly volumeL: string;
  readonly bar: string;
}

/** A cylinder as it is typed, with its stamp. */
export interface TypedCylinder extends TypedVessel {
  readonly ratedBar: string;
  readonly testedUntil: string;
}

/** A job as it is typed. */
export interface TypedJob {
  readonly banks: readonly TypedVessel[];
  readonly cylinders: readonly TypedCylinder[];
  readonly fillBar: number;
  readonly tempC: number;
  readonly atmosphereBarAbs: number;
  readonly today: LocalDate;
}

const MOST_L = 10_000;
const MOST_BAR = 600;

/**
 * Understands what was typed; a cylinder that is out of date or under-rated is refused.
 *
 * @returns a job to search; a problem whose field is like `banks.0.bar`
 */
export function cascadeJob(typed: TypedJob): Result<CascadeJob> {
  const { fillBar, tempC, atmosphereBarAbs: air, today } = typed;
  const banks: { volumeL: number; pressureBarAbs: number }[] = [];
  for (const [index, bank] of typed.banks.entries()) {
    const read = readVessel(bank, `banks.${index}`);
    if (!read.ok) return read;
    banks.push({ volumeL: read.value.volumeL, pressureBarAbs: read.value.bar + air });
  }
  const cylinders: { volumeL: number; pressureBarAbs: number; fullBarAbs: number }[] = [];
  for (const [index, cylinder] of typed.cylinders.entries()) {
    const field = `cylinders.${index}`;
    const read = readVessel(cylinder, field);
    if (!read.ok) return read;
    const rated = bounded(cylinder.ratedBar, 'Its rating', 1, MOST_BAR, `${field}.ratedBar`);
    if (!rated.ok) return rated;
    if (!/^\d{4}-\d{2}-\d{2}$/.test(cylinder.testedUntil)) {
      return err('missing', 'Enter until when it is tested.', `${field}.testedUntil`);
    }
    const stamp = { ratedBar: rated.value, testedUntil: cylinder.testedUntil };
    const refusal = cylinderRefusal(stamp, fillBar, today);
    if (refusal) return err(refusal.code, refusal.sentence, `${field}.${refusal.field}`);
    cylinders.push({
      volumeL: read.value.volumeL,
      pressureBarAbs: read.value.bar + air,
      fullBarAbs: fillBar + air,
    });
  }
  const job = { banks, cylinders, tempC };
  return cascadeProblem(job) ?? ok(job);
}

function readVessel(
  vessel: TypedVessel,
  field: string,
): Result<{ readonly volumeL: number; readonly bar: number }> {
  const volume = bounded(vessel.volumeL, 'The volume', 0.1, MOST_L, `${field}.volumeL`);
  if (!volume.ok) return volume;
  const bar = bounded(vessel.bar, 'The pressure', 0, MOST_BAR, `${field}.bar`);
  return bar.ok ? ok({ volumeL: volume.value, bar: bar.value }) : bar;
}

function bounded(text: string, what: string, min: number, max: number, field: string): Result<number> {
  const read = readNumber(text);
  if (!read.ok) {
    const code = text.trim() === '' ? 'missing' : read.problem.code;
    return err(code, text.trim() === '' ? `Enter ${what.toLowerCase()}.` : read.problem.sentence, field);
  }
  if (read.value >= min && read.value <= max) return read;
  return err('out-of-range', `${what} lies between ${min} and ${formatNumber(max)}.`, field);
}
