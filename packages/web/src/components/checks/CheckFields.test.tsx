import { checkByCode, type FieldDefinition } from '@entretien/core/checks';
import { fireEvent, screen } from '@testing-library/react';
import { useState } from 'react';
import { fill, press, problems, renderPage } from '../../testing/render-page.js';
import { CheckFields } from './CheckFields.js';

async function fields(code: string, more: object = {}) {
  let texts: Readonly<Record<string, string>> = {};
  const definitions: readonly FieldDefinition[] = checkByCode(code)!.fields;
  function Held() {
    const [held, setHeld] = useState<Readonly<Record<string, string>>>({});
    texts = held;
    return (
      <CheckFields
        fields={definitions}
        texts={held}
        onText={(field, text) => setHeld({ ...held, [field]: text })}
        problems={{}}
        {...more}
      />
    );
  }
  await renderPage(<Held />);
  return () => texts;
}

test('a figure is kept as typed, a choice by its code, and let go of again', async () => {
  const texts = await fields('filter-condition');
  await press('dirty');
  expect(texts()).toEqual({ condition: 'dirty' });
  await press('dirty');
  expect(texts()).toEqual({ condition: '' });
});

test('what is seldom needed stands behind one press, named', async () => {
  await fields('discharge-temperature');
  expect(screen.queryByLabelText('At load for')).toBeNull();
  const more = screen.getByText(/^More figures: /, { selector: 'button' });
  expect(more.textContent).toContain('at load for');
  fireEvent.click(more);
  expect(screen.getByLabelText('At load for')).toBeTruthy();
});

test('what has a problem is shown whatever else, with its sentence', async () => {
  await fields('discharge-temperature', { problems: { loadMinutes: 'That is no time.' } });
  expect(screen.getByLabelText('At load for')).toBeTruthy();
  expect(problems()).toContain('That is no time.');
});

test('what stands on the data plate counts while nothing is typed, and says so', async () => {
  const plate = { workingPressureBar: 8, cutOutBar: 8.5, maximumPressureBar: 11 } as never;
  await fields('highest-pressure', { plate });
  const field = screen.getByLabelText('Cut-out or auto-stop') as HTMLInputElement;
  expect([field.value, field.placeholder]).toEqual(['', '8.5']);
  expect(screen.getAllByText('from the data plate').length).toBeGreaterThan(0);
});

test('typed in another unit it is kept so, with ours beneath', async () => {
  const texts = await fields('separator-drop');
  await fill('Drop', '14.5 psi');
  expect(texts()['dropBar']).toBe('14.5 psi');
  expect(screen.getByText(/^= 1(\.0)? bar/)).toBeTruthy();
});
