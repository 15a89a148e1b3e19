import type { RecordMeasurement } from '@entretien/contracts';
import {
  atmosphereAt,
  interstagePressures,
  predictStages,
  pumpUpFlow,
  USUAL_EXPONENT,
} from '@entretien/core/air';
import { checkByCode, type CheckValues } from '@entretien/core/checks';
import type { DataPlate } from '@entretien/core/machine';
import seedrandom from 'seedrandom';
import { resultsOf } from '@entretien/core/visit';
import type { CompressorStory } from './story.js';

/** What a visit measured, before the numbers get their ids. */
export type Measured = Pick<RecordMeasurement, 'check' | 'values'> &
  Partial<Pick<RecordMeasurement, 'baseline' | 'note'>>;

/** A visit as the instruments see it. */
export interface MeasuredVisit {
  /** Hours run since it was new. */
  readonly ran: number;
  /** Day of the year, 0 to 365. */
  readonly season: number;
  readonly daysAgo: number;
}

/** Drop over a new separator element, and what a thousand hours add to it, bar. */
const [NEW_DROP, DROP_PER_1000_H] = [0.22, 0.06];
const CLIMBING_PER_1000_H = 0.15;
/** Air of a hot hall in winter, °C. */
const LEAST_IN_HOT_HALL_C = 25;
/** Share of the free air delivered that a thousand hours cost. */
const WEAR_PER_1000_H = 0.03;
const SLIPPING_PER_1000_H = 0.16;

/**
 * The instruments of one unit: what they show follows from how long it ran since the work that mends it, from the
 * season, and from a little scatter of reading them.
 */
export class Instruments {
  private readonly random: () => number;
  private readonly resetAt = new Map<string, number>();
  private readonly seen = new Set<string>();
  private visits = 0;

  constructor(
    private readonly story: CompressorStory,
    private readonly altitudeM: number,
    seed: string,
  ) {
    this.random = seedrandom(seed);
  }

  /** What is measured before the work of a visit: not everything every time. */
  before(visit: MeasuredVisit): Measured[] {
    this.visits += 1;
    const { plate } = this.story;
    const every = (visits: number) => this.visits % visits === 1 || visits === 1;
    const found: (Measured | null)[] = [];
    if (plate.family === 'screw') {
      if (every(2)) found.push(this.separatorDrop(visit), this.discharge(visit));
      if (every(9)) found.push(this.oilLevel(visit));
    }
    if (plate.family === 'piston' || plate.family === 'piston-oil-free') {
      if (every(3)) found.push(this.pumpUp(visit));
      if (every(8)) found.push(this.capacitor(), this.gaugeZero());
      if (every(11)) found.push(this.oilLevel(visit));
    }
    if (plate.family === 'high-pressure') {
      if (every(2)) found.push(this.expected(visit));
      found.push(this.cartridge(visit), this.monoxide());
    }
    return found.flatMap((one) => (one ? [this.marked(one)] : []));
  }

  /** What is measured again once work was done that ought to have moved it. */
  after(visit: MeasuredVisit, tasks: readonly string[]): Measured[] {
    const moved = ['separator-drop', 'pump-up', 'stage-pressures', 'cartridge-weight'].filter((check) =>
      checkByCode(check)?.resetBy?.some((task) => tasks.includes(task)),
    );
    moved.forEach((check) => this.resetAt.set(check, visit.ran));
    const again: Record<string, () => Measured | null> = {
      'separator-drop': () => this.separatorDrop(visit),
      'pump-up': () => this.pumpUp(visit),
      'stage-pressures': () => this.expected(visit),
    };
    return moved.flatMap((check) => {
      const one = this.fits(check) ? again[check]?.() : null;
      return one ? [this.marked(one)] : [];
    });
  }

  /** The results of the tests among some tasks: without them they would only have been looked at. */
  tests(tasks: readonly string[]): Measured[] {
    const plate = { ...this.story.plate, siteId: '', commissionedOn: '' } as DataPlate;
    const checks = tasks.flatMap((code) => resultsOf({ code }, plate).slice(0, 1));
    return checks.map((check) => ({ check, values: this.resultOf(check) }));
  }

