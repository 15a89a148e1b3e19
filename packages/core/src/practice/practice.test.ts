import { handlings, type Button } from '../simulator/index.js';
import { causeOn, type CauseCode } from '../faults/index.js';
import {
  exerciseByCode,
  exercises,
  FREE,
  isBetter,
  replay,
  Round,
  scoreOf,
  viewOf,
  type PracticeAsk,
} from './index.js';

const asks: Readonly<Record<string, (what: string) => PracticeAsk>> = {
  open: (code) => ({ kind: 'turn', code, share: 1 }),
  shut: (code) => ({ kind: 'turn', code, share: 0 }),
  press: (button) => ({ kind: 'press', button: button as Button }),
  test: (code) => ({ kind: 'test', code }),
  repair: (cause) => ({ kind: 'repair', cause: cause as CauseCode }),
  act: (code) => ({ kind: 'act', code }),
};

/** Plays a round as it is written: what is done, one after the other; `wait` lets minutes pass. */
function played(code: string, seed: string, text: string): Round {
  const round = new Round(exerciseByCode(code, seed)!, seed);
  for (const one of text.trim().split(/\s*;\s*/)) {
    const [kind, what = ''] = one.split(' ');
    if (kind === 'wait') round.pass(60 * Number(what));
    else round.ask(asks[kind!]?.(what) ?? ({ kind } as PracticeAsk));
  }
  return round;
}

/** A way to a safe end of each, and one that hurts, with a word of the step that was left out. */
const courses: Readonly<
  Record<string, { readonly safe: string; readonly hurts: string; readonly leftOut: RegExp }>
> = {
  hums: {
    safe: 'lock; act discharge; test T10; repair CAP; unlock; prove',
    hurts: 'lock; test T10',
    leftOut: /discharged through a resistor/,
  },
  noon: {
    safe: 'test T1; repair DRN; prove',
    hurts: 'press stop; repair BELT',
    leftOut: /your own lock/,
  },
  'two-thirds': {
    safe: 'test T18; lock; open drain-receiver; wait 5; open drain-receiver; wait 5; repair RING; act element; shut drain-receiver; unlock; prove',
    hurts: 'test T18; lock; open drain-receiver; wait 5; test T1; repair RING',
    leftOut: /After the interruption nobody looked again/,
  },
  'every-minute': {
    safe: 'test T18; lock; open drain-receiver; test T19; shut valve-network; act second-opening; repair WATR; act inspect; act gauge; shut drain-receiver; open valve-network; unlock; prove',
    hurts: 'test T18; lock; open drain-receiver; test T19; repair WATR',
    leftOut: /it is blocked.*second opening/,
  },
  afternoon: {
    safe: 'test T26; lock; act note-blow-down; repair COOL; unlock; open vent-vessel; wait 3; shut vent-vessel; press start; prove',
    hurts: 'test T26; lock; open vent-vessel; wait 10; repair OILL',
    leftOut: /under 60 °C/,
  },
  'oil-in-network': {
    safe: 'test T27; lock; shut valve-outlet; open drain-separator; open vent-vessel; wait 130; repair SCAV; shut vent-vessel; shut drain-separator; open valve-outlet; unlock; press start; prove',
    hurts:
      'test T27; lock; shut valve-outlet; open drain-separator; open vent-vessel; wait 130; shut vent-vessel; shut drain-separator; open valve-outlet; wait 10; repair SCAV',
    leftOut: /filled again\. Outlet valve.*stood open/,
  },
  'ten-cylinders': {
    safe: 'press start; wait 2; press stop; test T24; lock; shut valve-bank-1; shut valve-bank-2; open vent-panel; open bleed-tower; open drain-1; open drain-2; wait 8; repair DRN; act gauge; shut vent-panel; shut bleed-tower; shut drain-1; shut drain-2; unlock; prove',
    hurts:
      'test T1; lock; shut valve-bank-1; shut valve-bank-2; open drain-1; open drain-2; wait 2; repair DRN',
    leftOut: /bleed of the tower was never opened/,
  },
  'relief-blows': {
    safe: 'test T22; lock; shut valve-bank-1; shut valve-bank-2; open vent-panel; open bleed-tower; open drain-1; open drain-2; open drain-3; wait 15; repair VD; shut vent-panel; shut bleed-tower; shut drain-1; shut drain-2; shut drain-3; unlock; prove',
    hurts:
      'test T22; lock; shut valve-bank-1; shut valve-bank-2; open bleed-tower; open drain-1; open drain-2; open drain-3; wait 10; shut bleed-tower; wait 20; repair VD',
    leftOut: /opened and shut again before it was empty|filled again/,
  },
  'crews-wait': {
    safe: 'act set-aside; test T33; lock; act thaw; shut valve-bank-1; shut valve-bank-2; open vent-panel; open bleed-tower; open drain-1; open drain-2; open drain-3; wait 8; repair INTK; repair CART; shut bleed-tower; shut vent-panel; shut drain-1; shut drain-2; shut drain-3; unlock; act waste; prove',
    hurts:
      'act set-aside; test T33; lock; shut valve-bank-1; shut valve-bank-2; open bleed-tower; wait 8; repair CART',
    leftOut: /it is blocked/,
  },
};

