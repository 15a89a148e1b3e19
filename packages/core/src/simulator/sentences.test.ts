import type { DataPlate } from '../machine/index.js';
import { Simulation, type SimulationOptions } from './index.js';

const plateOf = (family: DataPlate['family'], more: Partial<DataPlate> = {}): DataPlate => ({
  siteId: 's',
  tag: 'X-1',
  family,
  commissionedOn: '2024-01-01',
  history: 'new',
  motor: 'three-phase',
  ...more,
});
const plates = {
  piston: plateOf('piston', { stages: 2, receiverL: 100, workingPressureBar: 10 }),
  oilFree: plateOf('piston-oil-free', { motor: 'single-phase' }),
  screw: plateOf('screw'),
  portable: plateOf('screw', { motor: 'diesel' }),
  waterCooled: plateOf('piston', { stages: 2, cooling: 'water', workingPressureBar: 30, receiverL: 300 }),
  highPressure: plateOf('high-pressure', { stages: 4, workingPressureBar: 300, airUse: 'breathing' }),
} as const;

type Faults = Readonly<Record<string, number>>;

function made(which: keyof typeof plates, faults: Faults = {}, options: SimulationOptions = {}): Simulation {
  const simulation = new Simulation(plates[which], options);
  for (const [code, size] of Object.entries(faults)) simulation.fault(code, size);
  return simulation;
}

/** A high-pressure set that has filled for twenty minutes. */
function filling(faults: Faults = {}): Simulation {
  const simulation = made('highPressure', faults);
  simulation.press('start');
  simulation.advance(1200);
  return simulation;
}

/** Seconds that a piston set takes from 4 bar to a pressure, network shut; Infinity where it takes over half an hour. */
function pumpUpSeconds(faults: Faults, toBar = 7, which: 'piston' | 'oilFree' = 'piston'): number {
  const simulation = made(which);
  if (which === 'piston') simulation.turn('valve-network', 0);
  simulation.turn('drain-receiver', 1);
  for (let wait = 0; simulation.trueBar('receiver') > 3.5 && wait < 600; wait++) simulation.advance(1);
  simulation.turn('drain-receiver', 0);
  for (const [code, size] of Object.entries(faults)) simulation.fault(code, size);
  let begun = simulation.now;
  for (let second = 0; second < 1800; second++) {
    if (simulation.trueBar('receiver') < 4) begun = simulation.now;
    if (simulation.trueBar('receiver') >= toBar) return simulation.now - begun;
    simulation.advance(1);
  }
  return Infinity;
}

/** How often it starts in an hour. */
function startsInAnHour(faults: Faults): number {
  const simulation = made('piston', { 'network-leak': 0.01, ...faults });
  let starts = 0;
  let was = simulation.see().drive;
  for (let second = 0; second < 3600; second += 2) {
    simulation.advance(2);
    const is = simulation.see().drive;
    if (was === 'off' && is !== 'off') starts += 1;
    was = is;
  }
  return starts;
}

const heard = (simulation: Simulation, code: string) =>
  simulation.see().senses.find((sense) => sense.code === code)?.strength ?? 0;
const temp = (simulation: Simulation, code: string) =>
  simulation.see().temps.find((one) => one.code === code)!.tempC;
const shown = (simulation: Simulation, code: string) =>
  simulation.see().gauges.find((one) => one.code === code)!.bar;

/** Everything vented and left open for some minutes, as for work on the stages. */
function vented(simulation: Simulation, seconds = 300): Simulation {
  for (const { code, kind } of simulation.machine.turnables.values())
    if (kind === 'drain') simulation.turn(code, 1);
  simulation.advance(seconds);
  return simulation;
}

let sound: Simulation;
beforeAll(() => {
  sound = filling();
});

