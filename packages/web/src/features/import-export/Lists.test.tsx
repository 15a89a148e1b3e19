import { fireEvent, screen, waitFor } from '@testing-library/react';
import { site } from '../../testing/facts.js';
import { button, press, problems, renderPage } from '../../testing/render-page.js';
import { Lists } from './Lists.js';

beforeAll(() => {
  // What every browser has, and the one of these tests has not.
  Blob.prototype.arrayBuffer ??= function (this: Blob) {
    return new Promise((done) => {
      const reader = new FileReader();
      reader.onload = () => done(reader.result as ArrayBuffer);
      reader.readAsArrayBuffer(this);
    });
  };
});

async function lists(answers: Readonly<Record<string, unknown>> = {}) {
  await renderPage(<Lists />, { '/sites': [site], ...answers });
  await screen.findByText('Choose a file');
}

function choose(text: string, name = 'hours.csv'): void {
  fireEvent.change(screen.getByLabelText('List to read'), {
    target: { files: [new File([text], name, { type: 'text/csv' })] },
  });
}

const select = async (label: string, option: RegExp) => {
  fireEvent.mouseDown(screen.getByRole('combobox', { name: label }));
  fireEvent.click(await screen.findByRole('option', { name: option }));
};

test.each([
  ['one column only', 'hours\n12\n'],
  ['nothing at all', ''],
  ['no text', 'a,b\0\n1,2\n'],
])('%s is no list, and is said to be none', async (_what, text) => {
  await lists();
  choose(text);
  await waitFor(() => expect(problems().join()).toMatch(/“hours.csv” is no list/));
  expect(screen.queryByText('Check')).toBeNull();
});

test('columns are guessed, and the first row is told as it is understood', async () => {
  await lists();
  choose('Unit;Date;Hours\nCJ-1;24.11.2026;1234,5\n');
  expect((await screen.findByRole('status')).textContent).toBe(
    'The first row reads: CJ-1, 1,234.5 h on 24 Nov 2026, 12:00.',
  );
  expect(button('Check').disabled).toBe(false);
});

test('a column that is missing is asked for, and nothing is sent without it', async () => {
  await lists();
  choose('Machine,When,Whatever\nCJ-1,2026-11-24,1234\n');
  await screen.findByText('Check');
  await select('Hours', /choose a column/);
  await waitFor(() => expect(screen.getByText(/Say which column holds the hours/)).toBeTruthy());
  expect(button('Check').disabled).toBe(true);
  await select('Hours', /Whatever/);
  await waitFor(() => expect(screen.queryByText(/Say which column holds .*the hours/)).toBeNull());
});

test('dates read in the wrong order are seen before anything is sent', async () => {
  await lists();
  choose('Tag,Date,Hours\nCJ-1,24.11.2026,1234\n');
  await waitFor(() => expect(screen.getByRole('status').textContent).toMatch(/on 24 Nov 2026/));
  await select('Dates are written', /month first/);
  await waitFor(() => expect(screen.getByRole('status').textContent).toMatch(/The first row cannot be read/));
});

test('a server that does not take the list says why; the choices stay', async () => {
  await lists();
  choose('Tag,Date,Hours\nCJ-1,2026-11-24,1234\n');
  await screen.findByText('Check');
  await press('Check');
  await waitFor(() => expect(problems().join()).toMatch(/Nothing is known of it/));
  expect(screen.getByText('hours.csv')).toBeTruthy();
});
