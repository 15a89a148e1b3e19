import { condensateGPerM3, diagnoseStages, leakDownFlow, pumpUpFlow } from '../air/index.js';
import type { DataPlate } from '../machine/index.js';
import { Simulation, type SimulationOptions } from './index.js';
import { CARTRIDGE, WORK } from './parts.js';

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
  piston: plateOf('piston', { stages: 2, receiverL: 270, workingPressureBar: 10 }),
  oilFree: plateOf('piston-oil-free', { motor: 'single-phase' }),
  screw: plateOf('screw'),
  portable: plateOf('screw', { motor: 'diesel' }),
  waterCooled: plateOf('piston', { stages: 2, cooling: 'water', workingPressureBar: 30 }),
  highPressure: plateOf('high-pressure', { stages: 5, workingPressureBar: 300, airUse: 'breathing' }),
} as const;
type Which = keyof typeof plates;

/** Something happens at a machine: what was set, turned and let run. */
function course(which: Which, options: SimulationOptions = {}): Simulation {
  const simulation = new Simulation(plates[which], options);
  const isHigh = which === 'highPressure';
  if (isHigh) {
    simulation.press('start');
    simulation.fault('discharge-valve-3', 0.3);
  } else simulation.fault(which === 'oilFree' || which === 'portable' ? 'demand' : 'network-leak', 0.12);
  simulation.advance(900);
  const drain = [...simulation.machine.turnables.values()].find(({ kind }) => kind === 'drain')!;
  simulation.turn(drain.code, 1);
  simulation.advance(4);
  simulation.turn(drain.code, 0);
  simulation.advance(600);
  simulation.press(isHigh ? 'stop' : 'power-off');
  simulation.advance(1200);
  return simulation;
}

describe.each(Object.keys(plates) as Which[])('%s', (which) => {
  test('keeps its air, its water and its energy', () => {
    const fresh = new Simulation(plates[which]);
    const simulation = course(which);
    const { plant, airend, block } = simulation.machine;
    const before = plant.sums(fresh.state);
    const after = plant.sums(simulation.state);
    const extra = (from: Simulation, index: number) => from.state[plant.extraAt(index)]!;
    const passed = Math.abs(simulation.state[plant.room]!);
    expect(passed).toBeGreaterThan(0.01);
    expect(Math.abs(after.air - before.air) / passed).toBeLessThan(1e-9);
    const water = after.water + extra(simulation, CARTRIDGE) - before.water - extra(fresh, CARTRIDGE);
    expect(Math.abs(water) / passed).toBeLessThan(1e-9 * 0.02 + 1e-11);
    const metal = airend?.spec.oilJPerK ?? block.capacity;
    const gained = after.energy - before.energy + metal * (extra(simulation, 0) - extra(fresh, 0));
    const work = extra(simulation, WORK);
    expect(work).toBeGreaterThan(1e5);
    expect(Math.abs(gained - work) / work).toBeLessThan(1e-6);
  });

  test('half the step moves nothing by a thousandth', () => {
    const whole = course(which);
    const half = course(which, { longestS: 30, tolerance: 1.25e-5 });
    for (const code of whole.machine.spaces.keys()) {
      const [a, b] = [whole.trueBar(code) + 1.013, half.trueBar(code) + 1.013];
      expect(Math.abs(a / b - 1)).toBeLessThan(1e-3);
    }
    const [a, b] = [whole.see(), half.see()];
    expect(Math.abs(a.hours.total / b.hours.total - 1)).toBeLessThan(1e-3);
    for (const [index, { tempC }] of a.temps.entries())
      expect(Math.abs((tempC + 273) / (b.temps[index]!.tempC + 273) - 1)).toBeLessThan(1e-3);
  });

  test('twice the same is twice the same', () => {
    expect(course(which).see()).toEqual(course(which).see());
  });

  test('every fault can be set from nothing to total, and is nothing again', () => {
    for (const { code } of new Simulation(plates[which]).machine.faults.values()) {
      const simulation = new Simulation(plates[which]);
      if (which === 'highPressure') simulation.press('start');
      for (const size of [1, 0.5, 1e-3, 0]) {
        simulation.fault(code, size);
        simulation.advance(20);
        for (const value of simulation.state) expect(Number.isFinite(value)).toBe(true);
        for (const space of simulation.machine.spaces.keys()) {
          expect(simulation.trueBar(space)).toBeGreaterThan(-0.6);
          expect(simulation.trueBar(space)).toBeLessThan(420);
        }
      }
    }
  });
});

