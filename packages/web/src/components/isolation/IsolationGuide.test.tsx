import { fireEvent, screen, waitFor } from '@testing-library/react';
import { honestCourse, isolationOf, type IsolateBody, type IsolationEvent } from '@entretien/core/isolation';
import { useState } from 'react';
import { currentInstant } from '../../data/clock.js';
import { pistonPlate as plate } from '../../testing/facts.js';
import { renderPage } from '../../testing/render-page.js';
import { IsolationGuide } from './IsolationGuide.js';

const OPENS = ['receiver'];
const MINUTE = 60_000;

const found: string[] = [];
const button = (name: RegExp) => screen.getByRole('button', { name });

/** The guide with what was said so far, so many minutes after the last of it. */
function Machine({ answered, minutes }: { readonly answered: number; readonly minutes: number }) {
  const [events, setEvents] = useState<readonly IsolationEvent[]>(() => {
    const course = honestCourse(plate, OPENS).slice(0, answered);
    const start = currentInstant() - minutes * MINUTE - course.at(-1)!.seconds * 1000;
    return course.map(({ seconds, body }, index) => ({
      id: `e${index}`,
      doneAt: start + seconds * 1000,
      by: 'mira',
      session: 'one',
      body,
    }));
  });
  const guarded = { plate };
  const record = (body: IsolateBody) => {
    const event = { id: `e${events.length}`, doneAt: currentInstant(), by: 'mira', session: 'one', body };
    setEvents((before) => [...before, event]);
    return Promise.resolve();
  };
  return (
    <IsolationGuide
      here={{
        guarded,
        fold: isolationOf(guarded, events),
        by: 'mira',
        session: 'one',
        opens: OPENS,
        now: currentInstant(),
        record,
        onFound: (text) => void found.push(text),
      }}
    />
  );
}

const ALL = honestCourse(plate, OPENS).length;

test('the second look waits for its time', async () => {
  await renderPage(<Machine answered={ALL - 1} minutes={1} />);
  expect(screen.getByText(/^In \d:\d\d, everything left open\.$/)).toBeTruthy();
  expect(button(/^Hold: nothing comes/)).toHaveProperty('disabled', true);
});

test('its time come, a key held for a second says it; let go too soon it says nothing', async () => {
  await renderPage(<Machine answered={ALL - 1} minutes={3} />);
  const target = button(/^Hold: nothing comes/);
  fireEvent.keyDown(target, { key: 'Enter' });
  fireEvent.keyUp(target, { key: 'Enter' });
  expect(screen.getByText(/^3 of 4 hold\.$/)).toBeTruthy();
  fireEvent.keyDown(target, { key: 'Enter' });
  await waitFor(() => expect(screen.getByText('Isolated for this.')).toBeTruthy(), { timeout: 5000 });
});

test('what comes again at the second look is a finding, and every space is proved again', async () => {
  await renderPage(<Machine answered={ALL - 1} minutes={3} />);
  fireEvent.click(button(/^Something comes, or a needle moved/));
  fireEvent.click(button(/^So it is: prove again/));
  await waitFor(() => expect(screen.getByText(/^2 of 4 hold\.$/)).toBeTruthy());
  expect(found.at(-1)).toMatch(/a neighbouring valve passes/);
  expect(screen.getByRole('alert').textContent).toMatch(/It is being fed/);
});

test('after a pause there is one screen with one hold', async () => {
  await renderPage(<Machine answered={ALL} minutes={30} />);
  expect(screen.getAllByRole('button', { name: /^Hold/ })).toHaveLength(1);
  fireEvent.keyDown(button(/^Hold: all four/), { key: ' ' });
  await waitFor(() => expect(screen.getByText('Isolated for this.')).toBeTruthy(), { timeout: 5000 });
});

test('a valve that was opened takes back what rests on it, once it was asked whether it is so', async () => {
  await renderPage(<Machine answered={ALL} minutes={1} />);
  expect(screen.getByText('Isolated for this.')).toBeTruthy();
  fireEvent.click(button(/^Open again: Network valve/));
  expect(screen.getByText(/that rests on it is asked for again/)).toBeTruthy();
  expect(screen.getByText('Isolated for this.')).toBeTruthy();
  fireEvent.click(button(/^So it is/));
  await waitFor(() => expect(screen.getByText(/^1 of 4 hold\.$/)).toBeTruthy());
});
