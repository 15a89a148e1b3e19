import { HOUR_MS } from '../basics/index.js';
import {
  afterRecording,
  dutiesOf,
  figuresOf,
  isAllowed,
  NOTHING_ANSWERED,
  readAllowed,
  readRegisterMap,
  readsOf,
  registerKey,
  registersOf,
  type DeviceFigures,
  type DeviceMemory,
  type RegisterMap,
} from './index.js';

const rows = (...all: readonly Readonly<Record<string, string>>[]) => all;
const mapOf = (...all: readonly Readonly<Record<string, string>>[]): RegisterMap => {
  const read = readRegisterMap(all);
  if (!read.ok) throw new Error(read.problem.sentence);
  return read.value;
};
/** Reads registers that hold what is said, by number. */
const wordsOf = (held: Readonly<Record<number, number>>) => (_table: string, register: number) =>
  held[register];

describe('a table of registers', () => {
  test('takes what is usual where nothing is said', () => {
    expect(mapOf({ what: 'hours-total', register: '40' })).toEqual([
      {
        what: 'hours-total',
        table: 'holding',
        register: 40,
        type: 'u16',
        order: 'high-first',
        factor: 1,
        offset: 0,
      },
    ]);
  });

  test.each([
    ['no rows', rows(), /names no register/],
    ['an unknown quantity', rows({ what: 'oil', register: '1' }), /Line 2: “oil” is none of hours-total/],
    ['an unknown table', rows({ what: 'status', register: '1', table: 'coil' }), /holding or input/],
    ['an unknown type', rows({ what: 'status', register: '1', type: 'u64' }), /one of u16/],
    ['an unknown order', rows({ what: 'status', register: '1', order: 'up' }), /high-first or low-first/],
    ['no number', rows({ what: 'status', register: 'x' }), /whole number from 0/],
    ['none at all', rows({ what: 'status' }), /whole number from 0/],
    ['half a number', rows({ what: 'status', register: '1.5' }), /whole number from 0/],
    ['before the first', rows({ what: 'status', register: '-1' }), /whole number from 0/],
    ['beyond the last', rows({ what: 'status', register: '65535', type: 'u32' }), /whole number from 0/],
    ['a factor of nothing', rows({ what: 'status', register: '1', factor: '0' }), /other than 0/],
    ['a factor that is none', rows({ what: 'status', register: '1', factor: 'NaN' }), /other than 0/],
    ['an offset that is none', rows({ what: 'status', register: '1', offset: '1e99' }), /offset/],
    [
      'the same twice',
      rows({ what: 'status', register: '1' }, { what: 'status', register: '2' }),
      /Line 3.*twice/,
    ],
  ])('%s is refused', (_name, given, sentence) => {
    const read = readRegisterMap(given);
    expect(read.ok).toBe(false);
    if (!read.ok) expect(read.problem.sentence).toMatch(sentence);
  });

  test('is asked for in few questions, none longer than the protocol carries', () => {
    const map = mapOf(
      { what: 'alarm', register: '9' },
      { what: 'hours-total', register: '0', type: 'u32' },
      { what: 'hours-loaded', register: '2', type: 'u32' },
      { what: 'status', register: '300' },
      { what: 'outlet-c', register: '1', table: 'input', type: 'i16' },
    );
    expect(readsOf(map)).toEqual([
      { table: 'holding', from: 0, count: 10 },
      { table: 'holding', from: 300, count: 1 },
      { table: 'input', from: 1, count: 1 },
    ]);
  });
});

