import { CssBaseline, ThemeProvider } from '@mui/material';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { formatsCode } from '@entretien/core/basics';
import { useEffect } from 'react';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { usePreferences } from '../data/preferences.js';
import { waitForInstall } from '../data/install.js';
import { onAskAgain } from '../data/kept-answers.js';
import { refresh } from '../data/queries.js';
import { onOutboxSent } from '../data/outbox/outbox.js';
import { NotFound, PageBroke } from './NotFound.js';
import { Shell } from './Shell.js';
import { theme } from '../components/theme/theme.js';

/** Without a connection things are tried all the same: a sentence now is better than silence until later. */
const queryClient = new QueryClient({
  defaultOptions: {
    queries: { staleTime: 15_000, retry: 1, networkMode: 'always' },
    mutations: { networkMode: 'always' },
  },
});

// Said by the browser once, before any page asks.
waitForInstall();

/** Each area is fetched when it is first visited. */
const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <PageBroke />,
    children: [
      {
        index: true,
        lazy: () => import('../features/today/index.js').then((area) => ({ Component: area.Today })),
      },
      {
        path: 'units',
        lazy: () =>
          import('../features/compressors/index.js').then((area) => ({
            Component: area.CompressorsPage,
          })),
      },
      {
        path: 'units/new',
        lazy: () => import('../features/compressors/index.js').then((area) => area.addCompressor()),
      },
      {
        path: 'units/:compressorId',
        lazy: () =>
          import('../features/compressor/index.js').then((area) => ({
            Component: area.CompressorPage,
          })),
      },
      {
        path: 'units/:compressorId/plan',
        lazy: () => import('../features/plan/index.js').then((area) => ({ Component: area.PlanEditor })),
      },
      {
        path: 'units/:compressorId/history',
        lazy: () => import('../features/logbook/index.js').then((area) => ({ Component: area.HistoryPage })),
      },
      {
        path: 'units/:compressorId/fill',
        lazy: () => import('../features/filling/index.js').then((area) => ({ Component: area.FillPage })),
      },
      {
        path: 'units/:compressorId/papers/:paperId',
        lazy: () => import('../features/papers/index.js').then((area) => ({ Component: area.PaperPage })),
      },
      {
        path: 'units/:compressorId/faults',
        lazy: () => import('../features/faults/index.js').then((area) => ({ Component: area.FaultFinder })),
      },
      {
        path: 'faults',
        lazy: () => import('../features/faults/index.js').then((area) => ({ Component: area.FaultsPage })),
      },
      {
        path: 'sites/:siteId/walk',
        lazy: () => import('../features/walk/index.js').then((area) => ({ Component: area.Walk })),
      },
      {
        path: 'points',
        lazy: () => import('../features/points/index.js').then((area) => ({ Component: area.PointsPage })),
      },
      {
        path: 'points/:pointId',
        lazy: () => import('../features/points/index.js').then((area) => ({ Component: area.PointPage })),
      },
      {
        path: 'visits',
        lazy: () => import('../features/visits/index.js').then((area) => ({ Component: area.Visits })),
      },
      {
        path: 'visits/:visitId',
        lazy: () => import('../features/visit/index.js').then((area) => ({ Component: area.Visit })),
      },
      {
        path: 'repairs/:repairId',
        lazy: () => import('../features/repair/index.js').then((area) => ({ Component: area.Repair })),
      },
      {
        path: 'parts',
        lazy: () => import('../features/spare-parts/index.js').then((area) => ({ Component: area.Parts })),
      },
      {
        path: 'logbook',
        lazy: () => import('../features/logbook/index.js').then((area) => ({ Component: area.FleetLogbook })),
      },
      {
        path: 'bench/:tool?',
        lazy: () => import('../features/bench/index.js').then((area) => ({ Component: area.Bench })),
      },
      {
        path: 'practice',
        lazy: () =>
          import('../features/practice/index.js').then((area) => ({ Component: area.PracticePage })),
      },
      {
        path: 'practice/:code/:seed',
        lazy: () =>
          import('../features/practice/index.js').then((area) => ({ Component: area.PracticeRound })),
      },
      {
        path: 'lists',
        lazy: () => import('../features/import-export/index.js').then((area) => ({ Component: area.Lists })),
      },
      {
        path: 'settings',
        lazy: () => import('../features/settings/index.js').then((area) => ({ Component: area.Settings })),
      },
      {
        path: 'people',
        lazy: () => import('../features/access/index.js').then((area) => ({ Component: area.People })),
      },
      {
        path: 'account',
        lazy: () => import('../features/access/index.js').then((area) => ({ Component: area.Account })),
      },
      { path: '*', element: <NotFound /> },
    ],
    hydrateFallbackElement: <></>,
  },
  {
    errorElement: <PageBroke />,
    children: [
      {
        path: 'welcome',
        lazy: () => import('../features/access/index.js').then((area) => ({ Component: area.Welcome })),
      },
      {
        path: 'phone',
        lazy: () => import('../features/phone/index.js').then((area) => ({ Component: area.OnYourPhone })),
      },
      {
        path: 'join',
        lazy: () => import('../features/access/index.js').then((area) => ({ Component: area.Join })),
      },
    ],
    hydrateFallbackElement: <></>,
  },
]);

export function App() {
  // Everything is worded anew in the formats that were chosen, what the server words too.
  const formats = usePreferences((preferences) => formatsCode(preferences.formats));
  useEffect(
    () =>
      usePreferences.subscribe((now, before) => {
        // Only what is written otherwise is asked again: the same formats may come as another object.
        if (formatsCode(now.formats) !== formatsCode(before.formats)) void queryClient.invalidateQueries();
      }),
    [],
  );
  // What the outbox has sent changes what every page shows.
  useEffect(() => onOutboxSent(() => void refresh(queryClient)), []);
  useEffect(() => onAskAgain(() => void refresh(queryClient)), []);
  return (
    <ThemeProvider theme={theme} defaultMode="system">
      <CssBaseline />
      <QueryClientProvider client={queryClient}>
        <RouterProvider key={formats} router={router} />
      </QueryClientProvider>
    </ThemeProvider>
  );
}
