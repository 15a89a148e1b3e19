import { DEFAULT_PERSON_ID } from '@entretien/contracts';
import { screen, waitFor } from '@testing-library/react';
import { usePreferences } from '../data/preferences.js';
import { fill, press, renderPage } from '../testing/render-page.js';
import { WhoWorks } from './WhoWorks.js';

const mara = { id: 'mara', name: 'Mara Vell', initials: 'MV' };
const jon = { id: 'jon', name: 'Jon Velk', initials: 'JV' };
const nobody = { id: DEFAULT_PERSON_ID, name: 'Technician', initials: 'T' };
const people = (...items: object[]) => ({ '/people': { items, nextCursor: null } });
const question = () => screen.queryByText('Who works here?');

beforeEach(() => usePreferences.setState({ personId: null }));

test('two work here: it is asked, and answered with one touch', async () => {
  await renderPage(<WhoWorks />, people(mara, jon));
  await waitFor(() => expect(question()).not.toBeNull());
  await press('Say who');
  await screen.findByText('Jon Velk');
  await press('Jon Velk');
  expect(usePreferences.getState().personId).toBe('jon');
  expect(question()).toBeNull();
});

test('nobody is known yet: a name is asked for', async () => {
  const { sent } = await renderPage(<WhoWorks />, people(nobody));
  await waitFor(() => expect(question()).not.toBeNull());
  await press('Say who');
  await fill('Your name', 'Runa Vest');
  await press('It is me');
  expect(sent).toMatchObject([{ path: '/people', body: { name: 'Runa Vest' } }]);
});

test('where one works it is that one, and nobody is asked', async () => {
  await renderPage(<WhoWorks />, people(mara));
  await waitFor(() => expect(usePreferences.getState().personId).toBe('mara'));
  expect(question()).toBeNull();
});

test('later is an answer for now', async () => {
  await renderPage(<WhoWorks />, people(mara, jon));
  await waitFor(() => expect(question()).not.toBeNull());
  await press('Later');
  expect(question()).toBeNull();
  expect(usePreferences.getState().personId).toBeNull();
});
