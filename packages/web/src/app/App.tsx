import { CssBaseline, ThemeProvider } from '@mui/material';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { useEffect } from 'react';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { onAskAgain } from '../data/kept-answers.js';
import { refresh } from '../data/queries.js';
import { onOutboxSent } from '../outbox/outbox.js';
import { NotFound, PageBroke } from './NotFound.js';
import { Shell } from './Shell.js';
import { theme } from './theme.js';

/** Without a connection things are tried all the same: a sentence now is better than silence until later. */
const queryClient = new QueryClient({
  defaultOptions: {
    queries: { staleTime: 15_000, retry: 1, networkMode: 'always' },
    mutations: { networkMode: 'always' },
  },
});

/** Each area is fetched when it is first visited. */
const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <PageBroke />,
    children: [
      {
        index: true,
        lazy: () => import('../areas/today/Today.js').then((area) => ({ Component: area.Today })),
      },
      {
        path: 'units',
        lazy: () => import('../areas/units/Units.js').then((area) => ({ Component: area.CompressorsPage })),
      },
      {
        path: 'units/new',
        lazy: () => import('../areas/units/AddUnit.js').then((area) => ({ Component: area.AddCompressor })),
      },
      {
        path: 'units/:unitId',
        lazy: () => import('../areas/unit/Unit.js').then((area) => ({ Component: area.CompressorPage })),
      },
      {
        path: 'units/:unitId/plan',
        lazy: () => import('../areas/plan/PlanEditor.js').then((area) => ({ Component: area.PlanEditor })),
      },
      {
        path: 'units/:unitId/history',
        lazy: () =>
          import('../areas/logbook/UnitHistory.js').then((area) => ({ Component: area.HistoryPage })),
      },
      {
        path: 'sites/:siteId/walk',
        lazy: () => import('../areas/walk/Walk.js').then((area) => ({ Component: area.Walk })),
      },
      {
        path: 'visits',
        lazy: () => import('../areas/visits/Visits.js').then((area) => ({ Component: area.Visits })),
      },
      {
        path: 'visits/:visitId',
        lazy: () => import('../areas/visit/Visit.js').then((area) => ({ Component: area.Visit })),
      },
      {
        path: 'repairs/:repairId',
        lazy: () => import('../areas/repair/Repair.js').then((area) => ({ Component: area.Repair })),
      },
      {
        path: 'parts',
        lazy: () => import('../areas/parts/Parts.js').then((area) => ({ Component: area.Parts })),
      },
      {
        path: 'logbook',
        lazy: () =>
          import('../areas/logbook/FleetLogbook.js').then((area) => ({ Component: area.FleetLogbook })),
      },
      {
        path: 'bench/:tool?',
        lazy: () => import('../areas/bench/Bench.js').then((area) => ({ Component: area.Bench })),
      },
      {
        path: 'lists',
        lazy: () => import('../areas/lists/Lists.js').then((area) => ({ Component: area.Lists })),
      },
      { path: '*', element: <NotFound /> },
    ],
    hydrateFallbackElement: <></>,
  },
]);

export function App() {
  // What the outbox has sent changes what every page shows.
  useEffect(() => onOutboxSent(() => void refresh(queryClient)), []);
  useEffect(() => onAskAgain(() => void refresh(queryClient)), []);
  return (
    <ThemeProvider theme={theme} defaultMode="system">
      <CssBaseline />
      <QueryClientProvider client={queryClient}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </ThemeProvider>
  );
}
