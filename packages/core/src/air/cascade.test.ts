import fc from 'fast-check';
import { CascadeBench, cascadeProblem, massInVolume, searchCascade, type CascadeJob } from './index.js';

function found(job: CascadeJob) {
  const search = searchCascade(job);
  for (;;) {
    const next = search.next();
    if (next.done) return next.value;
  }
}

/** Every order of the cylinders, and every choice of banks for each. */
function* everyOrder(job: CascadeJob) {
  const bankSets = Array.from({ length: 2 ** job.banks.length }, (_, bits) =>
    job.banks.map((_bank, index) => (bits & (1 << index)) !== 0),
  );
  const count = job.cylinders.length;
  const choices = bankSets.length ** count;
  for (const cylinders of permutations(Array.from({ length: count }, (_, index) => index))) {
    for (let choice = 0; choice < choices; choice++) {
      const uses = Array.from(
        { length: count },
        (_, index) => bankSets[Math.floor(choice / bankSets.length ** index) % bankSets.length]!,
      );
      yield { cylinders, uses };
    }
  }
}

function permutations(items: readonly number[]): number[][] {
  if (items.length <= 1) return [[...items]];
  return items.flatMap((item, index) =>
    permutations(items.filter((_, at) => at !== index)).map((rest) => [item, ...rest]),
  );
}

const bar = (min: number, max: number) => fc.integer({ min, max });

const smallJobs = fc.record({
  banks: fc.array(fc.record({ volumeL: bar(20, 80), pressureBarAbs: bar(60, 330) }), {
    minLength: 1,
    maxLength: 3,
  }),
  cylinders: fc.array(
    fc.record({ volumeL: bar(3, 20), pressureBarAbs: bar(1, 200), fullBarAbs: fc.constantFrom(201, 301) }),
    { minLength: 1, maxLength: 3 },
  ),
  tempC: fc.constant(20),
});

describe('a cascade', () => {
  test('opens the lowest bank first, keeps every gram, and stops at full', () => {
    const job: CascadeJob = {
      banks: [
        { volumeL: 50, pressureBarAbs: 300 },
        { volumeL: 50, pressureBarAbs: 120 },
        { volumeL: 50, pressureBarAbs: 200 },
      ],
      cylinders: [{ volumeL: 10, pressureBarAbs: 30, fullBarAbs: 250 }],
      tempC: 20,
    };
    const bench = new CascadeBench(job);
    const { steps, cylindersBarAbs, banksBarAbs, full, missingL } = bench.run(bench.plainOrder());
    expect(steps.map(({ bank }) => bank)).toEqual([1, 2, 0]);
    expect(cylindersBarAbs[0]).toBeCloseTo(250, 6);
    expect([full, missingL]).toEqual([1, 0]);
    const mass = (pressures: readonly number[]) =>
      pressures.reduce((sum, pressure) => sum + massInVolume(50, pressure, 20), 0);
    const given = mass([300, 120, 200]) - mass(banksBarAbs);
    const taken = massInVolume(10, 250, 20) - massInVolume(10, 30, 20);
    expect(given / taken).toBeCloseTo(1, 4);
  });

  test('worked by hand with an almost ideal gas: 50 L at 12 bar into 50 L at 2 bar is even at 7', () => {
    const bench = new CascadeBench({
      banks: [{ volumeL: 50, pressureBarAbs: 12 }],
      cylinders: [{ volumeL: 50, pressureBarAbs: 2, fullBarAbs: 11 }],
      tempC: 20,
    });
    const { steps, missingL } = bench.run(bench.plainOrder());
    expect(steps[0]!.toBarAbs).toBeCloseTo(7, 1);
    // From 7 to 11 bar: 50·4/1.01325 = 197 L, and Z near 0.998.
    expect(missingL).toBeGreaterThan(195);
    expect(missingL).toBeLessThan(199);
  });

  test('the search leaves as little to pump as looking through every order does', () => {
    let gained = 0;
    fc.assert(
      fc.property(smallJobs, (job) => {
        const bench = new CascadeBench(job);
        let least = Infinity;
        for (const order of everyOrder(job)) least = Math.min(least, bench.run(order, false).missingL);
        const { result, plain } = found(job);
        expect(result.missingL).toBeLessThanOrEqual(least + 1e-6);
        expect(result.missingL).toBeLessThanOrEqual(plain.missingL + 1e-9);
        if (result.missingL < plain.missingL - 1) gained += 1;
      }),
      { numRuns: 60 },
    );
    expect(gained).toBeGreaterThan(5);
  });

  test('the same seed gives the same answer', () => {
    const job: CascadeJob = {
      banks: [80, 150, 220].map((pressureBarAbs) => ({ volumeL: 50, pressureBarAbs })),
      cylinders: [20, 60, 100, 140].map((pressureBarAbs) => ({
        volumeL: 12,
        pressureBarAbs,
        fullBarAbs: 200,
      })),
      tempC: 20,
    };
    expect(found(job)).toEqual(found(job));
  });

  test.each<[Partial<CascadeJob>, string]>([
    [{ banks: [] }, 'banks'],
    [{ cylinders: [] }, 'cylinders'],
    [{ banks: [{ volumeL: 0, pressureBarAbs: 200 }] }, 'volumeL'],
    [{ banks: [{ volumeL: 50, pressureBarAbs: -1 }] }, 'pressureBarAbs'],
    [{ tempC: 90 }, 'tempC'],
  ])('%j is refused beside its field', (more, field) => {
    const job = {
      banks: [{ volumeL: 50, pressureBarAbs: 200 }],
      cylinders: [{ volumeL: 10, pressureBarAbs: 20, fullBarAbs: 200 }],
      tempC: 20,
      ...more,
    };
    expect(cascadeProblem(job)).toMatchObject({ ok: false, problem: { field } });
  });
});
