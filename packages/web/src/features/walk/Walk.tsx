import { Alert, Box, Button, Link as MuiLink, Stack, Typography } from '@mui/material';
import type { SiteMetersView } from '@entretien/contracts';
import { lazy, Suspense, useState } from 'react';
import { Link, useParams } from 'react-router';
import { useFleet, useSiteMeters } from '../../data/queries.js';
import { useOutbox } from '../../data/outbox/outbox.js';
import { Empty, ErrorState, LoadingSkeleton } from '../../components/States.js';
import { useNow } from '../../components/use-now.js';
import { fieldId } from './field-id.js';
import { MeterRow } from './MeterRow.js';
import { isRead, lastReading, meterLog } from '../../components/meter/typed-figure.js';

/** Seldom asked for, and only it sends what has to be checked by its rules. */
const WalkOrder = lazy(() => import('./WalkOrder.js').then((part) => ({ default: part.WalkOrder })));

/** Every meter of a site, in the order in which one walks by them. */
export function Walk() {
  const { siteId = '' } = useParams();
  const meters = useSiteMeters(siteId);
  if (meters.isPending)
    return (
      <Frame>
        <LoadingSkeleton lines={8} />
      </Frame>
    );
  if (meters.isError)
    return (
      <Frame>
        <ErrorState error={meters.error} onRetry={() => void meters.refetch()} />
      </Frame>
    );
  return <WalkPage key={siteId} meters={meters.data} />;
}

function Frame({ children }: { readonly children: React.ReactNode }) {
  return <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: 4, maxWidth: 1600, width: '100%' }}>{children}</Box>;
}

function WalkPage({ meters }: { readonly meters: SiteMetersView }) {
  const now = useNow();
  const { items: queued, isConnected } = useOutbox();
  const [isOrdering, setOrdering] = useState(false);
  const readable = meters.items.filter(({ hasHourMeter }) => hasHourMeter);
  const read = readable.filter((meter) => isRead(lastReading(meterLog(meter, queued, now)), now)).length;
  if (meters.items.length === 0)
    return (
      <Frame>
        <Empty title={`No machine stands at ${meters.siteName}.`}>
          Add one, or move one here from its own page.
        </Empty>
      </Frame>
    );
  return (
    <Frame>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'start', gap: 2, mb: 1 }}>
        <Box sx={{ minWidth: 0 }}>
          <Typography variant="h1">
            Read the hours{' '}
            <Box component="span" sx={{ fontWeight: 450, color: 'text.secondary' }}>
              {meters.siteName}
            </Box>
          </Typography>
          <Typography role="status" sx={{ color: 'text.secondary' }}>
            {read === readable.length ? 'All meters are read.' : `${read} of ${readable.length} read.`}
          </Typography>
        </Box>
        <Button onClick={() => setOrdering(!isOrdering)} sx={{ flex: 'none' }}>
          {isOrdering ? 'Back to the meters' : 'Change the order'}
        </Button>
      </Stack>
      {!isConnected && (
        <Alert severity="info" variant="outlined" sx={{ mb: 1.5 }}>
          No connection. Read on: what you save is kept on this device and sent when there is one again.
        </Alert>
      )}
      {isOrdering ? (
        <Suspense fallback={null}>
          <WalkOrder meters={meters} onDone={() => setOrdering(false)} />
        </Suspense>
      ) : (
        <Box component="ol" aria-label="Meters in walking order" sx={{ listStyle: 'none', p: 0, m: 0 }}>
          {meters.items.map((meter, index) => (
            <MeterRow
              key={meter.compressorId}
              meter={meter}
              place={index + 1}
              site={meters}
              onSaved={() => focusNext(meters, meter.compressorId)}
            />
          ))}
        </Box>
      )}
      {read === readable.length && <NextSite after={meters.siteId} />}
      <MuiLink component={Link} to="/" sx={{ display: 'inline-block', py: 1.5, mt: 1, fontWeight: 600 }}>
        Back to today
      </MuiLink>
    </Frame>
  );
}

/** All is read here: the walk goes on at the next site, in the order of what presses. */
function NextSite({ after }: { readonly after: string }) {
  const { units } = useFleet();
  const sites = [...new Map(units.map(({ siteId, siteName }) => [siteId, siteName]))];
  const place = sites.findIndex(([siteId]) => siteId === after);
  const [next] = [...sites.slice(place + 1), ...sites.slice(0, Math.max(place, 0))];
  if (!next) return null;
  const [siteId, siteName] = next;
  return (
    <Button
      component={Link}
      to={`/sites/${siteId}/walk`}
      variant="contained"
      sx={{ minHeight: 48, mt: 1.5, display: 'flex', width: 'fit-content' }}
    >
      On to {siteName}
    </Button>
  );
}

/** On to the next meter that still has a field. */
function focusNext({ items }: SiteMetersView, after: string): void {
  const index = items.findIndex(({ compressorId }) => compressorId === after);
  const next = items
    .slice(index + 1)
    .map(({ compressorId }) => document.getElementById(fieldId(compressorId)))
    .find((field) => field !== null);
  next?.focus();
}
