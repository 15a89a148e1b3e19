import { act, render, screen } from '@testing-library/react';
import { useEffect, useRef } from 'react';
import { Link, MemoryRouter, Outlet, Route, Routes, useNavigate, type NavigateFunction } from 'react-router';
import { usePlace } from './use-place.js';

function Frame() {
  const main = useRef<HTMLElement>(null);
  usePlace(main);
  return (
    <>
      <Link to="/second">On</Link>
      <main ref={main} tabIndex={-1}>
        <Outlet />
      </main>
    </>
  );
}

const scrolled: number[] = [];
let top = 0;

let navigate: NavigateFunction;

function Navigate() {
  const go = useNavigate();
  useEffect(() => void (navigate = go), [go]);
  return null;
}

function start() {
  scrolled.length = 0;
  top = 0;
  Object.defineProperty(window, 'scrollY', { configurable: true, get: () => top });
  window.scrollTo = ((_left: number, y: number) => {
    scrolled.push(y);
    top = y;
  }) as typeof window.scrollTo;
  render(
    <MemoryRouter>
      <Navigate />
      <Routes>
        <Route element={<Frame />}>
          <Route index element={<h1>First</h1>} />
          <Route path="second" element={<h1>Second</h1>} />
          {/* A form that asks for the focus keeps it. */}
          <Route path="field" element={<input aria-label="Asks" ref={(one) => one?.focus()} />} />
        </Route>
      </Routes>
    </MemoryRouter>,
  );
  return (to: string | number) => act(async () => void (await navigate(to as string)));
}

function scrollTo(y: number): void {
  top = y;
  act(() => void window.dispatchEvent(new Event('scroll')));
}

test('a new place begins at its top, with the focus in it, and is named by its heading', async () => {
  const go = start();
  expect(document.title).toBe('First · Entretien');
  scrollTo(400);
  await go('/second');
  expect(scrolled).toEqual([0]);
  expect(document.activeElement).toBe(screen.getByRole('main'));
  await act(async () => {});
  expect(document.title).toBe('Second · Entretien');
});

test('one gone back to stands where it stood', async () => {
  const go = start();
  scrollTo(400);
  await go('/second');
  scrollTo(90);
  await go(-1);
  expect(scrolled.at(-1)).toBe(400);
  await go(1);
  expect(scrolled.at(-1)).toBe(90);
});

test('another question of the same place moves nothing', async () => {
  const go = start();
  scrollTo(300);
  await go('/?at=isolate');
  expect(scrolled).toEqual([]);
});

test('a field that asks for the focus keeps it; a place without a heading has the name of the whole', async () => {
  const go = start();
  await go('/field');
  await act(async () => {});
  expect(document.activeElement).toBe(screen.getByLabelText('Asks'));
  expect(document.title).toBe('Entretien');
});
