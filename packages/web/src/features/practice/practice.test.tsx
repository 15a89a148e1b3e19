import { exerciseByCode, Round, viewOf, type PracticeAsk } from '@entretien/core/practice';
import { fireEvent, screen, within } from '@testing-library/react';
import { renderPage } from '../../testing/render-page.js';
import { EndOfRound } from './EndOfRound.js';
import { RoundActions } from './RoundActions.js';
import { bestOf, usePractice, type KeptResult } from './rounds.js';

const roundOf = (code: string, ...asks: readonly PracticeAsk[]) => {
  const round = new Round(exerciseByCode(code, '1')!, '1');
  for (const ask of asks) round.ask(ask);
  return round;
};

const nothing = () => undefined;

test('tests stand by what they are done with, with minutes, hazard and what they open; what was found stands by them', async () => {
  const asked: PracticeAsk[] = [];
  const view = viewOf(roundOf('noon', { kind: 'test', code: 'T1' }));
  await renderPage(<RoundActions view={view} isBusy={false} onAsk={(ask) => asked.push(ask)} />);
  // Found is found: it is told, and not offered again.
  expect(await screen.findByText('One is open or passes')).toBeTruthy();
  expect(screen.queryByRole('button', { name: /^Drains and hand valves/ })).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'Tool box' }));
  const covers = screen.getByRole('button', { name: /^Valve covers/ });
  expect(covers.textContent).toContain('thermometer · 5 min');
  expect(covers.textContent).toContain('by instrument, not by hand');
  expect(screen.getByRole('button', { name: /^Soap the joints/ }).textContent).toContain('locked first');
  fireEvent.click(screen.getByRole('button', { name: 'Open' }));
  expect(screen.getByRole('button', { name: /^Head off/ }).textContent).toContain(
    'opens: head, valves, coolers, unloader',
  );
  fireEvent.click(screen.getByRole('button', { name: 'Mend' }));
  fireEvent.click(screen.getByRole('button', { name: /^Drain or cock open/ }));
  fireEvent.click(screen.getByRole('button', { name: 'Stop, and lock it' }));
  expect(asked).toEqual([{ kind: 'repair', cause: 'DRN' }, { kind: 'lock' }]);
});

test('while something is being done nothing else is begun', async () => {
  await renderPage(<RoundActions view={viewOf(roundOf('noon'))} isBusy onAsk={nothing} />);
  expect((await screen.findByRole('button', { name: 'Try and prove it' })).hasAttribute('disabled')).toBe(
    true,
  );
  expect(screen.getByRole('button', { name: /^Drains and hand/ }).hasAttribute('disabled')).toBe(true);
});

test('at the end stand minutes, cost and risk beside what the fault finder would have done', async () => {
  const view = viewOf(
    roundOf(
      'noon',
      { kind: 'advise' },
      { kind: 'lock' },
      { kind: 'repair', cause: 'VS' },
      { kind: 'unlock' },
      { kind: 'repair', cause: 'DRN' },
      { kind: 'prove' },
    ),
  );
  await renderPage(<EndOfRound view={view} end={view.end!} onAgain={nothing} onAnother={nothing} />);
  const you = await screen.findByRole('region', { name: 'You' });
  expect(you.textContent).toContain('Cost30min');
  expect(you.textContent).toContain('1 × part, 20 each; 1 × advice, 10 each');
  expect(you.textContent).toContain('Opened with a vent shut: bleed of the intercooler: 30');
  const status = screen.getByRole('status');
  expect(status.textContent).toMatch(/Mended and proved after \d+ min, \d+ too late/);
  expect(status.textContent).toContain('Left undone: found without opening anything.');
  const finder = screen.getByRole('region', { name: 'The fault finder' });
  expect(within(finder).getAllByRole('listitem').at(-1)!.textContent).toBe(
    'Mend: Drain or cock open, or its seat passes',
  );
});

test('the same end is kept once, another try beside it, and the best is shown', () => {
  const { keep } = usePractice.getState();
  const over = roundOf('noon', { kind: 'give-up' });
  const end = viewOf(over).end;
  const kept = { code: 'noon', seed: '1', done: over.done, seconds: over.seconds };
  keep(kept, end);
  keep(kept, end);
  expect(usePractice.getState().results).toHaveLength(1);
  expect(usePractice.getState().rounds).toHaveLength(1);
  usePractice.getState().forget('noon', '1');
  expect(usePractice.getState().rounds).toEqual([]);
  const result = (more: Partial<KeptResult>): KeptResult => ({
    code: 'noon',
    seed: '1',
    end: 'mended',
    total: 60,
    minutes: 60,
    at: 1,
    ...more,
  });
  const results = [
    result({ end: 'accident', total: null }),
    result({ total: 90 }),
    result({ total: 40 }),
    result({ code: 'hums', total: 1 }),
  ];
  expect(bestOf(results, 'noon')!.total).toBe(40);
  expect(bestOf(results.slice(0, 1), 'noon')!.end).toBe('accident');
  expect(bestOf(results, 'afternoon')).toBeUndefined();
});
