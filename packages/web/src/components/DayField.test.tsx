import { fireEvent, screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import { usePreferences } from '../data/preferences.js';
import { problems, renderPage } from '../testing/render-page.js';
import { DayAndTimeField, DayField } from './DayField.js';

const kept: string[] = [];
function Day({ first = '' }: { readonly first?: string }) {
  const [day, setDay] = useState(first);
  const put = (next: string) => {
    kept.push(next);
    setDay(next);
  };
  return <DayField label="Until" day={day} onDay={put} />;
}
function Moment() {
  const [text, setText] = useState('2026-11-24T08:30');
  return <DayAndTimeField label="On" text={text} onText={setText} />;
}
const field = (label: string) => screen.getByLabelText<HTMLInputElement>(label);
const type = (label: string, text: string) => {
  fireEvent.change(field(label), { target: { value: text } });
  fireEvent.blur(field(label));
};

beforeEach(() => {
  kept.length = 0;
  usePreferences.getState().setFormats({ dayOrder: 'day-month', decimal: 'point' });
});

test('a day is typed as one writes it, and stands as everything else is written', async () => {
  await renderPage(<Day />);
  type('Until', '5.12.26');
  expect(kept.at(-1)).toBe('2026-12-05');
  expect(field('Until').value).toBe('5 Dec 2026');
});

test('what cannot be read stays as it was typed, says so, and is no day', async () => {
  await renderPage(<Day first="2026-12-05" />);
  type('Until', '31 Feb 2026');
  expect(field('Until').value).toBe('31 Feb 2026');
  expect(problems().join()).toMatch(/no such day/);
  expect(kept.at(-1)).toBe('');
  type('Until', '');
  expect(problems()).toEqual([]);
});

test('in the order that the person chose', async () => {
  usePreferences.getState().setFormats({ dayOrder: 'month-day' });
  await renderPage(<Day first="2026-12-05" />);
  expect(field('Until').value).toBe('Dec 5, 2026');
  type('Until', '11/3/2026');
  expect(kept.at(-1)).toBe('2026-11-03');
});

test('a day is chosen in the calendar; a moment keeps its time', async () => {
  await renderPage(<Moment />);
  fireEvent.click(screen.getByLabelText('Choose the day'));
  fireEvent.click(await screen.findByRole('gridcell', { name: '9' }));
  await waitFor(() => expect(field('On').value).toBe('9 Nov 2026, 08:30'));
});