describe.each(exercises)('$number $name', ({ code, hidden, goalMinutes }) => {
  const course = courses[code]!;

  test.each(['1', '2', '3'])('has a safe end within its goal, draw %s', (seed) => {
    const round = played(code, seed, course.safe);
    expect(round.log.map(({ text }) => text).join('\n')).not.toMatch(/nothing wrong with it/);
    expect(round.end).toMatchObject({ kind: 'mended', missing: [] });
    const { total, cost, risks, over } = scoreOf(round);
    expect(over).toBeLessThanOrEqual(0);
    expect(risks).toEqual([]);
    expect(total).toBeLessThanOrEqual(goalMinutes + cost);
  });

  test('what would hurt ends it, and says the step that was left out', () => {
    const { end, ...round } = played(code, '1', course.hurts);
    expect(end?.kind).toBe('accident');
    if (end?.kind !== 'accident') return;
    expect(end.accident.leftOut).toMatch(course.leftOut);
    expect(round.log.at(-1)!.text).toBe(end.accident.happened);
    // What is done after it moves nothing.
    const after = played(code, '1', `${course.hurts}; unlock; prove`);
    expect(after.end).toEqual(end);
    expect(scoreOf(after).total).toBeNull();
  });

  test('nobody can prove it before it is mended, and its name gives nothing away', () => {
    const round = played(code, '1', 'press reset; prove');
    expect(round.end).toBeNull();
    const view = viewOf(round);
    const shown = JSON.stringify({ ...view, repairs: [], tests: [] });
    for (const { cause } of hidden) expect(shown).not.toContain(causeOn(cause, round.exercise.plate).name);
    expect(view.end).toBeNull();
  });
});

test('the same acts at the same moments come out the same, played again from what was kept', () => {
  const seed = '7';
  const first = played('relief-blows', seed, courses['relief-blows']!.hurts.replace('; repair VD', ''));
  const again = replay(first.exercise, seed, first.done, first.seconds);
  expect(viewOf(again)).toEqual(viewOf(first));
  const other = new Round(first.exercise, '8');
  expect(other.simulation.trueBar('tower')).not.toBe(
    new Round(first.exercise, seed).simulation.trueBar('tower'),
  );
});

test('an instrument shows nothing before it is taken out', () => {
  const round = played('noon', '1', 'wait 1');
  expect(viewOf(round).board).toMatchObject({ amps: null, oilShare: null, temps: [] });
  round.ask({ kind: 'test', code: 'T20' });
  round.ask({ kind: 'test', code: 'T13' });
  const { board } = viewOf(round);
  expect(board.temps.length).toBeGreaterThan(3);
  expect(board.amps).toBeGreaterThan(1);
});

test('what was gone into for nothing costs its minutes and its part, advice costs, and both are counted', () => {
  const round = played('noon', '1', 'advise; lock; open bleed-intercooler; repair VS');
  expect(round.log.at(-1)!.text).toMatch(/there was nothing wrong with it/);
  expect(scoreOf(round)).toMatchObject({ parts: 1, advices: 1, cost: 30, total: null });
  expect(scoreOf(round).minutes).toBeGreaterThan(10 + 3 + 75);
  round.ask({ kind: 'repair', cause: 'VS' });
  expect(scoreOf(round).parts).toBe(1);
});

