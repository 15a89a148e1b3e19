import { formatTorque, roundsOf, torqueFor, torquesOf } from './index.js';

const table = {
  torques:
    'Head bolts: 24 Nm, 3 rounds, star, manual; valve cover bolts 18 N·m; plug – 15 lbf ft, dry\nno figure here; 12 Nm',
};

test('a table is read line by line, with rounds and what else was written; without a joint or a figure it is no line', () => {
  expect(torquesOf(table)).toEqual([
    { joint: 'Head bolts', newtonMetres: 24, rounds: 3, more: 'star, manual' },
    { joint: 'valve cover bolts', newtonMetres: 18, rounds: 3, more: '' },
    // 15 lbf·ft × 1.35582 N·m.
    { joint: 'plug', newtonMetres: expect.closeTo(20.34, 2), rounds: 3, more: 'dry' },
  ]);
  expect(torquesOf({})).toEqual([]);
  expect(torquesOf({ torques: 'head 0 Nm; by feel' })).toEqual([]);
  expect(torquesOf({ torques: 'head 24,5 Nm, 0 rounds' })[0]).toMatchObject({
    newtonMetres: 24.5,
    rounds: 1,
  });
  expect(torquesOf({ torques: 'head 24 Nm, 9 rounds' })[0]).toMatchObject({ rounds: 6 });
});

test('a step finds its own joint and no other: a word too many is another', () => {
  expect(torqueFor('head bolts', table)).toMatchObject({ newtonMetres: 24 });
  expect(torqueFor('valve cover bolts', table)).toMatchObject({ newtonMetres: 18 });
  expect(torqueFor('bearing cover screws', table)).toBeNull();
  expect(torqueFor('crank-pin bolts', table)).toBeNull();
  expect(torqueFor('lid bolts', { torques: 'bolts 40 Nm' })).toBeNull();
  expect(torqueFor('bearing cover screws', { torques: 'cover bolts 18 Nm' })).toBeNull();
  expect(torqueFor('crank-pin bolts', { torques: 'Crank pin: 60 Nm' })).toMatchObject({ newtonMetres: 60 });
  expect(torqueFor('head bolts', { torques: 'head: 24 Nm; bolts of the head 24 Nm' })).not.toBeNull();
  // Two figures for the same: nobody chooses for the fitter.
  expect(torqueFor('head bolts', { torques: 'head: 24 Nm; head bolts: 28 Nm' })).toBeNull();
});

test('rounds climb in even steps to the whole figure', () => {
  expect(roundsOf({ newtonMetres: 24, rounds: 3 })).toEqual([8, 16, 24]);
  expect(roundsOf({ newtonMetres: 24, rounds: 1 })).toEqual([24]);
});

test('a known figure is said with what was written of it; what is hand-tight stays so where there is none', () => {
  expect(formatTorque('head bolts', table)).toBe('The head bolts: 24 N·m (star, manual)');
  expect(formatTorque('reed screw', table)).toMatch(/hand-tight/);
  expect(formatTorque('crank-pin bolts', table)).toMatch(/by the data plate: Head bolts/);
  expect(formatTorque('crank-pin bolts', {})).toMatch(/do not guess/);
});
