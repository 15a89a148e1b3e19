import type { QuantityKind } from '@entretien/core/quantities';
import { act, fireEvent, screen } from '@testing-library/react';
import { useState } from 'react';
import { usePreferences } from '../data/preferences.js';
import { fill, onTouchScreen, problems, renderPage } from '../testing/render-page.js';
import { emptyEntry, entryOf, QuantityField, type QuantityEntry } from './QuantityField.js';

beforeEach(() => usePreferences.setState({ units: {} }));

async function quantity(kind: QuantityKind, more: { min?: number; max?: number; hint?: string } = {}) {
  let entry: QuantityEntry = emptyEntry;
  function Held() {
    const [held, setHeld] = useState(emptyEntry);
    entry = held;
    return <QuantityField label="Figure" kind={kind} entry={held} onEntry={setHeld} {...more} />;
  }
  await renderPage(<Held />);
  return () => entry;
}

test.each([
  ['10', 10],
  ['10 bar', 10],
  ['145 psi', 9.997],
  ['1,5', 1.5],
  ['1 MPa', 10],
])('“%s” is understood as %s bar', async (text, bar) => {
  const entry = await quantity('pressure');
  await fill('Figure', text);
  expect(entry().value).toBeCloseTo(bar, 2);
  expect(entry().text).toBe(text);
  expect(problems()).toEqual([]);
});

test.each(['ten', '20 °C', '5 5 5', '--3'])(
  '“%s” is no pressure: said beneath, and kept as typed',
  async (text) => {
    const entry = await quantity('pressure');
    await fill('Figure', text);
    expect(entry()).toMatchObject({ text, value: null });
    expect(problems()).toHaveLength(1);
  },
);

test('bounds are kept at both ends', async () => {
  const entry = await quantity('pressure', { min: 1, max: 16 });
  for (const [text, isFine] of [
    ['1', true],
    ['16', true],
    ['0.99', false],
    ['16.01', false],
  ] as const) {
    await fill('Figure', text);
    expect([text, entry().problem === null]).toEqual([text, isFine]);
  }
});

test('the other unit stands under it; of a unit that is typed the assumed one is not shown', async () => {
  await quantity('pressure', { hint: 'At the outlet.' });
  expect(screen.getByText('At the outlet.')).toBeTruthy();
  await fill('Figure', '10');
  expect(screen.getByText(/^= 145 psi/)).toBeTruthy();
  expect(screen.getByText('bar')).toBeTruthy();
  await fill('Figure', '145 psi');
  expect(screen.getByText(/^= 10(\.0)? bar/)).toBeTruthy();
  expect(screen.queryByText('bar')).toBeNull();
});

test('a person who reads in psi types psi', async () => {
  usePreferences.setState({ units: { pressure: 'psi' } });
  const entry = await quantity('pressure');
  await fill('Figure', '145');
  expect(entry().value).toBeCloseTo(9.997, 2);
  expect(entryOf(10, 'pressure')).toMatchObject({ text: '145', value: 10 });
});

test('empty it is nothing, and no problem', async () => {
  const entry = await quantity('volume', { min: 1 });
  await fill('Figure', '5');
  await fill('Figure', '  ');
  expect(entry()).toMatchObject({ value: null, problem: null });
  expect(entryOf(null, 'volume')).toBe(emptyEntry);
});

describe('the sign of a figure, on a screen whose keypad has no minus', () => {
  let restore: () => void;
  beforeEach(() => {
    restore = onTouchScreen();
  });
  afterEach(() => restore());
  const turn = () => act(async () => fireEvent.click(screen.getByLabelText('Change the sign of Figure')));

  test('is turned by a press, and back', async () => {
    const entry = await quantity('temperature');
    await fill('Figure', '8 °C');
    await turn();
    expect(entry()).toMatchObject({ text: '-8 °C', value: -8 });
    await turn();
    expect(entry()).toMatchObject({ text: '8 °C', value: 8 });
  });

  test('can be typed first', async () => {
    const entry = await quantity('temperature');
    await turn();
    await fill('Figure', `${entry().text}12`);
    expect(entry().value).toBe(-12);
  });

  test('is not offered where nothing is below zero', async () => {
    await quantity('pressure', { min: 0 });
    expect(screen.queryByLabelText(/sign of/)).toBeNull();
  });
});
