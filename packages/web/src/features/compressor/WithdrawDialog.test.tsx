import { fireEvent, screen } from '@testing-library/react';
import { button, enter, fill, press, problems, renderPage } from '../../testing/render-page.js';
import { WithdrawDialog } from './WithdrawDialog.js';

const lines = [
  { text: 'Hours read: 1,200 h', path: 'readings/r1' },
  { text: 'Service: Oil change', path: 'services/s1' },
];

function dialog(some = lines, onCorrect: (id: string) => void = () => undefined) {
  return (
    <WithdrawDialog
      compressorId="unit"
      day="24 Nov"
      lines={some}
      onCorrect={onCorrect}
      onClose={() => undefined}
    />
  );
}

test('it wants to know what, and why', async () => {
  const { sent } = await renderPage(dialog(), { '/compressors/unit/services/s1/withdrawal': {} });
  expect(button('Withdraw').disabled).toBe(true);
  await fill('Why *', 'Wrong machine');
  expect(button('Withdraw').disabled).toBe(true);
  fireEvent.click(screen.getByLabelText('Service: Oil change'));
  expect(button('Withdraw').disabled).toBe(false);
  await fill('Why *', '   ');
  expect(button('Withdraw').disabled).toBe(true);
  await enter('Withdraw');
  expect(sent).toEqual([]);
  await fill('Why *', ' Wrong machine ');
  await enter('Withdraw');
  expect(sent).toMatchObject([
    { path: '/compressors/unit/services/s1/withdrawal', body: { reason: 'Wrong machine' } },
  ]);
});

test('of one line nobody is asked which', async () => {
  await renderPage(dialog([lines[1]!]));
  expect((screen.getByLabelText('Service: Oil change') as HTMLInputElement).checked).toBe(true);
});

test('a figure can be put right instead', async () => {
  const asked: string[] = [];
  await renderPage(dialog([lines[0]!], (id) => void asked.push(id)));
  await press('Correct the figure instead');
  expect(asked).toEqual(['r1']);
});

test('what the server has against it stands in the form', async () => {
  await renderPage(dialog([lines[1]!]));
  await fill('Why *', 'Wrong machine');
  await enter('Withdraw');
  expect(problems()).toEqual(['Nothing is known of it.']);
});