  private resultOf(check: string): CheckValues {
    const { cutInBar, cutOutBar, workingPressureBar, reliefBar, maximumPressureBar } = this.story.plate;
    const working = workingPressureBar ?? cutOutBar ?? 8;
    switch (check) {
      case 'relief-valve':
        return { opens: 'yes', reseats: 'tight', by: 'lift' };
      case 'shutdowns':
        return { overTemperature: 'yes', lowOil: 'none', overload: 'yes' };
      case 'gauge-zero':
        return { readingBar: 0, fullScaleBar: 16, kind: 'yes' };
      case 'belt-deflection':
        return {
          method: 'gauge',
          look: 'sound',
          spanMm: 480,
          deflectionMm: 7.5,
          forceN: 20,
          leastForceN: 13,
          mostForceN: 27,
        };
      case 'check-valve':
        return { air: 'no' };
      case 'co-monitor':
        return { zeroGasPpm: 10, zeroReadingPpm: 10, spanGasPpm: 20, spanReadingPpm: 20, stops: 'yes' };
      default:
        return {
          cutInBar: cutInBar ?? working * 0.8,
          workingBar: working,
          stopBar: cutOutBar ?? working,
          reliefBar: reliefBar ?? working * 1.1,
          maximumBar: maximumPressureBar ?? working * 1.2,
        };
    }
  }

  private fits(check: string): boolean {
    return checkByCode(check)!.applies({ ...this.story.plate, siteId: '', commissionedOn: '' } as DataPlate);
  }

  /** The first of a check is its baseline, where it is one that has a figure. */
  private marked(measured: Measured): Measured {
    const isFirst = !this.seen.has(measured.check);
    this.seen.add(measured.check);
    const hasBaseline = measured.check === 'pump-up' || measured.check === 'stage-pressures';
    return isFirst && hasBaseline ? { ...measured, baseline: true } : measured;
  }

  private since(check: string, { ran }: MeasuredVisit): number {
    return ran - (this.resetAt.get(check) ?? 0);
  }

  /** Scatter of reading an instrument, about nothing. */
  private scatter(size: number): number {
    return size * (this.random() + this.random() + this.random() - 1.5);
  }

  private ambientC({ season }: MeasuredVisit): number {
    const yearly = -9 * Math.cos((2 * Math.PI * (season - 20)) / 365);
    return Math.round(14 + yearly + this.scatter(3));
  }

  /** Damp in the cold season, drier in the warm. */
  private humidity({ season }: MeasuredVisit): number {
    return Math.round(68 + 14 * Math.cos((2 * Math.PI * (season - 15)) / 365));
  }

  private separatorDrop(visit: MeasuredVisit): Measured {
    const per1000 = this.story.separatorClimbs ? CLIMBING_PER_1000_H : DROP_PER_1000_H;
    const drop = NEW_DROP + (this.since('separator-drop', visit) / 1000) * per1000;
    return { check: 'separator-drop', values: { dropBar: rounded(drop + this.scatter(0.03), 2) } };
  }

  private discharge(visit: MeasuredVisit): Measured {
    const outside = this.ambientC(visit) + (this.story.plate.dust === 'dusty' ? 6 : 3);
    // Beside a furnace it is summer all year.
    const ambientC = this.story.hallIsHot ? Math.max(outside, LEAST_IN_HOT_HALL_C) : outside;
    const tempC = Math.round(ambientC + 58 + (this.story.hallIsHot ? 9 : 0) + this.scatter(5));
    return {
      check: 'discharge-temperature',
      values: {
        tempC,
        ambientC,
        place: 'pocket',
        mostRiseK: 70,
        tripC: 110,
        humidityPercent: this.humidity(visit),
      },
    };
  }

  private oilLevel({ daysAgo }: MeasuredVisit): Measured | null {
    if (!this.fits('oil-level')) return null;
    const level = daysAgo > 60 && this.random() < 0.12 ? 'below' : 'between';
    const glass = this.story.glassStained && daysAgo < 120 ? 'stained' : 'clear';
    return { check: 'oil-level', values: { level, glass } };
  }