describe('figures', () => {
  // Worked by hand: 0x0001_E240 = 123,456 tenths; 1.5 = 0x3FC00000; 0xFFF6 = −10.
  test.each([
    ['u32', 'high-first', [0x0001, 0xe240], '0.1', 12_345.6],
    ['u32', 'low-first', [0xe240, 0x0001], '0.1', 12_345.6],
    ['i32', 'high-first', [0x0001, 0xe240], '1', 123_456],
    ['u16', 'high-first', [500], '1', 500],
    ['f32', 'high-first', [0x3fc0, 0x0000], '1', 1.5],
    ['f32', 'low-first', [0x0000, 0x3fc0], '1', 1.5],
  ])('%s, %s', (type, order, words, factor, figure) => {
    const map = mapOf({ what: 'hours-total', register: '10', type, order, factor });
    const held = Object.fromEntries(words.map((one, at) => [10 + at, one]));
    expect(figuresOf(map, wordsOf(held))).toEqual({ values: { 'hours-total': figure }, doubts: [] });
    // And back again: what a device with that figure would hold.
    const back = registersOf(map, { 'hours-total': figure });
    expect(words.map((_one, at) => back.get(registerKey('holding', 10 + at)))).toEqual(words);
  });

  test('a temperature below nothing is one, with its offset', () => {
    const map = mapOf({ what: 'ambient-c', register: '1', type: 'i16' });
    expect(figuresOf(map, wordsOf({ 1: 0xfff6 })).values).toEqual({ 'ambient-c': -10 });
    expect(figuresOf(map, wordsOf({ 1: 0xffff })).values).toEqual({ 'ambient-c': -1 });
    const kelvin = mapOf({ what: 'outlet-c', register: '1', offset: '-273' });
    expect(figuresOf(kelvin, wordsOf({ 1: 353 })).values).toEqual({ 'outlet-c': 80 });
  });

  test.each([
    ['65,535 of a sensor that is not fitted', 'u16', [0xffff], /holds no figure/],
    ['all bits of two', 'u32', [0xffff, 0xffff], /holds no figure/],
    ['no number', 'f32', [0x7fc0, 0x0000], /holds no figure \(NaN\)/],
    ['without end', 'f32', [0x7f80, 0x0000], /holds no figure \(Infinity\)/],
    ['the sign alone', 'i16', [0x8000], /holds no figure/],
    ['minus one hour', 'i16', [0xffff], /holds no figure/],
    ['hours below nothing', 'i16', [0xfff6], /beyond what is believed/],
    ['hours that no machine has', 'u32', [0x00ff, 0xffff], /beyond what is believed/],
  ])('%s is doubted, and no figure', (_name, type, words, sentence) => {
    const map = mapOf({ what: 'hours-total', register: '0', type });
    const { values, doubts } = figuresOf(map, wordsOf(Object.fromEntries(words.map((one, at) => [at, one]))));
    expect(values).toEqual({});
    expect(doubts).toEqual([
      expect.objectContaining({ what: 'hours-total', sentence: expect.stringMatching(sentence) }),
    ]);
  });

  test('a register that was not answered is said', () => {
    const map = mapOf({ what: 'hours-total', register: '0', type: 'u32' });
    expect(figuresOf(map, wordsOf({ 0: 1 })).doubts[0]!.sentence).toMatch(/was not answered/);
  });
});

