import { checkByCode, checksWithLists, readLaboratoryList } from './index.js';

const read = (check: string, text: string) => {
  const outcome = readLaboratoryList(
    check,
    text
      .trim()
      .split('\n')
      .map((row) => row.split(';')),
  );
  return outcome.ok ? outcome.value : [outcome.problem.code, outcome.problem.field, outcome.problem.sentence];
};
const values = (check: string, text: string) => {
  const list = read(check, text);
  return 'values' in list ? list.values : list;
};

test('names below each other, with their units in a column, in the name or behind the figure', () => {
  const list = `Sample;2026-11-20
Viscosity at 40 °C;48.2;mm²/s
New oil, viscosity 40;46;cSt
TAN;0.42;mg KOH/g
Water (Karl Fischer);0.03 %
Iron (Fe);12;mg/kg
Cu;3
Silicon;<5;ppm
Zinc;210;ppm`;
  expect(read('oil-sample', list)).toEqual({
    values: {
      viscosity: 48.2,
      newViscosity: 46,
      acid: 0.42,
      // Three hundredths of one per cent are 300 ppm.
      waterPpm: expect.closeTo(300, 9),
      ironPpm: 12,
      copperPpm: 3,
      // Less than can be measured: the most that it can be.
      siliconPpm: 5,
    },
    left: ['Zinc'],
  });
});

test('names beside each other: the last row counts', () => {
  const list = `Laboratory of the valley;;;;
Date;CO (ppm);CO2 (ppm);Oil (mg/m³);O2 (%);Water (mg/m3)
2026-05-02;1,2;410;0,05;20,9;18
2026-11-20;2,5;430;0,08;20,9;22`;
  expect(values('air-quality', list)).toEqual({
    coPpm: 2.5,
    co2Ppm: 430,
    oilMgM3: 0.08,
    oxygenPercent: 20.9,
    waterMgM3: 22,
  });
});

test('carbon dioxide is not taken for monoxide, nor viscosity at 100 °C for that at 40', () => {
  expect(values('air-quality', 'Carbon dioxide;0.041;%\nCarbon monoxide;3;ml/m3')).toEqual({
    co2Ppm: expect.closeTo(410, 9),
    coPpm: 3,
  });
  expect(read('oil-sample', 'Viscosity 100 °C;7.1;cSt\nFe;4;ppm')).toMatchObject({
    values: { ironPpm: 4 },
    left: ['Viscosity 100 °C'],
  });
});

test('what is not sure is asked back, beside its field', () => {
  expect(read('oil-sample', 'Water;300')).toMatchObject([
    'no-unit',
    'waterPpm',
    expect.stringMatching(/ppm or/),
  ]);
  expect(read('oil-sample', 'Water;3;g/L')).toMatchObject([
    'other-unit',
    'waterPpm',
    expect.stringMatching(/g\/L/),
  ]);
  expect(read('air-quality', 'Oil;0.1;ppm')).toMatchObject(['other-unit', 'oilMgM3', expect.anything()]);
  expect(read('oil-sample', 'Iron;> 500;ppm')).toMatchObject([
    'past-its-range',
    'ironPpm',
    expect.anything(),
  ]);
  expect(read('oil-sample', 'Iron;traces;ppm')).toMatchObject(['no-figure', 'ironPpm', expect.anything()]);
  expect(read('oil-sample', 'Iron;5;ppm\nFe;8;ppm')).toMatchObject(['twice', 'ironPpm', expect.anything()]);
});

test('what is no such list says what it looked for; an empty cell is none', () => {
  expect(read('oil-sample', 'Shopping;milk')).toMatchObject([
    'not-a-list',
    undefined,
    expect.stringMatching(/Iron/),
  ]);
  expect(read('oil-sample', '')).toMatchObject(['not-a-list', undefined, expect.anything()]);
  expect(read('oil-level', 'Iron;5;ppm')).toMatchObject(['not-a-list', undefined, expect.anything()]);
  expect(values('oil-sample', 'Iron;;ppm\nCopper;2;ppm')).toEqual({ copperPpm: 2 });
});

test('every figure that is read has its field', () => {
  const all = {
    'oil-sample': 'Visc 40;46\nNew visc 40;46\nTAN;1\nNew TAN;0.1\nWater;1;ppm\nFe;1\nCu;1\nSi;1',
    'air-quality': 'CO;1;ppm\nCO2;400;ppm\nOil;0.1;mg/m3\nOxygen;21\nWater;20;mg/m3',
  } as const;
  expect(checksWithLists).toEqual(Object.keys(all));
  for (const [check, list] of Object.entries(all)) {
    const fields = checkByCode(check)!.fields.map(({ code }) => code);
    const found = Object.keys(values(check, list));
    expect(found.filter((field) => !fields.includes(field))).toEqual([]);
    expect(found).toHaveLength(list.split('\n').length);
  }
});