  private pumpUp(visit: MeasuredVisit): Measured | null {
    const { plate } = this.story;
    const { fadLpm, receiverL, cutInBar, cutOutBar } = plate;
    if (!fadLpm || !receiverL || !cutOutBar) return null;
    const per1000 = this.story.pumpUpSlips ? SLIPPING_PER_1000_H : WEAR_PER_1000_H;
    const share = Math.max(0.6, 1 - (this.since('pump-up', visit) / 1000) * per1000 + this.scatter(0.015));
    const [fromBar, toBar] = [cutInBar ?? cutOutBar - 2, cutOutBar];
    const pressure = atmosphereAt(this.altitudeM);
    if (!pressure.ok) return null;
    const inOneMinute = pumpUpFlow({
      volumeL: receiverL,
      fromBarAbs: fromBar + pressure.value,
      toBarAbs: toBar + pressure.value,
      seconds: 60,
      fromTempC: 20,
      toTempC: 20,
      intakeBarAbs: pressure.value,
    });
    if (!inOneMinute.ok) return null;
    const seconds = rounded((60 * inOneMinute.value.flowLpm) / (fadLpm * share), 1);
    return { check: 'pump-up', values: { fromBar, toBar, seconds, gaugeStepBar: 0.05, watchS: 0.2 } };
  }

  private capacitor(): Measured | null {
    if (this.story.plate.motor !== 'single-phase') return null;
    const values = { measuredUf: rounded(44.2 - this.visits * 0.02 + this.scatter(0.3), 1), labelUf: 45 };
    return { check: 'capacitor', values };
  }

  private gaugeZero(): Measured {
    return {
      check: 'gauge-zero',
      values: { readingBar: this.visits > 20 ? 0.2 : 0, fullScaleBar: 16, kind: 'yes' },
    };
  }

  private expected(visit: MeasuredVisit): Measured | null {
    const { plate } = this.story;
    const [stages, workingPressureBar] = [plate.stages ?? 3, plate.workingPressureBar ?? 300];
    const pressure = atmosphereAt(this.altitudeM);
    if (!pressure.ok) return null;
    const intakeTempC = this.ambientC(visit);
    const expected = interstagePressures({
      stages,
      intakeBarAbs: pressure.value,
      finalBarAbs: workingPressureBar + pressure.value,
      intakeTempC,
      cooledTempC: intakeTempC + 10,
    });
    if (!expected.ok) return null;
    // The last stage of one set has begun to let gas back.
    const leak = this.story.lastStageLeaks ? Math.max(0, 0.24 * (1 - visit.daysAgo / 90)) : 0;
    const shown = predictStages(
      {
        intakeBarAbs: pressure.value,
        intakeTempC,
        cooledTempC: intakeTempC + 10,
        exponent: USUAL_EXPONENT,
        designBarAbs: workingPressureBar + pressure.value,
        pressuresBarAbs: expected.value.states.map(({ toBarAbs }) => toBarAbs),
        warmerK: expected.value.states.map(() => 0),
      },
      leak > 0 ? [{ kind: 'valves', stage: stages, size: leak }] : [],
    );
    const values: Record<string, number> = { intakeTempC };
    shown.pressuresBarAbs.forEach((barAbs, index) => {
      const stage = index + 1;
      const bar =
        stage === stages ? workingPressureBar : (barAbs - pressure.value) * (1 + this.scatter(0.015));
      values[`stage${stage}Bar`] = rounded(bar, stage <= 1 ? 1 : 0);
      values[`stage${stage}TempC`] = Math.round(shown.outletTempsC[index]! + this.scatter(3));
    });
    return { check: 'stage-pressures', values: values satisfies CheckValues };
  }

  private cartridge(visit: MeasuredVisit): Measured {
    const used = Math.min(1.05, this.since('cartridge-weight', visit) / 32);
    return {
      check: 'cartridge-weight',
      values: { weightG: Math.round(1240 + 160 * used + this.scatter(3)), dryG: 1240, saturatedG: 1400 },
    };
  }

  private monoxide(): Measured | null {
    if (!this.fits('co')) return null;
    return {
      check: 'co',
      values: { coPpm: rounded(1.2 + Math.abs(this.scatter(1)), 1), standard: 'en-12021' },
    };
  }
}

function rounded(value: number, decimals: number): number {
  return Number(value.toFixed(decimals));
}
