import { USUAL_CAPACITOR_TOLERANCE } from '../electrics/index.js';
import type { Verdict } from './check.js';
import { percent } from './verdict-helpers.js';
import { dischargeTable } from './library/discharge-limits.js';
import { FAR_ABOVE, NEW_BELT, SLACK, TIGHT } from './library/drive.js';
import { COLD_WATER_K, DROPS, FROST_C, USUAL_TILT_DEG, WATER_OUT_C, WATER_RISE_K } from './library/feeds.js';
import { ALARM, ALIVE, LONGEST_TEST_YEARS, MONITOR, USUAL_RANGE_PPM } from './library/filling.js';
import { LEAK, LIKELY, SHORT, SHORTEST_S } from './library/flow.js';
import {
  ABOVE_DEW_POINT_K,
  MOST_ABOVE_USUAL_K,
  NEAR_TRIP_K,
  NO_DROP_BAR,
  OVER_BASELINE,
  PAST_RISE_K,
  SEPARATOR,
  SURFACE_K,
  WARM_AFTER_MIN,
  WARM_SCREW_C,
} from './library/heat.js';
import { ACID, ACID_ALONE, OIL_PPM, VISCOSITY } from './library/laboratory.js';
import { foundLines } from './library/looks.js';
import {
  CREEP,
  DROOP,
  LINE_DROPS,
  LINE_FILTER,
  NEAR_LABEL,
  NO_LINE_DROP_BAR,
  USUAL_DROPS,
} from './library/points-of-use.js';
import {
  breathingAir,
  breathingDewPoint,
  dewPointClasses,
  NEAR,
  NEAR_CO2,
  SLIP,
  technicalCo,
  waterLimits,
} from './library/purity.js';
import {
  ABOVE_MAXIMUM,
  ABOVE_SET,
  BELOW_SET,
  DISTANCE,
  FAR_ABOVE_SET,
  GOOD_CLASS,
  LEAST_LIFT,
  NEAR_STOP,
  WORKSHOP_BAR,
} from './library/relief-limits.js';
import { BY_HAND, CUT_OUT_SCATTER, DIFFERENCE, GAUGE_ZERO_SHARE, PRESSURE_BAR } from './library/settings.js';
import {
  COMES_BACK,
  HOLDING,
  LEAST_NETWORK_BAR,
  OFF_LOAD,
  RELEASE,
  THERMOSTAT,
  USUAL_HOLDING_BAR,
  USUAL_THERMOSTAT_C,
} from './library/valve-points.js';

/** One limit of a check in words, made of the figures that it is judged by. */
export interface LimitLine {
  readonly when: string;
  /** `refused`: the figures cannot be; `none`: nothing to compare with yet. */
  readonly verdict: Verdict | 'refused' | 'none';
  readonly source: string;
}

const PRACTICE = 'common practice';
const MANUAL = 'the manual';
const MEMORY = 'common practice (memory)';
const line = (verdict: LimitLine['verdict'], when: string, source = PRACTICE): LimitLine => ({
  when,
  verdict,
  source,
});

const standards = Object.values(breathingAir);
const en = breathingAir['en-12021'];

