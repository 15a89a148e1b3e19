import type { Problem } from '../basics/index.js';
import { MOST_HIGH_PRESSURE_DRAIN_MIN } from './drains.js';
import { stageBounds, stagesOf, type DataPlate } from './data-plate.js';

/** A stage seldom presses by more than this: hotter than its oil and valves stand (practice). */
const MOST_RATIO = 14;
/** Share of displacement that a sound compressor delivers as free air (practice). */
const FAD_SHARE = { least: 0.4, most: 0.95 };
/** One standard atmosphere, bar. */
const ATMOSPHERE = 1.01325;
/** Two figures of one flow that differ by more than rounding to another unit makes them (practice). */
const FLOW_TOLERANCE = 0.03;

/**
 * What cannot be true of a data plate: stages that the family is not built with, pressures out of order.
 *
 * @returns one problem per field, empty when there is nothing to refuse.
 */
export function plateProblems(plate: DataPlate): Problem[] {
  const problems: Problem[] = [];
  const bounds = stageBounds[plate.family];
  if (plate.stages !== undefined && (plate.stages < bounds.min || plate.stages > bounds.max)) {
    problems.push({
      code: 'stages-of-family',
      field: 'stages',
      sentence: `A ${plate.family} compressor has ${bounds.min} to ${bounds.max} stages, not ${plate.stages}.`,
    });
  }
  if (plate.retiredOn !== undefined && plate.retiredOn < plate.commissionedOn) {
    problems.push({
      code: 'retired-before-commissioned',
      field: 'retiredOn',
      sentence: `It cannot retire on ${plate.retiredOn}, before it was commissioned on ${plate.commissionedOn}.`,
    });
  }
  return problems;
}

/**
 * What is odd about a data plate and should be looked at beside the machine: it is stored and marked, since
 * the plate may really say so. Settings must stand cut-in < working ≤ cut-out < relief ≤ maximum allowed.
 */
export function plateDoubts(plate: DataPlate): Problem[] {
  return [
    ...settingDoubts(plate),
    ...stageDoubts(plate),
    ...quotedDoubts(plate),
    ...flowDoubts(plate),
    ...drainDoubts(plate),
  ];
}

function drainDoubts({ family, drainEveryMin }: DataPlate): Problem[] {
  if (family !== 'high-pressure' || drainEveryMin === undefined) return [];
  if (drainEveryMin <= MOST_HIGH_PRESSURE_DRAIN_MIN) return [];
  return [
    {
      code: 'drained-seldom',
      field: 'drainEveryMin',
      sentence: `Drained every ${drainEveryMin} min: at high pressure water stands over its drain after ${MOST_HIGH_PRESSURE_DRAIN_MIN} min, and goes into the next stage.`,
    },
  ];
}

function settingDoubts(plate: DataPlate): Problem[] {
  const expected = [
    { field: 'cutInBar', name: 'Cut-in', strict: true },
    { field: 'workingPressureBar', name: 'Working pressure', strict: false },
    { field: 'cutOutBar', name: 'Cut-out', strict: true },
    { field: 'reliefBar', name: 'The relief setting', strict: false },
    { field: 'maximumPressureBar', name: 'The maximum allowed', strict: false },
  ] as const;
  const known = expected.filter((state) => plate[state.field] !== undefined);
  const doubts: Problem[] = [];
  known.slice(1).forEach((upper, index) => {
    const lower = known[index]!;
    const strict = expected
      .slice(expected.indexOf(lower), expected.indexOf(upper))
      .some((stateBetween) => stateBetween.strict);
    const [low, high] = [plate[lower.field]!, plate[upper.field]!];
    if (low > high || (strict && low === high)) {
      doubts.push({
        // A relief valve in the wrong place protects nobody.
        code: upper.field === 'reliefBar' || lower.field === 'reliefBar' ? 'relief-order' : 'pressure-order',
        field: upper.field,
        sentence: `${upper.name} (${high} bar) must be ${strict ? 'above' : 'at least'} ${lower.name.toLowerCase()} (${low} bar).`,
      });
    }
  });
  return doubts;
}

/** So few stages to so much pressure: one of the two figures is not right. */
function stageDoubts(plate: DataPlate): Problem[] {
  const { workingPressureBar, stages } = plate;
  if (workingPressureBar === undefined) return [];
  const count = stagesOf(plate);
  const ratio = (workingPressureBar / ATMOSPHERE + 1) ** (1 / count);
  if (ratio <= MOST_RATIO) return [];
  return [
    {
      code: 'stages-for-pressure',
      field: stages === undefined ? 'workingPressureBar' : 'stages',
      sentence: `${count === 1 ? 'One stage' : `${count} stages`} to ${workingPressureBar} bar: each would press ${Math.round(ratio)} times. Is the pressure or the number of stages right?`,
    },
  ];
}

function quotedDoubts({ fadLpm, fadQuotedLpm }: DataPlate): Problem[] {
  if (!fadLpm || !fadQuotedLpm) return [];
  const apart = Math.abs(fadQuotedLpm - fadLpm) / fadLpm;
  if (apart <= FLOW_TOLERANCE) return [];
  return [
    {
      code: 'flows-disagree',
      field: 'fadQuotedLpm',
      sentence: `Its two flow figures do not agree: ${Math.round(fadLpm)} and ${Math.round(fadQuotedLpm)} L/min are ${Math.round(apart * 100)} % apart. Which one is delivered air?`,
    },
  ];
}

function flowDoubts({ displacementLpm, fadLpm }: DataPlate): Problem[] {
  if (!displacementLpm || !fadLpm) return [];
  const share = fadLpm / displacementLpm;
  if (share >= FAD_SHARE.least && share <= FAD_SHARE.most) return [];
  return [
    {
      code: 'fad-share',
      field: 'fadLpm',
      sentence: `Free air delivered is ${Math.round(share * 100)} % of displacement; 40 to 95 % is usual. Are the two figures mixed up?`,
    },
  ];
}
