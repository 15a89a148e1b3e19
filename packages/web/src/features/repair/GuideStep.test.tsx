import type { CompressorView } from '@entretien/contracts';
import { fireEvent, screen } from '@testing-library/react';
import { press, renderPage } from '../../testing/render-page.js';
import { GuideStep } from './GuideStep.js';

const step = { code: 'head-bolts', name: 'Head on', torque: 'head bolts' };
const shown = (torques: string | undefined, isGone = false) => {
  const told: string[] = [];
  const unit = { id: 'unit', torques } as CompressorView;
  return renderPage(
    <GuideStep
      step={step}
      unit={unit}
      isGone={isGone}
      isSending={false}
      onGone={() => told.push('gone')}
      onUndo={() => told.push('undo')}
    />,
  ).then(() => told);
};
const box = () => screen.getByRole<HTMLButtonElement>('checkbox', { name: 'Head on' });
const round = (name: string) => screen.getByRole<HTMLButtonElement>('button', { name });

test('bolts of which the figure is known are ticked round by round before the step is', async () => {
  const told = await shown('head bolts: 24 Nm, 3 rounds, manual');
  expect(document.body.textContent).toContain('The head bolts: 24 N·m (manual)');
  expect(box().disabled).toBe(true);
  expect(round('Round 2: 16 N·m').disabled).toBe(true);
  for (const name of ['Round 1: 8 N·m', 'Round 2: 16 N·m', 'Round 3: 24 N·m']) await press(name);
  expect(box().disabled).toBe(false);
  // Not sure of the last one: it is gone again.
  await press('Round 3: 24 N·m');
  expect(box().disabled).toBe(true);
  await press('Round 3: 24 N·m');
  fireEvent.click(box());
  expect(told).toEqual(['gone']);
});

test('where the figure is of another joint, or none is known, it says so and holds nobody up', async () => {
  const told = await shown('cover bolts: 18 Nm');
  expect(document.body.textContent).toContain('by the data plate: cover bolts: 18 Nm');
  expect(screen.queryByRole('group')).toBeNull();
  fireEvent.click(box());
  expect(told).toEqual(['gone']);
});

test('a step that was gone through asks for no rounds any more', async () => {
  const told = await shown('head bolts: 24 Nm', true);
  expect(screen.queryByRole('group')).toBeNull();
  fireEvent.click(box());
  expect(told).toEqual(['undo']);
});
