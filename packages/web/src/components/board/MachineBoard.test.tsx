import { fireEvent, screen, within } from '@testing-library/react';
import { boardOf, boardMachines, Simulation } from '@entretien/core/simulator';
import { renderPage } from '../../testing/render-page.js';
import type { BoardRequest } from './board-messages.js';
import { MachineBoard } from './MachineBoard.js';

const plateOf = (code: string) => boardMachines.find((machine) => machine.code === code)!.plate;

function shown(simulation: Simulation) {
  const asked: BoardRequest[] = [];
  renderPage(<MachineBoard board={boardOf(simulation)} onAsk={(request) => asked.push(request)} />);
  return asked;
}

test('gauges, handles and switches stand in the way of the air', async () => {
  const simulation = new Simulation(plateOf('high-pressure'));
  simulation.press('start');
  simulation.advance(120);
  const asked = shown(simulation);
  expect((await screen.findByRole('status')).textContent).toBe('Runs under load');
  const names = within(screen.getByRole('list', { name: 'The way of the air' }))
    .getAllByRole('heading')
    .map(({ textContent }) => textContent);
  expect(names.slice(0, 5)).toEqual([
    'Separator of stage 1',
    'Separator of stage 2',
    'Separator of stage 3',
    'Last separator and tower',
    'Panel and hoses',
  ]);
  fireEvent.click(screen.getByRole('button', { name: /Bleed of the tower shut/ }));
  fireEvent.click(screen.getByRole('button', { name: 'Stop' }));
  expect(asked).toEqual([
    { kind: 'turn', code: 'bleed-tower', share: 1 },
    { kind: 'press', button: 'stop' },
  ]);
});

test('what is heard is said with how plain it is; what tripped is said, and reset', async () => {
  const simulation = new Simulation(plateOf('oil-free'));
  simulation.fault('capacitor', 0.9);
  simulation.turn('trigger', 1);
  simulation.advance(90);
  const asked = shown(simulation);
  expect((await screen.findByRole('alert')).textContent).toContain('It stopped by itself: overload.');
  fireEvent.click(screen.getByRole('button', { name: 'Reset' }));
  expect(asked).toEqual([{ kind: 'press', button: 'reset' }]);
});

test('nothing is heard at a machine that stands sound', async () => {
  shown(new Simulation(plateOf('piston')));
  expect(await screen.findByText('Nothing out of the way.')).toBeTruthy();
});
