import { compressibility, holeFlow, hotFillTemp } from '../air/index.js';
import { areaOf, DISCHARGE, Passage } from './elements.js';
import { AirState, densityAt, R_AIR, saturatedDensity } from './gas.js';
import { Plant, type SpaceSpec } from './plant.js';
import { designPower, equalRatios, sizeStages } from './size-stages.js';
import { Stage } from './stage.js';
import { Stepper } from './stepper.js';

/** A vessel alone, in a room without moisture, and what leads out of it. */
function vessel(litres: number, more: Partial<SpaceSpec> = {}, roomBar = 0.3) {
  const spec: SpaceSpec = {
    code: 'vessel',
    name: 'Vessel',
    litres,
    wallJPerK: 1e12,
    airToWall: 0,
    wallToRoom: 0,
    ...more,
  };
  const plant = new Plant([spec], 1, { tempC: 20, barAbs: roomBar, humidity: 0 }, 0);
  return { plant, spec };
}

/** Fills every space dry: the closed solutions know no water. */
function dry(plant: Plant, pressures: readonly number[]): Float64Array {
  const state = plant.initial();
  const n = plant.count;
  pressures.forEach((bar, index) => {
    plant.fill(state, index, bar * 1e5, 0);
    const density = densityAt(bar * 1e5, plant.roomK);
    const free = plant.volume[index]!;
    const air = new AirState();
    air.set(density, plant.roomK);
    state[index] = density * free;
    state[n + index] = 0;
    state[3 * n + index] = density * free * air.energy;
  });
  return state;
}

function run(plant: Plant, state: Float64Array, seconds: number, longest = Infinity, tolerance = 1e-6) {
  const stepper = new Stepper(state, {
    rates: plant.rates,
    fastest: plant.fastest,
    scales: plant.scales(state),
    tolerance,
  });
  let now = 0;
  let step = 1e-3;
  while (now < seconds - 1e-12) {
    const taken = Math.min(step, seconds - now, stepper.longest(), longest);
    const error = stepper.attempt(taken);
    if (error <= 1) {
      stepper.accept();
      now += taken;
    }
    step = taken * Math.min(4, Math.max(0.1, 0.8 * Math.cbrt(1 / Math.max(error, 1e-4))));
  }
  plant.rates(stepper.state, new Float64Array(state.length));
  return stepper;
}

const GAMMA = 1.4;
const CHOKED = Math.sqrt(GAMMA) * (2 / (GAMMA + 1)) ** ((GAMMA + 1) / (2 * (GAMMA - 1)));

describe('a vessel blown down through a choked nozzle', () => {
  // Textbook: ṁ = C·A·p·0.6847/√(RT). Isothermal: p = p₀·e^(−t/τ), τ = V/(C·A·0.6847·√(RT)).
  // Adiabatic: p = p₀·(1 + (γ−1)/2·t/τ₀)^(−2γ/(γ−1)), with τ₀ at the first temperature.
  // Low enough that real air is thin air within a thousandth.
  const [litres, boreMm, from] = [100, 6, 2.5];
  const tau = litres / 1000 / (DISCHARGE * areaOf(boreMm) * CHOKED * Math.sqrt(R_AIR * 293.15));

  test.each([5, 10, 15])('without heat, after %d s', (seconds) => {
    const { plant } = vessel(litres);
    plant.elements.push(new Passage(0, plant.room, areaOf(boreMm), 1));
    run(plant, dry(plant, [from]), seconds);
    const expected = from * (1 + (0.4 / 2) * (seconds / tau)) ** ((-2 * GAMMA) / 0.4);
    expect(Math.abs(plant.pressure[0]! / 1e5 / expected - 1)).toBeLessThan(1e-3);
  });

  test.each([5, 10, 15])('at one temperature, after %d s', (seconds) => {
    const { plant } = vessel(litres, { airToWall: 2e4 });
    plant.elements.push(new Passage(0, plant.room, areaOf(boreMm), 1));
    run(plant, dry(plant, [from]), seconds);
    expect(Math.abs(plant.pressure[0]! / 1e5 / (from * Math.exp(-seconds / tau)) - 1)).toBeLessThan(1e-3);
  });
});

test('a hole lets through what the bench of leaks says', () => {
  const { plant } = vessel(100, {}, 1.01325);
  const hole = new Passage(0, plant.room, areaOf(6.35), 1);
  plant.elements.push(hole);
  plant.rates(dry(plant, [7.91]), new Float64Array(plant.size));
  const bench = holeFlow({ diameterMm: 6.35, pressureBarAbs: 7.91, tempC: 20, coefficient: DISCHARGE });
  const lpm = (hole.passes / (1.01325e5 / (R_AIR * 293.15))) * 60_000;
  expect(Math.abs(lpm / (bench.ok ? bench.value : NaN) - 1)).toBeLessThan(3e-3);
});