test('a vent that stays shut, and a start with one open, are risks although nothing happened', () => {
  const round = played('noon', '1', 'lock; repair VS; open drain-receiver; unlock; press start');
  expect(round.risks.map(({ text }) => text)).toEqual([
    'Opened with a vent shut: bleed of the intercooler',
    'Started with an opening to the air: drain of the receiver',
  ]);
  expect(round.end).toBeNull();
});

test('a dangerous test before a safer one that tells as much is a risk', () => {
  const round = played('hums', '1', 'lock; act discharge; test T10');
  const daring = round.risks.filter(({ text }) => /before a safer/.test(text));
  // The capacitor is the likeliest by far here: nothing safer parts it from the supply.
  expect(daring).toEqual([]);
  const other = played('two-thirds', '1', 'lock; test T5');
  expect(other.risks.map(({ text }) => text)).toEqual([expect.stringMatching(/before a safer test/)]);
});

test('locked it does not switch on, and nothing is done that the machine as it stands does not allow', () => {
  const round = played(
    'noon',
    '1',
    'test T4; repair SET; lock; press power-on; press start; test T22; prove',
  );
  expect(round.simulation.see()).toMatchObject({ hasPower: false, drive: 'off' });
  expect(round.answers).toEqual([]);
  expect(round.tried).toEqual([]);
  expect(round.log.map(({ text }) => text).filter((text) => /lock/i.test(text))).toHaveLength(7);
});

test('codes that are none change nothing', () => {
  const round = played('noon', '1', 'open nothing; test T99; repair XYZ; act none');
  expect(round.log).toEqual([]);
  round.ask({ kind: 'turn', code: 'drain-receiver', share: Number.NaN });
  expect(round.simulation.machine.turnables.get('drain-receiver')!.share).toBe(0);
  expect(exerciseByCode('nothing', '1')).toBeUndefined();
});

test('a fast accident is never better than a slow safe end', () => {
  const slow = { end: 'mended', total: 900 } as const;
  expect(isBetter(slow, { end: 'accident', total: null })).toBe(true);
  expect(isBetter(slow, { end: 'given-up', total: null })).toBe(true);
  expect(isBetter({ end: 'given-up', total: null }, { end: 'accident', total: null })).toBe(true);
  expect(isBetter({ end: 'mended', total: 40 }, slow)).toBe(true);
});

test('at the end stands what the fault finder would have done on the same machine', () => {
  const view = viewOf(played('afternoon', '1', courses['afternoon']!.safe)).end!;
  expect(view.finder!.steps.at(-1)).toBe('Mend: Cooling: cooler dirty, fan, panel off or water short');
  expect(view.finder!.minutes).toBeGreaterThan(40);
  expect(view.hidden).toEqual(['Cooling: cooler dirty, fan, panel off or water short']);
});

describe('drawn by lot', () => {
  const seeds = Array.from({ length: 24 }, (_, at) => `lot-${at}`);

  test('families, one fault, two and none come', () => {
    const drawn = seeds.map((seed) => exerciseByCode(FREE, seed)!);
    expect(new Set(drawn.map(({ plate }) => plate.family)).size).toBe(4);
    expect(new Set(drawn.map(({ hidden }) => hidden.length))).toEqual(new Set([0, 1, 2]));
  });

  test.each(seeds.slice(0, 8))('%s: proved once everything is mended', (seed) => {
    const round = new Round(exerciseByCode(FREE, seed)!, seed);
    for (const { cause, faults } of round.exercise.hidden) {
      for (const code of Object.keys(faults)) round.simulation.fault(code, 0);
      round.mended.push(cause);
    }
    round.ask({ kind: 'prove' });
    expect(round.end).toMatchObject({ kind: 'mended', missing: [] });
  });
});

test('every exercise is handled as its machine is', () => {
  for (const { code, handling, plate } of exercises) {
    const round = new Round(exerciseByCode(code, '1')!, '1');
    const { turnables, spaces } = round.simulation.machine;
    for (const { opens = [], shuts = [], space } of Object.values(handling.places)) {
      for (const handle of [...opens, ...shuts])
        expect([plate.family, turnables.has(handle)]).toEqual([plate.family, true]);
      if (space !== undefined) expect(spaces.has(space)).toBe(true);
    }
  }
  expect(Object.keys(handlings)).toHaveLength(5);
});
