import { jest } from '@jest/globals';
import { ThemeProvider } from '@mui/material';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, configure, fireEvent, render, screen } from '@testing-library/react';
import type { ReactElement } from 'react';
import { MemoryRouter, Route, Routes } from 'react-router';
import { theme } from '../components/theme/theme.js';

// A bound that ends what hangs; a busy machine takes its time.
configure({ asyncUtilTimeout: 30_000 });

/** Where the clock of component tests stands. */
export const NOW = Date.UTC(2026, 10, 24, 9);

/** A moment so many days before, as the wire writes it. */
export function daysAgo(days: number): string {
  return new Date(NOW - days * 86_400_000).toISOString();
}

/** What was sent to the server, as far as a test has let it come to that. */
export interface Sent {
  readonly path: string;
  readonly body: unknown;
}

/**
 * Shows a part of the page as the application would, with its clock at {@link NOW} and a server that answers what
 * the test says by path, a problem with its own status; of anything else it knows nothing.
 */
export async function renderPage(
  part: ReactElement,
  answers: Readonly<Record<string, unknown>> = {},
  { path = '*', address = '/' }: { readonly path?: string; readonly address?: string } = {},
) {
  jest.useFakeTimers({
    now: NOW,
    doNotFake: ['setTimeout', 'clearTimeout', 'setInterval', 'clearInterval', 'queueMicrotask', 'nextTick'],
  });
  const sent: Sent[] = [];
  globalThis.fetch = (async (input: string, init?: { method?: string; body?: unknown }) => {
    const path = input.replace(/^\/api/, '');
    if (init?.method === 'POST' || init?.method === 'PUT')
      sent.push({
        path,
        body: typeof init.body === 'string' ? (JSON.parse(init.body) as unknown) : (init.body ?? null),
      });
    const answer = answers[path] as { readonly status?: unknown } | undefined;
    // A problem says with which status it is answered.
    const status = answer === undefined ? 404 : typeof answer.status === 'number' ? answer.status : 200;
    return Promise.resolve({
      ok: status === 200,
      status,
      headers: new Map<string, string>(),
      json: () => Promise.resolve(answer ?? { title: 'Nothing is known of it.', status }),
    });
  }) as unknown as typeof fetch;
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  await afterwards(
    () =>
      void render(
        <ThemeProvider theme={theme}>
          <QueryClientProvider client={queries}>
            <MemoryRouter initialEntries={[address]}>
              <Routes>
                <Route path={path} element={part} />
              </Routes>
            </MemoryRouter>
          </QueryClientProvider>
        </ThemeProvider>,
      ),
  );
  return { sent };
}

/** A field by its label. */
export function field(label: string): HTMLInputElement {
  return screen.getByLabelText(label, { exact: true, selector: 'input, textarea' });
}

/** Lets everything happen that follows from what was done. */
async function afterwards(done: () => void): Promise<void> {
  await act(async () => {
    done();
    await new Promise((next) => setTimeout(next));
  });
}

/** Fills a field as somebody does who pastes, once it is there. */
export async function fill(label: string, text: string): Promise<void> {
  await screen.findByLabelText(label, { exact: true, selector: 'input, textarea' });
  await afterwards(() => fireEvent.change(field(label), { target: { value: text } }));
}

/** A button by what stands on it. */
export function button(name: string): HTMLButtonElement {
  return screen.getByText(name, { selector: 'button' });
}

/** Sends the form that a button belongs to, as the enter key does, whatever the button says. */
export function enter(name: string): Promise<void> {
  return afterwards(() => fireEvent.submit(button(name).form!));
}

export function press(name: string): Promise<void> {
  return afterwards(() => fireEvent.click(button(name)));
}

/** What the page says of what was typed: every alert and every line under a field. */
export function problems(): string[] {
  const shown = document.querySelectorAll('[role=alert], .Mui-error.MuiFormHelperText-root');
  return [...shown].map((one) => one.textContent ?? '');
}

/** A screen that is touched, until what is returned is called. */
export function onTouchScreen(): () => void {
  const desk = window.matchMedia;
  window.matchMedia = (media) =>
    Object.assign(desk(media), {
      matches: media.includes('pointer') ? media.includes('coarse') : desk(media).matches,
    });
  return () => {
    window.matchMedia = desk;
  };
}
