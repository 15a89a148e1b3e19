import { waterYear, weatherYear, type WaterYear, type WaterYearInput } from './index.js';

const climate = { warmMonthC: 18, coldMonthC: -2, daySwingK: 8, humidity: 0.75 };

const input: WaterYearInput = {
  climate,
  intakeBarAbs: 0.9,
  fadLpm: 200,
  hoursPerWeek: 10,
  finalBarAbs: 226,
  separatorAboveK: 15,
  cartridgeG: 100,
};

function reckoned(more: Partial<WaterYearInput> = {}): { year: WaterYear; shares: number[] } {
  const run = waterYear({ ...input, ...more });
  const shares: number[] = [];
  for (;;) {
    const next = run.next();
    if (!next.done) shares.push(next.value);
    else if (next.value.ok) return { year: next.value.value, shares };
    else throw new Error(next.value.problem.sentence);
  }
}

test('a year of weather has the months it was asked for, and is driest when warmest', () => {
  const outcome = weatherYear(climate);
  if (!outcome.ok) throw new Error();
  const mean = (month: number) => {
    const hours = outcome.value.filter((hour) => hour.month === month);
    return hours.reduce((sum, { tempC }) => sum + tempC, 0) / hours.length;
  };
  expect(outcome.value).toHaveLength(8760);
  expect(mean(6)).toBeCloseTo(18, 0);
  expect(mean(0)).toBeCloseTo(-2, 0);
  const [night, afternoon] = [outcome.value[190 * 24 + 3]!, outcome.value[190 * 24 + 15]!];
  expect(afternoon.tempC - night.tempC).toBeCloseTo(8, 1);
  expect(afternoon.relativeHumidity).toBeLessThan(night.relativeHumidity);
});

test('steady weather by hand: a cartridge of 100 g at 35 °C, 226 bar, 200 L/min', () => {
  // ln f at 226 bar, 35 °C: Poynting 0.159, 2ρB 0.444, 1.5ρ²C −0.081, ln Z 0.062, dissolved −0.003: f = 1.790;
  // 0.62195·0.056267·1.790/(226 − 0.1) = 2.773e-4;
  // dry air (0.9 − 0.75·0.02339·1.0037)e5/(287.04·293.15) = 1.0487 kg/m³: 0.2908 g/m³, 12 m³/h: 28.65 h.
  const steady = { warmMonthC: 20, coldMonthC: 20, daySwingK: 0, humidity: 0.75 };
  const { year } = reckoned({ climate: steady });
  expect(year.months[3]!.cartridgeHours).toBeGreaterThan(28.3);
  expect(year.months[3]!.cartridgeHours).toBeLessThan(29);
  expect(year.runningHours).toBeCloseTo((8760 * 10) / 168, 6);
  expect(year.cartridges).toBeCloseTo(year.runningHours / year.months[3]!.cartridgeHours!, 6);
});

test('summer takes more cartridges than winter; the share of the year is told on the way', () => {
  const { year, shares } = reckoned();
  expect(year.months[6]!.cartridgeHours!).toBeLessThan(year.months[0]!.cartridgeHours! / 2);
  expect(year.months[6]!.condensateMlPerHour).toBeGreaterThan(year.months[0]!.condensateMlPerHour);
  expect(shares).toHaveLength(12);
  expect(shares.at(-1)).toBe(1);
});

test('twice the running is twice the water; no cartridge is none used', () => {
  const once = reckoned().year;
  const twice = reckoned({ hoursPerWeek: 20 }).year;
  expect(twice.condensateL / once.condensateL).toBeCloseTo(2, 9);
  const { cartridgeG: _none, ...without } = input;
  const run = waterYear(without);
  let next = run.next();
  while (!next.done) next = run.next();
  expect(next.value).toMatchObject({ ok: true, value: { cartridges: null, bySeasonHours: null } });
});

test.each<[Partial<WaterYearInput>, string]>([
  [{ hoursPerWeek: 169 }, 'hoursPerWeek'],
  [{ finalBarAbs: -1 }, 'finalBarAbs'],
  [{ climate: { ...climate, humidity: 1.2 } }, 'humidity'],
  [{ climate: { ...climate, warmMonthC: 64 } }, 'warmMonthC'],
  [{ climate: { ...climate, coldMonthC: 30 } }, 'coldMonthC'],
])('%j is refused beside its field', (more, field) => {
  expect(waterYear({ ...input, ...more }).next().value).toMatchObject({ ok: false, problem: { field } });
});
