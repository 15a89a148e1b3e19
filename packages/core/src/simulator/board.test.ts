import { boardMachines, boardOf, Simulation } from './index.js';

const made = (code: string) => new Simulation(boardMachines.find((machine) => machine.code === code)!.plate);

test.each(boardMachines.map(({ code, name }) => [code, name] as const))(
  'everything that can be turned at %s hangs at a station, once',
  (code) => {
    const simulation = made(code);
    const { stations } = boardOf(simulation);
    const handles = stations.flatMap(({ handles: all }) => all.map(({ code: handle }) => handle));
    expect([...handles].sort()).toEqual([...simulation.machine.turnables.keys()].sort());
    const gauges = stations.filter(({ gauge }) => gauge !== null);
    expect(gauges).toHaveLength(simulation.machine.gauges.size);
  },
);

test('a board says what it does, in the order in which the air goes', () => {
  const simulation = made('water-cooled');
  expect(boardOf(simulation)).toMatchObject({ state: 'Stands', trip: null, hasPower: true });
  expect(boardOf(simulation).stations.map(({ code }) => code)).toEqual([
    'low',
    'high',
    'separator',
    'receiver',
    'network',
  ]);
  simulation.press('power-off');
  expect(boardOf(simulation).state).toBe('Stands, power off');
  simulation.turn('drain-receiver', 1);
  simulation.advance(2);
  expect(boardOf(simulation).senses).toContainEqual(
    expect.objectContaining({ place: 'Drain of the receiver', plainness: 'loud' }),
  );
});

test('what does not exist is refused by name', () => {
  const simulation = made('piston');
  expect(() => simulation.turn('drain-9', 1)).toThrow('drain-9');
  expect(() => simulation.fault('gremlins', 1)).toThrow('gremlins');
  expect(() => simulation.trueBar('attic')).toThrow('attic');
});