describe('benches read back what was put in', () => {
  /** A receiver pumped up with its valve to the network shut, timed between two pressures. */
  function pumpUp(faults: Readonly<Record<string, number>> = {}) {
    // Dry, as the simplified method takes it: of moist air the water that falls out is missing from the receiver.
    const simulation = new Simulation(plates.piston, { room: { humidity: 0 } });
    simulation.turn('valve-network', 0);
    simulation.turn('drain-receiver', 1);
    simulation.advance(240);
    simulation.turn('drain-receiver', 0);
    for (const [code, size] of Object.entries(faults)) simulation.fault(code, size);
    const { plant, spaces } = simulation.machine;
    const at = spaces.get('receiver')!;
    for (let tries = 0; simulation.trueBar('receiver') < 4 && tries < 2000; tries++) simulation.advance(0.5);
    const begun = { seconds: simulation.now, bar: plant.pressure[at]! / 1e5, tempC: plant.tempC(at) };
    let delivered = 0;
    for (let tries = 0; simulation.trueBar('receiver') < 7 && tries < 4000; tries++) {
      const before = simulation.machine.stages[1]!.delivers;
      simulation.advance(0.5);
      delivered += (0.5 * (before + simulation.machine.stages[1]!.delivers)) / 2;
    }
    const seconds = simulation.now - begun.seconds;
    const read = pumpUpFlow({
      // With the delivery line, as the standard counts it.
      volumeL: 271.5,
      fromBarAbs: begun.bar,
      toBarAbs: plant.pressure[at]! / 1e5,
      seconds,
      fromTempC: begun.tempC,
      toTempC: plant.tempC(at),
      intakeBarAbs: 1.01325,
      intakeTempC: 20,
    });
    const density = plant.density[plant.room]!;
    return {
      read: read.ok ? read.value.flowLpm : NaN,
      put: (delivered / seconds / density) * 60_000,
      seconds,
    };
  }

  test('the receiver method of ISO 1217: the delivery within half a per cent', () => {
    const { read, put } = pumpUp();
    expect(Math.abs(read / put - 1)).toBeLessThan(0.005);
    expect(read).toBeGreaterThan(200);
  });

  test('a blocked intake and a worn ring slow it', () => {
    const sound = pumpUp();
    expect(pumpUp({ 'intake-blocked': 0.3 }).read).toBeLessThan(0.93 * sound.read);
    expect(pumpUp({ 'ring-1': 0.2 }).read).toBeLessThan(0.93 * sound.read);
  });

  test('leak-down: the leak within half a per cent of what passes', () => {
    const simulation = new Simulation(plates.piston);
    simulation.turn('valve-network', 0);
    simulation.press('power-off');
    simulation.advance(600);
    simulation.fault('machine-leak', 0.05);
    const { plant, spaces } = simulation.machine;
    const at = spaces.get('receiver')!;
    const [mass, bar, tempC] = [simulation.state[at]!, plant.pressure[at]! / 1e5, plant.tempC(at)];
    simulation.advance(300);
    const read = leakDownFlow({
      volumeL: 270,
      fromBarAbs: bar,
      toBarAbs: plant.pressure[at]! / 1e5,
      seconds: 300,
      fromTempC: tempC,
      toTempC: plant.tempC(at),
    });
    const put = ((mass - simulation.state[at]!) / 300 / 1.2041) * 60_000;
    expect(Math.abs((read.ok ? read.value.flowLpm : NaN) / put - 1)).toBeLessThan(0.005);
  });

  test('stage pressures name the stage whose valve leaks', () => {
    const measured = (faults: Readonly<Record<string, number>>) => {
      const simulation = new Simulation(plateOf('high-pressure', { stages: 4, workingPressureBar: 300 }));
      for (const [code, size] of Object.entries(faults)) simulation.fault(code, size);
      simulation.press('start');
      simulation.advance(1500);
      const { plant, stages } = simulation.machine;
      return {
        intakeBarAbs: 1.013,
        intakeTempC: 20,
        designBarAbs: plant.pressure[3]! / 1e5,
        pressuresBarAbs: [0, 1, 2, 3].map((at) => plant.pressure[at]! / 1e5),
        outletTempsC: stages.map(({ outletK }) => outletK - 273.15),
      };
    };
    const baseline = measured({});
    for (const stage of [2, 3]) {
      const read = diagnoseStages({ ...measured({ [`discharge-valve-${stage}`]: 0.08 }), baseline });
      const [first] = read.ok ? read.value.suspects : [];
      expect(first?.faults.map(({ kind, stage: at }) => `${kind} ${at}`)).toEqual([`valves ${stage}`]);
    }
  });

  test('water in the separators: what the bench of condensate reckons', () => {
    const simulation = new Simulation(plateOf('high-pressure', { stages: 3, workingPressureBar: 200 }), {
      room: { tempC: 25, humidity: 0.7 },
    });
    simulation.press('start');
    simulation.advance(600);
    const { plant, stages } = simulation.machine;
    const water = () => simulation.state[2 * plant.count]!;
    const begun = water();
    let drawn = 0;
    for (let second = 0; second < 600; second++) {
      simulation.advance(1);
      drawn += stages[0]!.delivers;
    }
    const free = drawn / plant.density[plant.room]!;
    const cooledC = plant.tempC(0);
    const bench = condensateGPerM3(
      { pressureBarAbs: 1.01325, tempC: 25, relativeHumidity: 0.7 },
      { pressureBarAbs: plant.pressure[0]! / 1e5, tempC: cooledC },
    );
    expect(bench.ok && bench.value).toBeGreaterThan(1);
    expect(Math.abs(((water() - begun) * 1000) / free / (bench.ok ? bench.value : NaN) - 1)).toBeLessThan(
      0.05,
    );
  });
});