/** Sentences of the trade, each out of simulation alone. */
const sentences: readonly (readonly [string, () => void])[] = [
  [
    'a leaking discharge valve of stage 3 raises the pressure before it',
    () =>
      expect(filling({ 'discharge-valve-3': 0.3 }).trueBar('stage-2')).toBeGreaterThan(
        1.15 * sound.trueBar('stage-2'),
      ),
  ],
  [
    'a leaking suction valve of stage 2 raises the pressure before it',
    () =>
      expect(filling({ 'suction-valve-2': 0.4 }).trueBar('stage-1')).toBeGreaterThan(
        1.1 * sound.trueBar('stage-1'),
      ),
  ],
  [
    'the cover over a leaking suction valve is the hotter one',
    () =>
      expect(temp(filling({ 'suction-valve-2': 0.3 }), 'suction-cover-2')).toBeGreaterThan(
        temp(sound, 'suction-cover-2') + 15,
      ),
  ],
  [
    'air that comes back through a discharge valve is compressed again: hotter than the ratio of the gauges makes it',
    () => {
      const excess = (simulation: Simulation) => {
        const ratio = (simulation.trueBar('stage-2') + 1.013) / (simulation.trueBar('stage-1') + 1.013);
        return (temp(simulation, 'cover-2') + 281) / ratio ** 0.2;
      };
      expect(excess(filling({ 'discharge-valve-2': 0.1 }))).toBeGreaterThan(1.04 * excess(sound));
    },
  ],
  [
    'a worn ring puffs at the breather',
    () =>
      expect(heard(filling({ 'ring-1': 0.4 }), 'breather')).toBeGreaterThan(heard(sound, 'breather') + 0.3),
  ],
  [
    'a blocked intake lowers the first stage',
    () =>
      expect(filling({ 'intake-blocked': 0.4 }).trueBar('stage-1')).toBeLessThan(
        0.9 * sound.trueBar('stage-1'),
      ),
  ],
  [
    'a fouled cooler makes the next stage hotter',
    () => expect(temp(filling({ 'cooler-1': 0.6 }), 'cover-2')).toBeGreaterThan(temp(sound, 'cover-2') + 15),
  ],
  [
    'a drain whose seat passes slows the fill',
    () => {
      const leaking = filling({ 'drain-2-open': 0.15 });
      expect(leaking.trueBar('bank-1')).toBeLessThan(sound.trueBar('bank-1') - 5);
    },
  ],
  [
    'the relief valve after stage 2 blows when a valve of stage 3 is gone, and there is nothing wrong with it',
    () => {
      expect(heard(filling({ 'discharge-valve-3': 0.8 }), 'relief-2')).toBeGreaterThan(0.2);
      expect(heard(sound, 'relief-2')).toBe(0);
    },
  ],
  [
    'after the stop a stage gauge rises where both valves of the next stage leak',
    () => {
      const rises = (faults: Faults) => {
        const simulation = filling(faults);
        simulation.press('stop');
        const before = simulation.trueBar('stage-2');
        simulation.advance(8);
        return simulation.trueBar('stage-2') - before;
      };
      expect(rises({ 'suction-valve-3': 0.08, 'discharge-valve-3': 0.08 })).toBeGreaterThan(0.3);
      expect(rises({})).toBeLessThan(0);
    },
  ],
  [
    'a stuck needle stands where it stood, whatever the tower does',
    () => {
      const simulation = filling();
      simulation.fault('gauge-tower-sticks', 1);
      const stood = shown(simulation, 'tower');
      simulation.press('stop');
      vented(simulation);
      expect(shown(simulation, 'tower')).toBeCloseTo(stood, 6);
      expect(simulation.trueBar('tower')).toBeLessThan(0.1);
    },
  ],
  [
    'one blocked drain hides one stage, and the others being silent says nothing about it',
    () => {
      const simulation = filling({ 'drain-3-blocked': 1 });
      simulation.press('stop');
      for (const stage of [1, 2, 3]) simulation.turn(`drain-${stage}`, 1);
      simulation.advance(60);
      expect(simulation.trueBar('stage-2')).toBeLessThan(0.1);
      expect(simulation.trueBar('stage-3')).toBeGreaterThan(5);
    },
  ],
  [
    'a holding valve and a check valve that pass fill the tower again from the bank in minutes',
    () => {
      const refilled = (faults: Faults) => {
        const simulation = filling(faults);
        simulation.press('stop');
        simulation.turn('bleed-tower', 1);
        simulation.advance(120);
        const before = simulation.trueBar('tower');
        simulation.turn('bleed-tower', 0);
        simulation.advance(180);
        return simulation.trueBar('tower') - before;
      };
      expect(refilled({ 'holding-valve': 1, 'tower-check': 1 })).toBeGreaterThan(5);
      expect(refilled({ 'holding-valve': 1 })).toBeLessThan(1);
    },
  ],
  [
    'a spent cartridge lets water and taste into the bank',
    () => {
      const wet = filling({ cartridge: 1 });
      expect(wet.machine.plant.vapour[wet.machine.spaces.get('tower')!]).toBeGreaterThan(
        20 * sound.machine.plant.vapour[sound.machine.spaces.get('tower')!]!,
      );
      expect(heard(wet, 'smell')).toBeGreaterThan(0.5);
    },
  ],
  [
    'exhaust at the intake sets the CO monitor off once the cartridge is spent',
    () => expect(heard(filling({ 'exhaust-at-intake': 0.6, cartridge: 1 }), 'co')).toBe(1),
  ],
  [
    'a set does not start against a full tower and full stages',
    () => {
      const simulation = filling();
      simulation.press('stop');
      simulation.advance(1);
      simulation.fault('supply-low', 0.35);
      simulation.press('start');
      expect(simulation.see().drive).toBe('stalls');
    },
  ],
  [
    'a drain left open never lets it reach cut-out',
    () => {
      expect(pumpUpSeconds({ 'drain-receiver-open': 0.3 }, 9.9)).toBe(Infinity);
      expect(pumpUpSeconds({}, 9.9)).toBeLessThan(300);
    },
  ],
  [
    'a blocked intake slows the pump-up',
    () => expect(pumpUpSeconds({ 'intake-blocked': 0.4 })).toBeGreaterThan(1.1 * pumpUpSeconds({})),
  ],
  [
    'a slack belt slows the pump-up',
    () => expect(pumpUpSeconds({ 'belt-slack': 0.3 })).toBeGreaterThan(1.1 * pumpUpSeconds({})),
  ],
  [
    'a worn ring slows the pump-up',
    () => expect(pumpUpSeconds({ 'ring-1': 0.3 })).toBeGreaterThan(1.2 * pumpUpSeconds({})),
  ],
  [
    'a leaking suction valve slows the pump-up',
    () => expect(pumpUpSeconds({ 'suction-valve-1': 0.3 })).toBeGreaterThan(1.1 * pumpUpSeconds({})),
  ],
  [
    'a relief valve that weeps slows the pump-up',
    () => expect(pumpUpSeconds({ 'relief-weeps': 0.4 })).toBeGreaterThan(1.05 * pumpUpSeconds({})),
  ],
  [
    'a leak of the network makes it start too often',
    () => expect(startsInAnHour({ 'network-leak': 0.025 })).toBeGreaterThan(1.8 * startsInAnHour({})),
  ],
  [
    'a receiver full of water makes it start too often',
    () => expect(startsInAnHour({ waterlogged: 0.8 })).toBeGreaterThan(1.5 * startsInAnHour({})),
  ],
  [
    'a narrow band of the switch makes it start too often',
    () => expect(startsInAnHour({ 'switch-narrow': 0.6 })).toBeGreaterThan(1.8 * startsInAnHour({})),
  ],
  [
    'a leaking check valve keeps blowing at the unloader after the stop, and a sound one falls silent',
    () => {
      const after = (faults: Faults) => {
        const simulation = made('piston', faults);
        simulation.press('power-off');
        simulation.advance(60);
        return heard(simulation, 'unloader');
      };
      expect(after({ 'check-valve': 0.3 })).toBeGreaterThan(0.2);
      expect(after({})).toBe(0);
    },
  ],
  [
    'a leak on the machine lets the pressure creep down while it stands',
    () => {
      const falls = (faults: Faults) => {
        const simulation = made('piston', faults);
        simulation.turn('valve-network', 0);
        simulation.press('power-off');
        simulation.advance(600);
        return 10 - simulation.trueBar('receiver');
      };
      expect(falls({ 'machine-leak': 0.02 })).toBeGreaterThan(0.5);
      expect(falls({})).toBeLessThan(0.1);
    },
  ],
  [
    'a switch that opens too high makes the relief valve blow',
    () => {
      const simulation = made('piston', { 'switch-high': 0.4 });
      simulation.turn('valve-network', 0);
      simulation.press('stop');
      simulation.turn('drain-receiver', 1);
      simulation.advance(20);
      simulation.turn('drain-receiver', 0);
      simulation.press('start');
      simulation.advance(600);
      expect(heard(simulation, 'relief')).toBeGreaterThan(0.2);
    },
  ],
  [
    'a caked drain of a full receiver passes nothing',
    () => {
      const simulation = made('piston', { 'drain-receiver-blocked': 1 });
      simulation.press('power-off');
      simulation.turn('drain-receiver', 1);
      simulation.advance(30);
      expect(simulation.machine.turnables.get('drain-receiver')!.passes()).toBe(0);
      expect(simulation.trueBar('receiver')).toBeGreaterThan(8);
    },
  ],
  [
    'with a weak capacitor it hums and trips',
    () => {
      const simulation = made('oilFree', { capacitor: 0.75 });
      simulation.turn('trigger', 1);
      simulation.advance(60);
      expect(simulation.see().trip).toBe('overload');
    },
  ],
  [
    'on a long thin lead it hums and trips',
    () => {
      const simulation = made('oilFree', { 'supply-low': 0.9 });
      simulation.turn('trigger', 1);
      simulation.advance(60);
      expect(simulation.see().trip).toBe('overload');
    },
  ],
  [
    'against a head that did not vent it does not start',
    () => {
      const starts = (faults: Faults) => {
        const simulation = made('oilFree', { capacitor: 0.3, ...faults });
        simulation.press('stop');
        simulation.turn('drain-receiver', 1);
        simulation.advance(20);
        simulation.turn('drain-receiver', 0);
        simulation.press('start');
        simulation.advance(240);
        simulation.press('stop');
        simulation.advance(3);
        simulation.press('start');
        return simulation.see().drive;
      };
      expect(starts({})).toBe('runs');
      expect(starts({ 'unloader-shut': 1, 'check-valve': 1 })).toBe('stalls');
    },
  ],
  [
    'a scored ring of an oil-free pump never reaches cut-out',
    () => expect(pumpUpSeconds({ 'ring-1': 1 }, 7.8, 'oilFree')).toBe(Infinity),
  ],
  [
    'a thermostat stuck open keeps water in the oil',
    () => {
      const water = (faults: Faults) => {
        const simulation = made('screw', { demand: 0.6, ...faults }, { room: { tempC: 28, humidity: 0.85 } });
        simulation.advance(7200);
        return simulation.machine.plant.water[0]!;
      };
      expect(water({ 'thermostat-open': 1 })).toBeGreaterThan(0.1);
      expect(water({})).toBeLessThan(0.02);
    },
  ],
  [
    'a thermostat stuck on its bypass trips it on temperature',
    () => {
      const simulation = made('screw', { demand: 0.9, 'thermostat-shut': 1 });
      simulation.advance(2400);
      expect(simulation.see().trip).toBe('temperature');
    },
  ],
  [
    'a dirty cooler and a panel left off trip it on a hot afternoon',
    () => {
      const trips = (faults: Faults) => {
        const simulation = made('screw', { demand: 0.6, ...faults }, { room: { tempC: 33 } });
        simulation.advance(3600);
        return simulation.see().trip;
      };
      expect(trips({ 'cooler-dirty': 0.6, 'panel-off': 0.8 })).toBe('temperature');
      expect(trips({})).toBeNull();
    },
  ],
  [
    'a blocked scavenge line carries oil into the air and lowers the level',
    () => {
      const simulation = made('screw', { demand: 0.9, scavenge: 1 });
      simulation.advance(4 * 3600);
      expect(heard(simulation, 'oil-mist')).toBeGreaterThan(0.3);
      expect(heard(simulation, 'scavenge-glass')).toBe(0);
      expect(simulation.see().oilShare).toBeLessThan(0.99);
    },
  ],
  [
    'a blow-down that does not open keeps the vessel full over hot oil, and it does not start again',
    () => {
      const simulation = made('screw', { demand: 0.5, 'blow-down-shut': 1 });
      simulation.advance(600);
      simulation.press('power-off');
      simulation.advance(120);
      expect(simulation.trueBar('vessel')).toBeGreaterThan(4);
      simulation.press('power-on');
      simulation.advance(60);
      expect(simulation.see().drive).toBe('off');
    },
  ],
  [
    'a blocked separator element stands between vessel and outlet',
    () => {
      const drop = (faults: Faults) => {
        const simulation = made('screw', { demand: 0.8, ...faults });
        simulation.advance(900);
        return simulation.trueBar('vessel') - simulation.trueBar('outlet-side');
      };
      expect(drop({ 'separator-blocked': 0.6 })).toBeGreaterThan(drop({}) + 0.5);
    },
  ],
  [
    'an intake valve that does not open makes no air',
    () => {
      const simulation = made('screw', { demand: 0.5, 'intake-valve-shut': 1 });
      simulation.advance(900);
      expect(simulation.trueBar('receiver')).toBeLessThan(4);
    },
  ],
  [
    'a minimum-pressure valve that leaks back fills a vented vessel again while the outlet valve is open',
    () => {
      const refilled = (outlet: number) => {
        const simulation = made('screw', { 'minimum-pressure-open': 1 });
        simulation.press('power-off');
        simulation.turn('vent-vessel', 1);
        simulation.turn('valve-outlet', outlet);
        simulation.turn('drain-separator', 1 - outlet);
        simulation.advance(outlet === 0 ? 240 : 5);
        simulation.turn('vent-vessel', 0);
        simulation.advance(60);
        return simulation.trueBar('vessel');
      };
      expect(refilled(1)).toBeGreaterThan(2);
      expect(refilled(0)).toBeLessThan(0.1);
    },
  ],
  [
    'a diesel whose stop solenoid sticks runs on with the key off',
    () => {
      const after = (faults: Faults) => {
        const simulation = made('portable', { demand: 0.5, ...faults });
        simulation.advance(300);
        simulation.press('power-off');
        simulation.advance(30);
        return simulation.see().drive;
      };
      expect(after({ 'stop-solenoid': 1 })).toBe('runs');
      expect(after({})).toBe('off');
    },
  ],
  [
    'drains whose timer is dead let the separator fill',
    () => {
      const water = (faults: Faults) => {
        const simulation = made(
          'waterCooled',
          { demand: 0.8, ...faults },
          { room: { tempC: 28, humidity: 0.9 } },
        );
        simulation.advance(2 * 3600);
        return simulation.machine.plant.water[0]!;
      };
      expect(water({ 'drain-timer': 1 })).toBeGreaterThan(3 * water({}));
    },
  ],
  [
    'a delivery valve and a check valve that pass feed the separator that was vented',
    () => {
      const fed = (faults: Faults) => {
        const simulation = made('waterCooled', faults);
        simulation.press('power-off');
        simulation.turn('valve-delivery', 0);
        for (const code of ['drain-low', 'drain-high', 'drain-separator']) simulation.turn(code, 1);
        simulation.advance(120);
        simulation.turn('drain-separator', 0);
        simulation.turn('drain-high', 0);
        simulation.advance(300);
        return simulation.trueBar('separator');
      };
      expect(fed({ 'valve-delivery-passes': 1, 'check-valve': 1 })).toBeGreaterThan(0.2);
      expect(fed({ 'valve-delivery-passes': 1 })).toBeLessThan(0.1);
    },
  ],
];

