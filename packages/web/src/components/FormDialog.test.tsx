import { Radio, RadioGroup, TextField } from '@mui/material';
import { screen } from '@testing-library/react';
import type { ReactNode } from 'react';
import { onTouchScreen, renderPage } from '../testing/render-page.js';
import { FormDialog } from './FormDialog.js';

function show(children: ReactNode) {
  const nothing = () => undefined;
  return renderPage(
    <FormDialog title="A form" submit="Save" onSubmit={nothing} onClose={nothing}>
      {children}
    </FormDialog>,
  );
}

test('one types in its first field at once', async () => {
  await show(
    <>
      <TextField label="Fixed" disabled />
      <TextField label="Name" />
      <TextField label="Note" />
    </>,
  );
  expect(document.activeElement).toBe(screen.getByLabelText('Name'));
});

test('a field that asks for it goes before', async () => {
  await show(
    <>
      <TextField label="Name" />
      <TextField label="Note" autoFocus />
    </>,
  );
  expect(document.activeElement).toBe(screen.getByLabelText('Note'));
});

test('of a choice it is what is chosen', async () => {
  await show(
    <RadioGroup value="b">
      <Radio value="a" slotProps={{ input: { 'aria-label': 'A' } }} />
      <Radio value="b" slotProps={{ input: { 'aria-label': 'B' } }} />
    </RadioGroup>,
  );
  expect(document.activeElement).toBe(screen.getByLabelText('B'));
});

test('by touch no keypad comes up over what is to be read', async () => {
  const restore = onTouchScreen();
  await show(<TextField label="Name" />);
  restore();
  expect(document.activeElement).not.toBe(screen.getByLabelText('Name'));
});