/** The limits of every check, by its code: the page of the handbook is made of them. */
export const limitLines: Readonly<Record<string, readonly LimitLine[]>> = {
  'oil-level': [
    line('stop', 'no oil to be seen'),
    line('act', 'below its mark, or above where the unit is not read to the rim or above a line', MANUAL),
    line('act', 'glass stained, cracked or weeping'),
  ],
  'oil-pressure': [
    line('stop', 'below the lowest of the manual', MANUAL),
    line('watch', 'above the highest of the manual', MANUAL),
    line('refused', 'a lowest pressure of 0, or above the highest'),
  ],
  'oil-look': [
    line('stop', 'metal'),
    line(
      'act',
      'milky, water drops, black and burnt; foam on a screw; black where somebody breathes the air',
    ),
    line(
      'watch',
      'foam; dark or browned on a screw; browned where somebody breathes the air; dark at high pressure',
    ),
    line('good', 'dark on a splash-lubricated piston near its interval'),
  ],
  'belt-deflection': [
    line('act', 'force at its deflection under the lowest: slack; over the highest: too tight', MANUAL),
    line('good', `a new belt: up to ${NEW_BELT} times the highest, where the manual has no figure for it`),
    line(
      'act',
      `no force read: ${percent(SLACK)} of the deflection or more, ${percent(TIGHT)} or less (span/64)`,
    ),
    line('act', 'cracked, frayed or glazed'),
    line('watch', 'judged by feel, or pressed without reading the force'),
    line('none', 'no force by the manual'),
  ],
  capacitor: [
    line('act', 'outside the range of the motor’s maker, which beats the label', MANUAL),
    line(
      'act',
      `more than its tolerance under the label, ${percent(USUAL_CAPACITOR_TOLERANCE)} where it says none`,
      'the label',
    ),
    line('watch', 'above its tolerance', 'the label'),
    line('act', `more than ${percent(FAR_ABOVE)} above its label`),
  ],
  rotation: [line('stop', 'against the arrow', MANUAL)],
  'vibration-sound': [
    line('watch', 'other than on the first day', 'its own baseline'),
    line('none', 'nobody knows how it was'),
  ],
  'gauge-zero': [
    line('act', `more than ${percent(GAUGE_ZERO_SHARE)} of full scale on a vented gauge, or the wrong kind`),
    line(
      'act',
      `more than ${PRESSURE_BAR} bar, whatever the scale: pressure until an open vent proves otherwise`,
      '2014/68/EU: pressure equipment above 0.5 bar (memory)',
    ),
    line('refused', 'a full scale of 0'),
  ],
  'relief-valve': [
    line('stop', 'does not open; capped, wired, or a shut-off before it'),
    line(
      'stop',
      `opened more than ${percent(ABOVE_MAXIMUM)} above the maximum allowed; ${percent(FAR_ABOVE_SET)} above its setting where no maximum is known`,
    ),
    line(
      'good',
      `opened up to its setting and the larger of ${percent(ABOVE_SET.share)} and ${ABOVE_SET.bar} bar, also when set at the maximum`,
      'ISO 4126 (memory)',
    ),
    line('act', 'above that'),
    line('act', 'with what the gauge may be off it could be over the maximum: measure with a test gauge'),
    line(
      'watch',
      `more than ${percent(BELOW_SET.watch)} below its setting; a gauge worse than class ${GOOD_CLASS} gets its class first`,
    ),
    line(
      'act',
      `more than ${percent(BELOW_SET.act)} below, or within ${percent(NEAR_STOP)} of the stop; weeps`,
    ),
    line('watch', `lifted at less than ${percent(LEAST_LIFT)} of its setting: no test`),
  ],
  'pressure-settings': [
    line(
      'stop',
      'relief above the maximum allowed, above the weakest part connected, or not above what it works and stops at',
    ),
    line(
      'stop',
      'the relief lets off less than all compressors on the vessel deliver; lower side without its own relief',
    ),
    line(
      'watch',
      `relief nearer to the stop than ${DISTANCE.workshopBar} bar and ${percent(DISTANCE.workshop)} (to ${WORKSHOP_BAR} bar), ${percent(DISTANCE.workshop)} (pistons above), ${percent(DISTANCE.high)} (high pressure); not judged where the relief is the end signal`,
    ),
    line('act', 'the same, once it has blown; cut-in, working pressure and stop out of order'),
    line('watch', `less than ${DIFFERENCE.bar} bar or ${percent(DIFFERENCE.share)} between cut-in and stop`),
    line('watch', `stopped by hand above ${percent(BY_HAND)} of the maximum`),
  ],
  'check-valve': [line('act', 'air goes on at the unloader after the hiss')],
  unloader: [
    line('act', 'starts against pressure'),
    line('watch', 'no hiss at stop, but starts without load'),
  ],
  'highest-pressure': [
    line('stop', 'above the maximum allowed, the gauge’s class added', 'the data plate'),
    line('act', `past its cut-out by more than the gauge’s class, or ${percent(CUT_OUT_SCATTER)}`),
    line('act', 'below its cut-out', 'the data plate'),
  ],
  shutdowns: [
    line('stop', 'does not trip; missing or bridged; a screw that never had over-temperature'),
    line('act', 'no over-temperature on a breathing set that runs by itself'),
    line('watch', 'none on an engine, no low-oil on forced lubrication, no overload on a motor; none tested'),
    line('good', 'never fitted to a small splash-lubricated set'),
  ],
  'pump-up': [
    line('watch', `${percent(SHORT.watch!)} short of plate or baseline`),
    line('act', `${percent(SHORT.act!)} short`),
    line(
      'refused',
      `under ${percent(LIKELY.least)} or over ${percent(LIKELY.most)} until looked at again; over stays watch`,
    ),
    line('refused', `shorter than ${SHORTEST_S} s`),
    line('none', 'neither plate nor baseline'),
  ],
  'leak-down': [
    line('watch', `${percent(LEAK.watch!)} of its delivery`),
    line('act', `${percent(LEAK.act!)} of its delivery`),
    line('refused', `shorter than ${SHORTEST_S} s`),
  ],
  'leak-load-cycle': [
    line('watch', `loaded ${percent(LEAK.watch!)} of the time with no air used`),
    line('act', `loaded ${percent(LEAK.act!)} of the time`),
  ],
  'stage-pressures': [
    line('watch', 'a fault is more than 30 % likely, by equal ratios or the baseline'),
    line('act', 'one fault is at least 60 % likely'),
    line('stop', 'after the last stage a tenth above the relief valve (the maximum, the working pressure)'),
    line('stop', 'an outlet at the temperature where such a machine is stopped'),
    line('refused', 'a pressure that falls from stage to stage'),
  ],
  'discharge-temperature': [
    ...dischargeTable.flatMap(({ machine, watch, act, stop }) => [
      line('watch', `${machine}: ${watch} °C`),
      line('act', `${machine}: ${act} °C`),
      line('stop', `${machine}: ${stop} °C`),
    ]),
    line(
      'stop',
      `at its own shutdown temperature and running (believed up to ${MOST_ABOVE_USUAL_K} K above the table)`,
      MANUAL,
    ),
    line('act', `within ${NEAR_TRIP_K} K of it`, MANUAL),
    line(
      'watch',
      'more than the rise of the manual; a rise within it is believed before the table’s watch',
      MANUAL,
    ),
    line('act', `${PAST_RISE_K} K more than the rise of the manual`, MANUAL),
    line('watch', `${OVER_BASELINE.watch} K above the baseline’s rise`, 'its own baseline'),
    line('act', `${OVER_BASELINE.act} K above the baseline’s rise`, 'its own baseline'),
    line(
      'watch',
      `a screw after ${WARM_AFTER_MIN} min at load below the dew point of what it draws in and ${ABOVE_DEW_POINT_K} K; ${WARM_SCREW_C} °C where the humidity is not known`,
    ),
    line('good', `by its surface ${SURFACE_K} K are added before judging`),
    line('none', 'no table, no manual, no baseline'),
  ],
  'separator-drop': [
    line('watch', `under ${NO_DROP_BAR} bar at load: gauge, ports or a burst element`),
    line('watch', `${SEPARATOR.watch} bar`),
    line('act', `${SEPARATOR.act} bar`),
  ],
  'filter-condition': [line('act', 'dirty'), line('stop', 'torn or missing')],
  modifications: [line('watch', 'something that is not on record')],
  'load-factor': [line('watch', 'loaded less than 60 % of its hours'), line('refused', 'loaded above total')],
  'cartridge-weight': [
    line('watch', `${percent(NEAR)} of what it can hold`, 'the label'),
    line('stop', 'full, where somebody breathes the air', 'the label'),
    line('act', 'full', 'the label'),
    line('refused', `beyond ${percent(SLIP.most)}, or ${percent(-SLIP.least)} lighter than dry: mistyped`),
  ],
  co: [
    ...standards.map(({ name, coPpm }) => line('stop', `over ${coPpm} ppm`, `${name} (memory)`)),
    line('watch', `from ${percent(NEAR)} of that`),
    line(
      'watch',
      `${technicalCo.watch} ppm in air that nobody breathes from`,
      'Directive 2017/164/EU, eight hours (memory)',
    ),
    line('act', `${technicalCo.act} ppm`, 'Directive 2017/164/EU, fifteen minutes (memory)'),
    line('stop', `${technicalCo.stop} ppm`, 'NIOSH ceiling (memory)'),
  ],
  'air-quality': [
    ...standards.map(({ name, coPpm, co2Ppm, oilMgM3, oxygen }) =>
      line(
        'stop',
        `over ${coPpm} ppm CO, ${co2Ppm} ppm CO₂, ${oilMgM3} mg/m³ oil; oxygen outside ${oxygen[0]} to ${oxygen[1]} %; smell`,
        `${name} (memory)`,
      ),
    ),
    line(
      'stop',
      `over ${waterLimits.outletMgM3} mg/m³ of water`,
      `${en.name}:2014, at the compressor (memory)`,
    ),
    line('watch', `from ${percent(NEAR)} of a limit; of CO₂ from ${percent(NEAR_CO2)}`),
  ],
  'water-content': [
    line('act', `over ${waterLimits.outletMgM3} mg/m³ at the compressor`, `${en.name}:2014 (memory)`),
    ...waterLimits.stored.map(({ aboveBar, mgM3 }) =>
      line('stop', `over ${mgM3} mg/m³, stored above ${aboveBar} bar`, `${en.name}:2014 (memory)`),
    ),
    line('watch', `from ${percent(NEAR)} of a limit; above the standard by a decision with reason and name`),
    line('refused', 'an own limit looser than the standard without reason and name'),
  ],
  'dew-point': [
    line(
      'act',
      `above its class: ${Object.entries(dewPointClasses)
        .map(([code, temp]) => `${code} ${temp} °C`)
        .join(', ')}`,
      'ISO 8573-1 (memory)',
    ),
    line(
      'act',
      `breathing air: above ${breathingDewPoint.belowColdestK} K under the coldest place, ${breathingDewPoint.unknownC} °C where it is not known`,
      `${en.name} (memory)`,
    ),
    line('watch', 'within 2 K of it'),
  ],
  'co-monitor': [
    line('stop', 'goes on without sample flow'),
    line('stop', `moves by less than ${percent(ALIVE)} of the step between its gases: it does not see them`),
    line(
      'act',
      `off by more than the larger of ${percent(MONITOR.share)} and ${MONITOR.ppm} ppm, or gases out of date`,
    ),
    line('refused', `the same gas twice, or one beyond its range (${USUAL_RANGE_PPM} ppm where not entered)`),
  ],
  cylinder: [
    line('stop', 'out of date, or rated below the fill', 'the stamp'),
    line('refused', `a test still to come, or one that holds more than ${LONGEST_TEST_YEARS} years`),
  ],
  bowl: [line('stop', 'cracked or crazed')],
  'co-alarm': [
    line('stop', 'it sounds and the machine goes on'),
    line('act', `set above ${ALARM.loosestPpm} ppm`, 'CGA Grade D and E (memory)'),
    line('watch', `set above ${ALARM.strictestPpm} ppm`, `${en.name}:2014 (memory)`),
    line('refused', 'set at 0 ppm'),
  ],
  'holding-valve': [
    line('stop', 'at the maximum allowed or above', 'the plate'),
    line(
      'watch',
      `${percent(HOLDING.watchLow)} under its setting or ${percent(HOLDING.watchHigh)} over it; ${USUAL_HOLDING_BAR} bar where none is known`,
    ),
    line('act', `${percent(HOLDING.actLow)} under its setting or ${percent(HOLDING.actHigh)} over it`),
  ],
  'vessel-off-load': [
    line('act', `${percent(COMES_BACK)} of the network or more: it comes back`),
    line('watch', `above ${OFF_LOAD.most} bar, or below ${OFF_LOAD.least} bar`),
    line('act', 'above the highest of the manual, or below its lowest', MANUAL),
    line('refused', `with less than ${LEAST_NETWORK_BAR} bar in the network`),
  ],
  thermostat: [
    line('watch', `more than ${THERMOSTAT.watch} K from its mark`, 'the label'),
    line('act', `more than ${THERMOSTAT.act} K from its mark`, 'the label'),
    line(
      'watch',
      `without a mark outside ${USUAL_THERMOSTAT_C.least} to ${USUAL_THERMOSTAT_C.most} °C; act ${THERMOSTAT.act} K outside it`,
    ),
  ],
  'unloaded-start': [
    line('act', 'does not shut by itself'),
    line(
      'watch',
      `${percent(RELEASE.watch)} from the manual’s time; act from ${percent(RELEASE.act)}`,
      MANUAL,
    ),
    line(
      'watch',
      `timed: under ${RELEASE.timed.least} s or over ${RELEASE.timed.most} s; act under ${RELEASE.timed.short} s`,
    ),
    line('watch', `start bleed: over ${RELEASE.bleed.most} s; act over ${RELEASE.bleed.long} s`),
  ],
  'cooling-water': [
    line('stop', 'no flow'),
    line('act', 'less than the lowest flow of the manual', MANUAL),
    line('watch', `out at ${WATER_OUT_C.watch} °C, or warmed by ${WATER_RISE_K.watch} K`),
    line('act', `out at ${WATER_OUT_C.act} °C, or warmed by ${WATER_RISE_K.act} K`),
    line('stop', `out at ${WATER_OUT_C.stop} °C`),
    line('watch', `in at ${FROST_C} °C or less, or more than ${COLD_WATER_K} K colder than the room`),
  ],
  'lubricator-drops': [
    line('stop', 'none'),
    line(
      'watch',
      `under ${percent(DROPS.watchLow)} or over ${percent(DROPS.watchHigh)} of what the manual asks for`,
      MANUAL,
    ),
    line('act', `under ${percent(DROPS.actLow)} or over ${percent(DROPS.actHigh)} of it`, MANUAL),
    line('none', 'no figure of the manual and no baseline'),
  ],
  tilt: [
    line('act', `above the manual’s figure, ${USUAL_TILT_DEG}° where there is none`, MANUAL),
    line('stop', 'above twice that'),
  ],
  'line-filter-drop': [
    line('watch', `${LINE_FILTER.watch} bar, or ${percent(NEAR_LABEL)} of the figure on its element`),
    line('act', `${LINE_FILTER.act} bar, or the figure on its element`),
    line('watch', `under ${NO_LINE_DROP_BAR} bar while air flows`),
    line('refused', 'no air flows'),
  ],
  'line-lubricator': [
    line(
      'watch',
      `under ${percent(LINE_DROPS.watchLow)} or over ${percent(LINE_DROPS.watchHigh)} of what the tool asks for; where nobody said, of ${USUAL_DROPS.direct} a minute, ${USUAL_DROPS['micro-mist']} of micro-mist`,
    ),
    line('act', `under ${percent(LINE_DROPS.actLow)} or over ${percent(LINE_DROPS.actHigh)} of it`),
    line('watch', 'another air-tool oil than it is marked for', 'the label'),
    line('act', 'compressor oil in it, or nothing'),
  ],
  regulator: [
    line('watch', `${percent(DROOP.watch)} less under flow`),
    line('act', `${percent(DROOP.act)} less under flow, or less than the tool needs`),
    line(
      'act',
      `a minute later above its setting by more than the larger of ${CREEP.bar} bar and ${percent(CREEP.share)}`,
    ),
    line('stop', 'above the lowest rating behind it', 'the label'),
  ],
  'oil-sample': [
    line('watch', `viscosity ${percent(VISCOSITY.watch)} off the new oil; act ${percent(VISCOSITY.act)}`),
    line(
      'watch',
      `acid number ${ACID.watch} mg KOH/g above the new oil, act ${ACID.act}; where that is not known ${ACID_ALONE.watch} and ${ACID_ALONE.act}`,
    ),
    ...Object.values(OIL_PPM).flatMap(({ name, steps }) => [
      line('watch', `${name.toLowerCase()} ${steps.watch} ppm`, MEMORY),
      line('act', `${name.toLowerCase()} ${steps.act} ppm`, MEMORY),
      line('stop', `${name.toLowerCase()} ${steps.stop} ppm`, MEMORY),
    ]),
    line('act', 'whatever the laboratory says, where it is graver', 'the laboratory'),
    line('refused', 'no figure, or ten times the viscosity of the new oil'),
  ],
  ...looked(),
};

/** The same of what is only looked at, made of what it may be found like. */
function looked(): Record<string, readonly LimitLine[]> {
  const lines: Record<string, LimitLine[]> = {};
  for (const [check, verdict, when] of foundLines()) (lines[check] ??= []).push(line(verdict, when));
  return lines;
}