/** The handbook's table of symptoms: what it names for each, by machine and fault. */
const named: Readonly<Record<keyof typeof plates, readonly string[]>> = {
  piston: [
    ...['supply-low', 'contactor', 'seized', 'check-valve', 'unloader-shut', 'unloader-open', 'belt-slack'],
    ...['ring-1', 'suction-valve-2', 'discharge-valve-2', 'gasket', 'machine-leak', 'network-leak', 'demand'],
    ...['intake-blocked', 'drain-receiver-open', 'drain-receiver-blocked', 'waterlogged', 'switch-high'],
    ...['switch-narrow', 'relief-weeps', 'relief-low', 'relief-stuck', 'gauge-receiver-sticks', 'cooler-1'],
    ...['cooler-dirty', 'fan', 'panel-off', 'room-hot', 'oil-low', 'oil-overfilled', 'oil-wrong'],
    ...['breather-blocked', 'bolts-loose', 'bearing-worn'],
  ],
  oilFree: ['capacitor', 'supply-low', 'check-valve', 'unloader-shut', 'ring-1', 'intake-blocked', 'fan'],
  screw: [
    ...[
      'scavenge',
      'separator-seal',
      'separator-blocked',
      'minimum-pressure-open',
      'oil-overfilled',
      'oil-low',
    ],
    ...[
      'thermostat-open',
      'thermostat-shut',
      'cooler-dirty',
      'panel-off',
      'intake-valve-shut',
      'airend-worn',
    ],
    ...['intake-valve-open', 'blow-down-shut', 'blow-down-open', 'vessel-crack', 'drain-separator-blocked'],
  ],
  portable: ['stop-solenoid', 'engine-starved', 'blow-down-shut', 'intake-valve-open'],
  waterCooled: ['cooling-water', 'drain-timer', 'valve-delivery-passes', 'check-valve', 'switch-high'],
  highPressure: [
    ...['suction-valve-1', 'discharge-valve-3', 'ring-4', 'relief-1-low', 'relief-low', 'drain-2-open'],
    ...['drain-2-blocked', 'bleed-tower-blocked', 'gauge-tower-sticks', 'holding-valve', 'holding-valve-low'],
    ...['tower-check', 'bank-valve', 'cartridge', 'cartridge-misfitted', 'exhaust-at-intake', 'supply-low'],
  ],
};

test.each(Object.entries(named))('what the table of symptoms names can be set: %s', (which, codes) => {
  const { faults } = made(which as keyof typeof plates).machine;
  expect(codes.filter((code) => !faults.has(code))).toEqual([]);
});

test('there are enough of them', () => expect(sentences.length).toBeGreaterThanOrEqual(27));
test.each(sentences)('%s', (_sentence, check) => check());
