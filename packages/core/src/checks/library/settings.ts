import type { CheckDefinition } from '../check.js';
import { choice, gauge, yesNo } from '../fields.js';
import {
  doTask,
  figure,
  isHighPressure,
  isPiston,
  isScrew,
  judged,
  limit,
  lookAt,
  valveTask,
} from '../judging.js';

/** Share of full scale that a vented gauge may show. */
const GAUGE_ZERO_SHARE = 0.02;
/** Share by which a relief valve may open beside its setting (common practice). */
const RELIEF_SCATTER = 0.1;

const reliefStation: CheckDefinition['station'] = (plate) => (isHighPressure(plate) ? 'relief' : 'receiver');
const receiverStation: CheckDefinition['station'] = (plate) =>
  isHighPressure(plate) ? 'final-separator' : 'receiver';

export const settingChecks: readonly CheckDefinition[] = [
  {
    code: 'gauge-zero',
    name: 'Gauge at zero',
    how: 'Vented through an open drain; tap it once.',
    caution: 'A gauge at rest proves nothing by itself: vented means an open drain with nothing coming.',
    station: receiverStation,
    applies: () => true,
    fields: [
      gauge('readingBar', 'It shows, vented'),
      gauge('fullScaleBar', 'Full scale', { max: 1000, stays: true }),
      choice('kind', 'Right medium and range for its place', yesNo),
    ],
    figure: { name: 'Off zero', unit: '% of full scale', worse: 'higher', noise: 0.5 },
    resetBy: ['gauge-replace'],
    judge(given) {
      const [reading, full] = [given.need('readingBar'), given.need('fullScaleBar')];
      if (full <= 0) return judged('act', 'A gauge without a range cannot be read: replace it.');
      const share = reading / full;
      const parts = {
        limit: limit(
          GAUGE_ZERO_SHARE * 100,
          `2 % of full scale (${given.say(full * GAUGE_ZERO_SHARE, 'pressure')})`,
          'practice',
        ),
        figure: { value: share * 100, uncertainty: 0.5 },
      } as const;
      const words = `${given.say(reading, 'pressure')} with nothing behind it, ${figure(share * 100)} % of its ${given.say(full, 'pressure')} scale`;
      const replace = doTask('gauge-test', 'Replace it: dry is cheap, filled stays steady and clear');
      if (given.text('kind') === 'no') {
        return judged('act', 'The gauge is of the wrong kind for its place: replace it.', {
          ...parts,
          suggests: [replace],
        });
      }
      if (share > GAUGE_ZERO_SHARE)
        return judged('act', `${words}: over 2 %, it cannot be trusted.`, { ...parts, suggests: [replace] });
      return judged('good', `${words}.`, parts);
    },
  },
  {
    code: 'relief-valve',
    name: 'Relief valve',
    how: 'By this valve’s own means: ring, knob turned back, or the pressure at which it opens. Never to bleed air off.',
    caution: 'Eyes and ears covered, aside of the outlet. Local pressure-equipment law may ask for more.',
    station: reliefStation,
    applies: () => true,
    fields: [
      choice('opens', 'It opens', yesNo),
      choice('reseats', 'It reseats', { tight: 'tight', weeps: 'weeps' }),
      gauge('openedBar', 'Opened at', { optional: true }),
      gauge('reliefBar', 'Set for', { optional: true, plate: 'reliefBar' }),
    ],
    judge(given) {
      const rule = limit(null, 'opens, and reseats tight', 'practice');
      if (given.text('opens') === 'no') {
        return judged('stop', 'The relief valve does not open: do not run it.', {
          limit: rule,
          suggests: [doTask('relief-test', 'New valve of the same setting, then test it')],
        });
      }
      if (given.text('reseats') === 'weeps') {
        return judged('act', 'It opens, then weeps. A worn seat also makes filling slow.', {
          limit: rule,
          suggests: [doTask('relief-test', 'Replace the valve or its seat, then test it')],
        });
      }
      const [opened, set] = [given.number('openedBar'), given.number('reliefBar')];
      if (opened === undefined || set === undefined)
        return judged('good', 'It opens and reseats tight.', { limit: rule });
      const words = `It opened at ${given.say(opened, 'pressure')}, set for ${given.say(set, 'pressure')}`;
      const bounds = limit(null, `within a tenth of ${given.say(set, 'pressure')}`, 'practice');
      if (opened > set * (1 + RELIEF_SCATTER)) {
        return judged('stop', `${words}: too late. Do not run it.`, {
          limit: bounds,
          suggests: [doTask('relief-test', 'New valve of the same setting, then test it')],
        });
      }
      if (opened < set * (1 - RELIEF_SCATTER)) {
        return judged('act', `${words}: too early. Is the gauge right?`, {
          limit: bounds,
          suggests: [doTask('gauge-test', 'The gauge first'), doTask('relief-test', 'Then the setting')],
        });
      }
      return judged('good', `${words}, and it reseats tight.`, { limit: bounds });
    },
  },
  {
    code: 'pressure-settings',
    name: 'Pressure settings',
    how: 'Watch a whole cycle on the gauge.',
    station: receiverStation,
    applies: () => true,
    fields: [
      gauge('cutInBar', 'Cut-in', { optional: true, plate: 'cutInBar' }),
      gauge('workingBar', 'Working pressure', { plate: 'workingPressureBar' }),
      gauge('stopBar', 'Cut-out or auto-stop', { plate: 'cutOutBar' }),
      gauge('reliefBar', 'Relief setting', { plate: 'reliefBar' }),
      gauge('maximumBar', 'Maximum allowed', { plate: 'maximumPressureBar' }),
    ],
    judge(given) {
      const rule = limit(null, 'cut-in < working ≤ stop < relief ≤ maximum allowed', 'practice');
      const rungs = [
        { code: 'cutInBar', name: 'cut-in', strict: true },
        { code: 'workingBar', name: 'working pressure', strict: false },
        { code: 'stopBar', name: 'stop', strict: true },
        { code: 'reliefBar', name: 'relief', strict: false },
        { code: 'maximumBar', name: 'maximum allowed', strict: false },
      ].flatMap((rung) => {
        const value = given.number(rung.code);
        return value === undefined ? [] : [{ ...rung, value }];
      });
      const wrong = rungs.findIndex(({ value }, index) => {
        const below = rungs[index - 1];
        return below !== undefined && (below.strict ? value <= below.value : value < below.value);
      });
      if (wrong < 0) {
        const words = rungs.map(({ name, value }) => `${name} ${given.say(value, 'pressure')}`).join(', ');
        return judged('good', `In order: ${words}.`, { limit: rule });
      }
      const [below, above] = [rungs[wrong - 1]!, rungs[wrong]!];
      return judged(
        'stop',
        `${capital(above.name)} at ${given.say(above.value, 'pressure')} must lie ${below.strict ? 'above' : 'no lower than'} ${below.name} at ${given.say(below.value, 'pressure')}: do not run it so.`,
        { limit: rule, suggests: [doTask('settings-test', 'Set them by the book, gauge checked first')] },
      );
    },
  },
  {
    code: 'check-valve',
    name: 'Check valve',
    how: 'Machine off, receiver under pressure: listen at the unloader after the stop hiss.',
    caution: 'Locked out, the receiver still under pressure: listen, do not open anything.',
    station: () => 'check-valve',
    applies: isPiston,
    fields: [choice('air', 'Air at the unloader goes on', yesNo)],
    judge(given) {
      const rule = limit(null, 'silent after the hiss', 'practice');
      if (given.text('air') === 'no')
        return judged('good', 'Silent after the stop hiss: the check valve holds.', { limit: rule });
      return judged('act', 'Air keeps coming: the check valve lets the receiver back.', {
        limit: rule,
        suggests: [
          doTask('check-valve-test', 'Clean or replace the check valve, with the receiver empty'),
          lookAt('check-valve', 'Seat and spring'),
        ],
      });
    },
  },
  {
    code: 'unloader',
    name: 'Unloader',
    how: 'A hiss at stop, and a start without load. Timed ones stay open the first seconds; a start-bleed valve hisses at start by design.',
    station: (plate) =>
      isScrew(plate) ? 'intake-valve' : isHighPressure(plate) ? 'final-separator' : 'check-valve',
    applies: () => true,
    fields: [choice('hiss', 'Hiss at stop', yesNo), choice('unloaded', 'Starts without load', yesNo)],
    judge(given) {
      const rule = limit(null, 'a hiss at stop and an easy start', 'practice');
      const [hiss, unloaded] = [given.text('hiss') === 'yes', given.text('unloaded') === 'yes'];
      if (hiss && unloaded)
        return judged('good', 'It vents at stop and starts without load.', { limit: rule });
      const what = hiss
        ? 'It vents, but starts against pressure'
        : unloaded
          ? 'No hiss at stop'
          : 'No hiss at stop, and it starts against pressure';
      return judged('act', `${what}: the motor will trip or stall.`, {
        limit: rule,
        suggests: [
          lookAt(
            'check-valve',
            'Unloader valve and its line, then the check valve. Never plug a start-bleed valve',
          ),
        ],
      });
    },
  },
  {
    code: 'highest-pressure',
    name: 'Highest pressure reached',
    how: 'All drains and outlets shut, to cut-out or until it climbs no more.',
    station: receiverStation,
    applies: () => true,
    fields: [
      gauge('reachedBar', 'It reached'),
      gauge('cutOutBar', 'Cut-out or auto-stop', { plate: 'cutOutBar' }),
    ],
    figure: { name: 'Highest pressure', quantity: 'pressure', worse: 'lower', noise: 0.1 },
    resetBy: ['valves-inspect', 'valves-all', 'ring-kit'],
    judge(given) {
      const [reached, cutOut] = [given.need('reachedBar'), given.need('cutOutBar')];
      const parts = {
        limit: limit(cutOut, `cut-out at ${given.say(cutOut, 'pressure')}`, 'plate'),
        figure: { value: reached, uncertainty: 0.1 },
      } as const;
      if (reached >= cutOut)
        return judged('good', `It reaches its cut-out of ${given.say(cutOut, 'pressure')}.`, parts);
      return judged(
        'act',
        `It stalls at ${given.say(reached, 'pressure')}, below its cut-out of ${given.say(cutOut, 'pressure')}.`,
        {
          ...parts,
          suggests: [
            doTask(valveTask(given.plate), 'Valves, ring, head gasket'),
            lookAt('check-valve', 'Check valve'),
            lookAt('outlet', 'A leak, or a drain left open'),
          ],
        },
      );
    },
  },
  {
    code: 'shutdowns',
    name: 'Shutdowns',
    how: 'Each one tripped on purpose.',
    caution: 'The machine stops and may start by itself. Keep clear of belt and fan.',
    station: () => 'motor',
    applies: () => true,
    fields: [
      choice('overTemperature', 'Over-temperature', shutdownAnswers()),
      choice('lowOil', 'Low oil level or pressure', shutdownAnswers()),
      choice('overload', 'Overload', shutdownAnswers()),
    ],
    judge(given) {
      const rule = limit(null, 'every shutdown trips', 'practice');
      const names = { overTemperature: 'over-temperature', lowOil: 'low oil', overload: 'overload' } as const;
      const found = (answer: string) =>
        Object.entries(names).flatMap(([code, name]) => (given.text(code) === answer ? [name] : []));
      const dead = found('no');
      if (dead.length > 0) {
        return judged('stop', `${capital(dead.join(' and '))} did not trip: do not run it without.`, {
          limit: rule,
          suggests: [doTask('shutdown-test', 'Mend it, then trip it again')],
        });
      }
      const tripped = found('yes');
      if (tripped.length === 0) {
        return judged('watch', 'No shutdown was tested: one that was never tested is none.', {
          limit: rule,
          suggests: [doTask('shutdown-test', 'Trip each one')],
        });
      }
      return judged('good', `${capital(tripped.join(' and '))} tripped as meant.`, { limit: rule });
    },
  },
];

function shutdownAnswers() {
  return { yes: 'trips', no: 'does not trip', none: 'it has none' } as const;
}

function capital(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1);
}
