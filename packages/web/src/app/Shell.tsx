import { Box, Link, Stack } from '@mui/material';
import { lazy, Suspense, useRef, useState } from 'react';
import { NavLink, Outlet, useLocation } from 'react-router';
import { useGate } from '../data/me.js';
import { LoadingSkeleton } from '../components/States.js';
import { Find } from './Find.js';
import { OutboxButton } from './OutboxButton.js';
import { Foot } from './Foot.js';
import { HeldHere } from './HeldHere.js';
import { Brand } from '../components/Brand.js';
import { NoticeOnce } from './NoticeOnce.js';
import { PersonMenu } from './PersonMenu.js';
import { WhoWorks } from './WhoWorks.js';
import { ServerDoubts } from './ServerDoubts.js';
import { RulerSwitch } from './RulerSwitch.js';
import { useFetchLater } from './fetch-later.js';
import { useShellKeys } from './keys.js';
import { usePlace } from './use-place.js';

/** What is not wanted at once is fetched when it is: the page stands before it. */
const KeysDialog = lazy(() => import('./KeysDialog.js').then((part) => ({ default: part.KeysDialog })));

const places = [
  { to: '/', label: 'Today' },
  { to: '/units', label: 'Units' },
  { to: '/visits', label: 'Visits' },
  { to: '/faults', label: 'Faults' },
  { to: '/bench', label: 'Bench' },
  { to: '/parts', label: 'Parts' },
  { to: '/logbook', label: 'Logbook' },
  // Where there is no room for eight it is reached from the bench.
  { to: '/practice', label: 'Practice', needsRoom: true },
] as const;

const SignInPage = lazy(() =>
  import('../features/access/index.js').then((area) => ({ default: area.SignInPage })),
);
const OwnSites = lazy(() =>
  import('../features/access/index.js').then((area) => ({ default: area.OwnSites })),
);

/** The frame of every page: where to go, what to find, who is working. Whoever is signed out finds the way in. */
export function Shell() {
  const gate = useGate();
  if (gate === 'signed-out')
    return (
      <Suspense fallback={null}>
        <SignInPage />
      </Suspense>
    );
  return <Frame isCustomer={gate === 'customer'} />;
}

function Frame({ isCustomer }: { readonly isCustomer: boolean }) {
  // Of the other pages a customer sees their own account.
  const isOwnAccount = useLocation().pathname === '/account';
  const [keysShown, setKeysShown] = useState(false);
  const main = useRef<HTMLElement>(null);
  usePlace(main);
  useFetchLater();
  useShellKeys({ onShowKeys: () => setKeysShown(true) });
  return (
    <Box sx={{ minHeight: '100dvh', display: 'flex', flexDirection: 'column' }}>
      <Link
        href="#main"
        sx={{ position: 'absolute', left: -9999, '&:focus': { left: 8, top: 8, zIndex: 10 } }}
      >
        Go to the page
      </Link>
      <Stack
        component="header"
        direction="row"
        sx={{
          alignItems: 'center',
          px: { xs: 2, md: 3.5 },
          '@media (max-width: 359px)': { px: 1 },
          gap: { xs: 1, md: 2.5 },
          flexWrap: { xs: 'wrap', md: 'nowrap' },
          minHeight: 52,
          borderBottom: 1,
          borderColor: 'divider',
          '@media print': { display: 'none' },
        }}
      >
        <Brand isOnPhone={false} />
        <Stack
          component="nav"
          aria-label="Places"
          direction="row"
          sx={{
            alignSelf: 'stretch',
            gap: { xs: 0, sm: 1.5, md: 2.25 },
            // On a phone the places have a line of their own, under what is always at hand.
            order: { xs: 1, md: 0 },
            width: { xs: '100%', md: 'auto' },
            justifyContent: { xs: 'space-between', md: 'start' },
            height: { xs: 44, md: 'auto' },
            whiteSpace: 'nowrap',
          }}
        >
          {(isCustomer ? [] : places).map(({ to, label, ...place }) => (
            <Box
              key={to}
              component={NavLink}
              to={to}
              end={to === '/'}
              sx={{
                display: 'needsRoom' in place ? { xs: 'none', lg: 'flex' } : 'flex',
                alignItems: 'center',
                minWidth: 44,
                // On the narrowest screens seven places share 304 px.
                '@media (max-width: 359px)': { minWidth: 38, fontSize: '0.8rem' },
                justifyContent: 'center',
                color: 'text.secondary',
                fontWeight: 600,
                fontSize: { xs: '0.9rem', sm: '1rem' },
                textDecoration: 'none',
                borderBottom: '2px solid transparent',
                borderTop: '2px solid transparent',
                '&.active': { color: 'text.primary', borderBottomColor: 'primary.main' },
                '&:hover': { color: 'text.primary' },
              }}
            >
              {label}
            </Box>
          ))}
        </Stack>
        <Box sx={{ flex: 1, display: { xs: 'none', sm: 'block' } }} />
        {!isCustomer && (
          <>
            <OutboxButton />
            <Find />
            <RulerSwitch />
          </>
        )}
        <PersonMenu onShowKeys={() => setKeysShown(true)} />
      </Stack>
      <Box
        component="main"
        id="main"
        ref={main}
        tabIndex={-1}
        sx={{
          flex: 1,
          // The foot begins below what is seen: while a view is still coming, nothing has to give way to it.
          minHeight: '100dvh',
          '@media print': { minHeight: 0 },
          display: 'flex',
          flexDirection: 'column',
          '&:focus-visible': { outline: 'none' },
        }}
      >
        {!isCustomer && <WhoWorks />}
        <ServerDoubts />
        <HeldHere />
        <Suspense
          fallback={
            <Box sx={{ px: 3.5 }}>
              <LoadingSkeleton />
            </Box>
          }
        >
          {isCustomer && !isOwnAccount ? <OwnSites /> : <Outlet />}
        </Suspense>
      </Box>
      <Foot />
      {!isCustomer && <NoticeOnce />}
      <Suspense fallback={null}>{keysShown && <KeysDialog onClose={() => setKeysShown(false)} />}</Suspense>
    </Box>
  );
}
