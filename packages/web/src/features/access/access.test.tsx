import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import { idOf } from '../../testing/facts.js';
import { button, enter, fill, press, problems, renderPage } from '../../testing/render-page.js';
import { describeDevice } from './describe-device.js';
import { Join } from './Join.js';
import { OwnSites } from './OwnSites.js';
import { People } from './People.js';
import { SignInPage } from './SignInPage.js';
import { Welcome } from './Welcome.js';

const account = (more: object = {}) => ({
  id: idOf(1),
  role: 'lead',
  name: 'Lena Orvik',
  login: 'lena',
  personId: idOf(2),
  customerId: null,
  seesPrices: true,
  createdAt: '2026-11-24T09:00:00Z',
  closedAt: null,
  ...more,
});
const signedOut = { access: 'on', account: null, rights: ['open'], passkeys: false };
const off = { access: 'off', account: null, rights: ['open', 'lead'], passkeys: false };
const lead = { access: 'on', account: account(), rights: ['open', 'see', 'lead'], passkeys: false };
const nobody = { items: [], nextCursor: null };

describe('signing in', () => {
  test('wants both, and says what the server says', async () => {
    const refused = {
      status: 401,
      code: 'not-known',
      title: 'No.',
      detail: 'The name or the password is not right.',
    };
    const { sent } = await renderPage(<SignInPage />, { '/me': signedOut, '/sign-in': refused });
    expect(button('Sign in').disabled).toBe(true);
    await fill('Name to sign in with', 'lena');
    await enter('Sign in');
    expect(sent).toEqual([]);
    await fill('Password', 'a row of words');
    await enter('Sign in');
    expect(sent).toEqual([{ path: '/sign-in', body: { login: 'lena', password: 'a row of words' } }]);
    await waitFor(() => expect(problems().join()).toContain('The name or the password is not right.'));
  });

  test('offers a passkey only where there can be one', async () => {
    await renderPage(<SignInPage />, { '/me': signedOut });
    expect(screen.queryByText('Use a passkey')).toBeNull();
  });

  test('offers it at a name', async () => {
    await renderPage(<SignInPage />, { '/me': { ...signedOut, passkeys: true } });
    expect(await screen.findByText('Use a passkey')).toBeTruthy();
  });
});

describe('the first account', () => {
  const at = (address: string, more: object = {}) =>
    renderPage(
      <Welcome />,
      { '/me': off, '/people': nobody, '/accounts/first': account(), ...more },
      { address },
    );
  const fillIn = async () => {
    await fill('Your name', 'Lena Orvik');
    await fill('Name to sign in with', 'lena');
    await fill('Password', 'a row of words');
  };

  test('goes with the code behind the address', async () => {
    const { sent } = await at('/welcome#the-code');
    await fillIn();
    await enter('Make the account');
    expect(sent).toEqual([
      {
        path: '/accounts/first',
        body: { code: 'the-code', login: 'lena', password: 'a row of words', name: 'Lena Orvik' },
      },
    ]);
  });

  test('without its last part the address is none', async () => {
    const { sent } = await at('/welcome');
    await fillIn();
    expect(problems().join()).toContain('its last part is missing');
    await enter('Make the account');
    expect(sent).toEqual([]);
  });

  test('there is only one first', async () => {
    await at('/welcome#the-code', { '/me': lead });
    expect(await screen.findByText('Ask a lead for an invitation.')).toBeTruthy();
  });
});

