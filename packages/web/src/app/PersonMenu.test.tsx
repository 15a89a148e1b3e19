import { fireEvent, screen, waitFor } from '@testing-library/react';
import { usePreferences } from '../data/preferences.js';
import { button, fill, problems, renderPage } from '../testing/render-page.js';
import { PersonMenu } from './PersonMenu.js';

const mara = { id: 'mara', name: 'Mara Vell', initials: 'MV' };
const jon = { id: 'jon', name: 'Jon Velk', initials: 'JV' };
const people = (...items: object[]) => ({ '/people': { items, nextCursor: null } });

beforeEach(() => usePreferences.setState({ personId: null, units: {} }));

async function menu(answers: Readonly<Record<string, unknown>>) {
  const page = await renderPage(<PersonMenu onShowKeys={() => undefined} />, answers);
  return page;
}
const open = async (label: RegExp | string) => fireEvent.click(await screen.findByLabelText(label));

test('where one person works, it is that one', async () => {
  await menu(people(mara));
  expect(await screen.findByLabelText('Mara Vell is working. Change')).toBeTruthy();
});

test('where two do, it asks who; whoever is chosen is', async () => {
  await menu(people(mara, jon));
  await open('Say who is working');
  fireEvent.click(await screen.findByText('Jon Velk'));
  expect(usePreferences.getState().personId).toBe('jon');
  expect(await screen.findByLabelText('Jon Velk is working. Change')).toBeTruthy();
});

test('units are chosen here, and kept', async () => {
  await menu(people(mara));
  await open(/is working/);
  fireEvent.click(await screen.findByText('psi', { selector: 'button' }));
  expect(usePreferences.getState().units['pressure']).toBe('psi');
  expect(button('psi').getAttribute('aria-pressed')).toBe('true');
});

test('a name of blanks adds nobody', async () => {
  const { sent } = await menu(people(mara));
  await open(/is working/);
  await fill('Add a person', '   ');
  expect(button('Add').disabled).toBe(true);
  fireEvent.keyDown(screen.getByLabelText('Add a person'), { key: 'Enter' });
  expect(sent).toEqual([]);
});

test('a name too long is refused in the words of the contract, and not sent', async () => {
  const { sent } = await menu(people(mara));
  await open(/is working/);
  await fill('Add a person', 'x'.repeat(300));
  fireEvent.click(button('Add'));
  await waitFor(() => expect(problems().join()).toMatch(/\d/));
  expect(sent).toEqual([]);
});