describe('what is put on record', () => {
  const START = Date.UTC(2026, 10, 24, 6);
  const told = (values: DeviceFigures['values']): DeviceFigures => ({ values, doubts: [] });

  /** Answers at moments, each put on record where it is due. */
  function followed(answers: readonly (readonly [atH: number, values: DeviceFigures['values']])[]) {
    let memory: DeviceMemory = NOTHING_ANSWERED;
    return answers.map(([atH, values]) => {
      const now = START + atH * HOUR_MS;
      const { readings, doubts, temperatures, memory: next } = dutiesOf(memory, told(values), now);
      memory = next;
      for (const { counts, hours } of readings)
        memory = afterRecording(memory, counts, hours, { at: now, isRefused: false });
      if (temperatures) memory = { ...memory, measuredAt: now };
      return {
        readings: readings.map(({ hours }) => hours),
        doubts: doubts.length,
        measures: temperatures !== null,
      };
    });
  }
  const read = (answers: Parameters<typeof followed>[0]) => followed(answers).map(({ readings }) => readings);

  test('the first answer, then once an hour while it moves', () => {
    const answers = Array.from({ length: 13 }, (_one, at): [number, DeviceFigures['values']] => [
      at / 6,
      { 'hours-total': 100 + at / 6, status: 2 },
    ]);
    expect(read(answers).map((one) => one.length)).toEqual([1, 0, 0, 0, 0, 0, 1, 0, 0, 0, 0, 0, 1]);
  });

  test('standing still it is read once a day', () => {
    const answers = Array.from({ length: 49 }, (_one, at): [number, DeviceFigures['values']] => [
      at,
      { 'hours-total': 100, status: 0 },
    ]);
    expect(read(answers).flatMap((one, at) => (one.length > 0 ? [at] : []))).toEqual([0, 24, 48]);
  });

  test('at a change of state at once, yet not more often than each minute', () => {
    const at = (minutes: number, status: number): [number, DeviceFigures['values']] => [
      minutes / 60,
      { 'hours-total': 100 + minutes / 6, status },
    ];
    expect(read([at(0, 2), at(0.5, 3), at(2, 3), at(3, 0), at(3.2, 3)]).map((one) => one.length)).toEqual([
      1, 0, 0, 1, 0,
    ]);
  });

  test('both counters are read, whichever stands higher: a meter may have been replaced', () => {
    expect(read([[0, { 'hours-total': 100, 'hours-loaded': 80 }]])).toEqual([[100, 80]]);
    expect(read([[0, { 'hours-total': 80, 'hours-loaded': 100 }]])).toEqual([[80, 100]]);
  });

  test('hours under load that grow faster than the run hours: neither is put on record', () => {
    const at = (hour: number, total: number, loaded: number): [number, DeviceFigures['values']] => [
      hour,
      { 'hours-total': total, 'hours-loaded': loaded },
    ];
    const found = followed([at(0, 100, 80), at(2, 102, 82), at(4, 103, 84.5)]);
    expect(found.map(({ readings, doubts }) => [readings.length, doubts])).toEqual([
      [2, 0],
      [2, 0],
      [0, 1],
    ]);
    // Counters that begin anew are compared from there.
    expect(followed([at(0, 100, 80), at(2, 1, 0.5), at(4, 3, 2)]).map(({ doubts }) => doubts)).toEqual([
      0, 0, 0,
    ]);
  });

  test('hours that stand while it says that it runs are doubted after three hours', () => {
    const answers = [0, 1, 2, 3, 4].map((hour): [number, DeviceFigures['values']] => [
      hour,
      { 'hours-total': 100, status: 2 },
    ]);
    expect(followed(answers).map(({ doubts }) => doubts)).toEqual([0, 0, 0, 1, 1]);
    const moving = [0, 2, 4, 6].map((hour): [number, DeviceFigures['values']] => [
      hour,
      { 'hours-total': 100 + hour, status: 2 },
    ]);
    expect(followed(moving).map(({ doubts }) => doubts)).toEqual([0, 0, 0, 0]);
  });

  test('what was refused is tried again after ten minutes, not at each answer', () => {
    const now = START;
    const refused = afterRecording(NOTHING_ANSWERED, 'total', 5, { at: now, isRefused: true });
    const due = (minutes: number) =>
      dutiesOf(refused, told({ 'hours-total': 5 }), now + minutes * 60_000).readings.length;
    expect([0, 1, 9, 10, 60].map(due)).toEqual([0, 0, 0, 1, 1]);
    // A clock that was put back does not stop it for ever.
    expect(due(-60)).toBe(1);
  });

  test('temperatures are judged once a day, and only under load', () => {
    const at = (hour: number, status: number): [number, DeviceFigures['values']] => [
      hour,
      { 'outlet-c': 82, 'ambient-c': 20, status },
    ];
    expect(followed([at(0, 0), at(1, 2), at(2, 2), at(26, 2)]).map(({ measures }) => measures)).toEqual([
      false,
      true,
      false,
      true,
    ]);
  });
});

describe('addresses that are allowed', () => {
  test('by numbers, with a port or any', () => {
    const read = readAllowed(' 127.0.0.1:1502, 192.0.2.7 ,');
    expect(read).toEqual({
      ok: true,
      value: [
        { host: '127.0.0.1', port: 1502 },
        { host: '192.0.2.7', port: null },
      ],
    });
    if (!read.ok) return;
    expect(isAllowed(read.value, '127.0.0.1', 1502)).toBe(true);
    expect(isAllowed(read.value, '127.0.0.1', 80)).toBe(false);
    expect(isAllowed(read.value, '192.0.2.7', 502)).toBe(true);
    expect(isAllowed(read.value, '192.0.2.8', 502)).toBe(false);
    expect(isAllowed([], '127.0.0.1', 1502)).toBe(false);
  });

  test.each([
    'controller.local',
    '256.1.1.1',
    '0.0.0.0',
    '1.2.3',
    '127.0.0.1:0',
    '127.0.0.1:99999',
    '127.0.0.1:1:2',
    '127.1',
    '0x7f.0.0.1',
    '127.0.0.1:5e1',
  ])('%s is none', (text) => {
    expect(readAllowed(text).ok).toBe(false);
  });
});