describe('an invitation', () => {
  const invitation = { id: idOf(5), role: 'trainee', name: 'Ola Ferd', expiresAt: '2026-12-01T09:00:00Z' };

  test('tells what one is invited to, and is taken with a name and a password', async () => {
    const answers = { '/invitations/look': invitation, '/invitations/accept': account() };
    const { sent } = await renderPage(<Join />, answers, { address: '/join#the-code' });
    expect(await screen.findByText('Welcome, Ola Ferd')).toBeTruthy();
    expect(screen.getByText(/invited as trainee/)).toBeTruthy();
    await fill('Name to sign in with', 'ola');
    await fill('Password', 'a row of words');
    await enter('Begin');
    expect(sent.find(({ path }) => path === '/invitations/accept')).toEqual({
      path: '/invitations/accept',
      body: { code: 'the-code', login: 'ola', password: 'a row of words' },
    });
  });

  test('that was used leads nowhere, and says so', async () => {
    const refused = {
      status: 403,
      code: 'wrong-code',
      title: 'No.',
      detail: 'This address was used before.',
    };
    await renderPage(<Join />, { '/invitations/look': refused }, { address: '/join#the-code' });
    await waitFor(() => expect(problems().join()).toContain('This address was used before.'));
    expect(screen.queryByText('Begin')).toBeNull();
  });
});

describe('people', () => {
  const answers = {
    '/me': lead,
    '/accounts': [account(), account({ id: idOf(3), name: 'Tom Brask', role: 'technician', login: 'tom' })],
    // Read it is an empty list, sent to it answers with the new one.
    '/invitations': Object.assign([], {
      code: 'secret-code',
      id: idOf(6),
      name: 'Ada Brenn',
      role: 'customer',
    }),
    '/customers': [{ id: idOf(4), name: 'Creamery', siteIds: [] }],
    '/audit?limit=50': { items: [], nextCursor: null },
    '/people': nobody,
    '/sites': nobody,
  };
  const open = () => renderPage(<People />, { ...answers, '/invitations': [] });

  test('who may do what is shown to a lead alone', async () => {
    await open();
    expect(await screen.findByText('Tom Brask')).toBeTruthy();
    expect(screen.getByText('Technician · tom')).toBeTruthy();
  });

  test.each([
    [{ ...lead, rights: ['open', 'see'] }, /decided by a lead/],
    [off, /There are no accounts/],
  ])('others read why not', async (me, sentence) => {
    await renderPage(<People />, { '/me': me });
    expect(await screen.findByText(sentence)).toBeTruthy();
    expect(screen.queryByText('Invite somebody')).toBeNull();
  });

  test('a customer is invited for their sites, and the address is shown once', async () => {
    const { sent } = await renderPage(<People />, answers);
    await screen.findByText('Creamery');
    await press('Invite somebody');
    fireEvent.mouseDown(screen.getByLabelText('As'));
    await act(async () => fireEvent.click(screen.getByRole('option', { name: 'Customer' })));
    await fill('Their name', 'Ada Brenn');
    await enter('Make the invitation');
    expect(sent).toMatchObject([
      {
        path: '/invitations',
        body: { role: 'customer', name: 'Ada Brenn', customerId: idOf(4), seesPrices: false },
      },
    ]);
    expect(await screen.findByDisplayValue(/\/join#secret-code$/)).toBeTruthy();
  });
});

test('a customer reads how their machines stand, and opens their reports', async () => {
  const unit = {
    id: idOf(8),
    tag: 'HC-1',
    description: 'screw',
    stops: ['Out of service: leaks'],
    next: [{ name: 'Oil change', due: 'by 1 Dec 2026', isLate: true }],
  };
  const visit = { id: idOf(9), day: '24 Nov 2026', text: 'HC-1' };
  await renderPage(<OwnSites />, {
    '/own': [{ id: idOf(7), name: 'Dairy', units: [unit], visits: [visit], repairs: [] }],
  });
  expect(await screen.findByText('Out of service: leaks')).toBeTruthy();
  expect(screen.getByText('by 1 Dec 2026')).toBeTruthy();
  expect(screen.getByRole('link').getAttribute('href')).toBe(`/api/visits/${idOf(9)}/report.pdf`);
});

test.each([
  ['Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X)', 'A phone'],
  ['Mozilla/5.0 (Linux; Android 15; K) Mobile Safari', 'A phone'],
  ['Mozilla/5.0 (Linux; Android 15; Pad) Safari', 'A tablet'],
  ['Mozilla/5.0 (X11; Linux x86_64)', 'A computer'],
  ['curl', 'Some device'],
])('“%s” is %s', (agent, name) => expect(describeDevice(agent)).toBe(name));