describe('real air', () => {
  test.each([
    [1, 20],
    [50, -20],
    [100, 20],
    [200, 60],
    [300, 20],
    [300, 120],
    [400, 0],
    [450, 240],
  ])('follows the equation of core/air at %d bar and %d °C', (bar, tempC) => {
    const read = compressibility(bar, tempC);
    const kelvin = tempC + 273.15;
    const z = read.ok ? read.value : NaN;
    const air = new AirState();
    air.set((bar * 1e5) / (z * R_AIR * kelvin), kelvin);
    expect(Math.abs(air.pressure / 1e5 / bar - 1)).toBeLessThan(1.2e-3);
  });

  test('its energy belongs to its pressure: (∂u/∂v)_T = T·(∂p/∂T)_v − p', () => {
    const air = new AirState();
    const at = (density: number, kelvin: number) => {
      air.set(density, kelvin);
      return { pressure: air.pressure, energy: air.energy };
    };
    for (const [density, kelvin] of [
      [50, 280],
      [200, 300],
      [330, 350],
    ] as const) {
      const d = 1e-3;
      const slope = (at(density, kelvin + d).pressure - at(density, kelvin - d).pressure) / (2 * d);
      const byVolume =
        (at(1 / (1 / density + 1e-9), kelvin).energy - at(1 / (1 / density - 1e-9), kelvin).energy) / 2e-9;
      const right = kelvin * slope - at(density, kelvin).pressure;
      expect(Math.abs(byVolume / right - 1)).toBeLessThan(1e-4);
    }
  });

  // Water in saturated air at 20 °C: 17.3 g/m³ (steam tables); at 200 bar about 1.8 times as much (enhancement).
  test('holds water as the tables say', () => {
    expect(1000 * saturatedDensity(293.15, 1e5)).toBeCloseTo(17.3, 1);
    expect(saturatedDensity(293.15, 200e5) / saturatedDensity(293.15, 1e5)).toBeGreaterThan(1.6);
  });
});

describe('a cylinder filled from a supply that stays at its pressure', () => {
  const fill = (more: Partial<SpaceSpec>) => {
    const { plant } = vessel(10, more, 1);
    plant.setRoom({ tempC: 20, barAbs: 1, humidity: 0 }, 199);
    plant.vapour[plant.supply] = 0;
    plant.elements.push(new Passage(plant.supply, 0, areaOf(2), 1));
    const stepper = run(plant, dry(plant, [20]), 600);
    return { plant, stepper };
  };

  test('without walls: what flows in brings its enthalpy, u₂·m₂ = u₁·m₁ + h·(m₂ − m₁)', () => {
    const { plant } = fill({});
    const air = new AirState();
    air.set(densityAt(20e5, 293.15), 293.15);
    const [m1, u1] = [densityAt(20e5, 293.15) * 0.01, air.energy];
    const h = plant.enthalpy[plant.supply]!;
    // Halved between 20 and 250 °C until 200 bar and the balance agree.
    let [low, high] = [293.15, 520];
    for (let round = 0; round < 60; round++) {
      const middle = (low + high) / 2;
      const density = densityAt(200e5, middle);
      air.set(density, middle);
      const m2 = density * 0.01;
      if (m2 * air.energy < m1 * u1 + h * (m2 - m1)) low = middle;
      else high = middle;
    }
    expect(Math.abs(plant.kelvin[0]! - low)).toBeLessThan(0.5);
    expect(plant.kelvin[0]!).toBeLessThan(293.15 * GAMMA);
  });

  test('with walls it lies between, near what the bench of hot fills reckons', () => {
    const { plant } = fill({ wallJPerK: 12 * 470, airToWall: 1e3 });
    const bench = hotFillTemp({ volumeL: 10, fromBarAbs: 20, toBarAbs: 200, tempC: 20, wallKg: 12 });
    expect(plant.tempC(0)).toBeGreaterThan(20);
    expect(plant.tempC(0)).toBeLessThan(120);
    // The bench counts thin air's heats: real air at 200 bar brings a tenth less enthalpy.
    expect(Math.abs(plant.tempC(0) - (bench.ok ? bench.value : NaN))).toBeLessThan(12);
  });
});

/** Stages between a room and a place that stays at its pressure. */
function ladder(pressures: readonly number[], sizedFor = pressures) {
  const design = {
    pressuresBarAbs: sizedFor,
    intakeBarAbs: 1.01325,
    intakeK: 293.15,
    sweptM3S: 5e-3,
    exponents: pressures.map(() => 1.25),
    clearances: pressures.map(() => 0.05),
    coolings: pressures.map(() => 1),
    sound: { valve: 0, ring: 0 },
  };
  const { specs, flow } = sizeStages(design);
  const spaces = pressures.slice(0, -1).map((_, index): SpaceSpec => ({
    code: `s${index}`,
    name: '',
    litres: 1,
    wallJPerK: 500,
    airToWall: 1,
    wallToRoom: 1,
    startBar: pressures[index]! - 1.01325,
  }));
  const plant = new Plant(
    spaces,
    3,
    { tempC: 20, barAbs: 1.01325, humidity: 0 },
    pressures.at(-1)! - 1.01325,
  );
  plant.vapour[plant.supply] = 0;
  const stages = specs.map((spec, index) => {
    const stage = new Stage(
      index === 0 ? plant.room : index - 1,
      index === pressures.length - 1 ? plant.supply : index,
      spec,
    );
    stage.speed = 1;
    stage.coolantK = 293.15;
    return stage;
  });
  plant.elements.push(...stages);
  run(plant, dry(plant, pressures.slice(0, -1)), 1200);
  return { plant, stages, design, flow };
}

