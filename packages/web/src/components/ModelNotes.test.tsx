import type { CompressorView, ModelNoteView } from '@entretien/contracts';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { press, renderPage } from '../testing/render-page.js';
import { ModelNotes } from './ModelNotes.js';

const unit = { id: 'unit', tag: 'HC-2', maker: 'Ellvask', model: 'Q2' } as CompressorView;
const note = { id: 'n', about: 'trick', text: 'Mark the fan.', tag: 'LD-2' } as ModelNoteView;
const shown = (of: CompressorView, notes: readonly ModelNoteView[], mayAdd = true) =>
  renderPage(<ModelNotes unit={of} timeZone="Europe/Zurich" mayAdd={mayAdd} />, {
    '/compressors/unit/model-notes': notes,
  });

test('what a sister taught is shown with the sister it was told at', async () => {
  await shown(unit, [note, { ...note, id: 'o', about: 'fits', text: 'Element of the Q4.', tag: 'HC-2' }]);
  const section = await screen.findByText('told at LD-2');
  const { textContent } = section.closest('section')!;
  expect(textContent).toContain('What helps: Mark the fan.');
  expect(textContent).toContain('Fits: Element of the Q4.');
  expect(screen.getAllByText(/told at/)).toHaveLength(1);
});

test('something is added for all of the model; nothing but blanks is not', async () => {
  const { sent } = await shown(unit, []);
  await screen.findByText(/Nothing yet/);
  await press('Add to it');
  const field = await screen.findByLabelText('What is known');
  const save = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Save for all of this model' });
  fireEvent.change(field, { target: { value: '   ' } });
  expect(save().disabled).toBe(true);
  fireEvent.change(field, { target: { value: ' Mark the fan. ' } });
  fireEvent.click(save());
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]).toMatchObject({
    path: '/compressors/unit/model-notes',
    body: { about: 'trick', text: 'Mark the fan.' },
  });
});

test('without a model there is nobody to share it with; where one only reads, nothing stands for nothing', async () => {
  await shown({ ...unit, model: undefined } as unknown as CompressorView, []);
  expect(await screen.findByText(/Its plate names no model/)).toBeTruthy();
  expect(screen.queryByRole('button')).toBeNull();
  await shown(unit, [], false);
  await waitFor(() => expect(screen.queryAllByText('Known of this model')).toHaveLength(1));
});