describe('an ideal ladder', () => {
  const equal = equalRatios(4, 1.01325, 301);

  test('stands at equal ratios, and every stage passes the same', () => {
    const { plant, stages, flow } = ladder(equal);
    for (let stage = 0; stage < 3; stage++)
      expect(Math.abs(plant.pressure[stage]! / 1e5 / equal[stage]! - 1)).toBeLessThan(1e-3);
    for (const { delivers } of stages) expect(Math.abs(delivers / flow - 1)).toBeLessThan(1e-3);
    // T₂ = T₁·r^((n−1)/n) with r = (301/1.01325)^(1/4) = 4.152, n = 1.25: 293.15·1.3294 = 389.7 K.
    expect(stages[0]!.outletK).toBeCloseTo(389.7, 0);
  });

  test('takes least work: moved by a tenth either way it takes more', () => {
    const powerOf = (pressures: readonly number[]) => {
      const { design, flow } = ladder(pressures);
      return designPower(design, flow) / flow;
    };
    const least = powerOf(equal);
    // Ideal air: W/ṁ = 4·n/(n−1)·R·T·(r^((n−1)/n) − 1) = 4·5·287.042·293.15·0.3294 = 554.4 kJ/kg.
    expect(Math.abs(least / 554_400 - 1)).toBeLessThan(1e-3);
    for (const factor of [0.9, 1.1])
      expect(powerOf(equal.map((bar, index) => (index === 1 ? bar * factor : bar)))).toBeGreaterThan(least);
  });
});

describe('the step', () => {
  // Two vessels, a hole between them, a hole out, warm walls: nothing in it settles quicker than a second.
  const made = () => {
    const spec = (code: string): SpaceSpec => ({
      code,
      name: '',
      litres: 50,
      wallJPerK: 4000,
      airToWall: 4,
      wallToRoom: 2,
    });
    const plant = new Plant([spec('a'), spec('b')], 1, { tempC: 20, barAbs: 1, humidity: 0 }, 0);
    plant.elements.push(new Passage(0, 1, areaOf(3), 1), new Passage(1, plant.room, areaOf(4), 1));
    return { plant, state: dry(plant, [12, 3]) };
  };

  test('agrees with small steps of Runge and Kutta’s classical method on the same right-hand side', () => {
    const { plant, state } = made();
    const own = run(plant, Float64Array.from(state), 30, Infinity, 1e-5).state;
    const y = Float64Array.from(state);
    const k = [0, 1, 2, 3].map(() => new Float64Array(y.length));
    const at = new Float64Array(y.length);
    const h = 0.01;
    for (let step = 0; step < 3000; step++) {
      plant.rates(y, k[0]!);
      for (const [stage, share] of [
        [1, 0.5],
        [2, 0.5],
        [3, 1],
      ] as const) {
        for (let i = 0; i < y.length; i++) at[i] = y[i]! + share * h * k[stage - 1]![i]!;
        plant.rates(at, k[stage]!);
      }
      for (let i = 0; i < y.length; i++)
        y[i]! += (h / 6) * (k[0]![i]! + 2 * k[1]![i]! + 2 * k[2]![i]! + k[3]![i]!);
    }
    for (const index of [0, 1]) expect(Math.abs(own[index]! / y[index]! - 1)).toBeLessThan(2e-4);
  });

  test('agrees with odex, an extrapolation method by Hairer & Wanner', async () => {
    const { plant, state } = made();
    const own = run(plant, Float64Array.from(state), 20, Infinity, 1e-5).state;
    // Its own types are sources that do not pass our compiler.
    const name: string = 'odex';
    const { Solver } = (await import(name)) as {
      Solver: new (n: number) => {
        absoluteTolerance: number;
        relativeTolerance: number;
        solve(
          f: (x: number, y: number[]) => number[],
          from: number,
          y: number[],
          to: number,
        ): { y: number[] };
      };
    };
    const solver = new Solver(state.length);
    [solver.absoluteTolerance, solver.relativeTolerance] = [1e-9, 1e-9];
    const rates = new Float64Array(state.length);
    const { y } = solver.solve(
      (_x, at) => {
        plant.rates(Float64Array.from(at), rates);
        return [...rates];
      },
      0,
      [...state],
      20,
    );
    for (const index of [0, 1]) expect(Math.abs(own[index]! / y[index]! - 1)).toBeLessThan(2e-4);
  });
});
