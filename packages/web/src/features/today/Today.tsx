import { Box, Button, Link as MuiLink, Stack, Typography, type BoxProps } from '@mui/material';
import type { FleetStandingView, FleetCompressorView } from '@entretien/contracts';
import { formatsInUse, lower } from '@entretien/core/basics';
import { stopText } from '@entretien/core/stop';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useDevices, useFleet, useFollowUps, useOpenWork, useSites, useStops } from '../../data/queries.js';
import { answeringText } from '../../components/answering-text.js';
import { MarksLegend } from '../../components/ruler/MarksLegend.js';
import { ErrorState, LoadingSkeleton } from '../../components/States.js';
import { useNow } from '../../components/use-now.js';
import { WithSide } from '../../components/WithSide.js';
import { TodaySidebar } from './TodaySidebar.js';
import { RulerStack } from './RulerStack.js';
import { groupBySite, headline } from './today-list.js';

/** So many sites at first; a fleet of thousands is asked for bit by bit. */
const SITES_SHOWN = 12;

export function Today() {
  const fleet = useFleet();
  const sites = useSites();
  // What is stopped and what is open stand above the list: they come with it, so that nothing moves.
  const isMoreComing = [sites, useStops(), useOpenWork(), useFollowUps(), useDevices()].some(
    (query) => query.isLoading,
  );
  if (fleet.isPending || isMoreComing)
    return (
      <Page>
        <LoadingSkeleton lines={10} />
      </Page>
    );
  if (fleet.isError)
    return (
      <Page>
        <ErrorState error={fleet.error} onRetry={() => void fleet.refetch()} />
      </Page>
    );
  if (fleet.whole === undefined || fleet.units.length === 0)
    return (
      <Page>
        <NoCompressors />
      </Page>
    );
  const zones = new Map((sites.data ?? []).map((site) => [site.id, site.timeZone]));
  return (
    <Fleet
      units={fleet.units}
      whole={fleet.whole}
      onMore={fleet.hasNextPage ? () => void fleet.fetchNextPage() : null}
      zoneOf={(siteId) => zones.get(siteId) ?? 'UTC'}
    />
  );
}

function Page({ children }: { readonly children: React.ReactNode }) {
  return <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2 }}>{children}</Box>;
}

/** Three steps that an empty register begins with; each leads to where it is done. */
const firstSteps = [
  {
    to: '/units/new',
    title: 'Add a unit',
    text: 'Its site, its tag, its family. What the plate says can come later.',
  },
  {
    to: '/lists',
    title: 'Bring your readings',
    text: 'A list out of a spreadsheet, if you have one: hours with their days.',
  },
  {
    to: '/parts',
    title: 'Fill the van',
    text: 'The parts you carry: a visit says beforehand what is missing.',
  },
] as const;

function NoCompressors() {
  return (
    <Box sx={{ maxWidth: 620 }}>
      <Typography variant="h1">No machine is in the register yet.</Typography>
      <Typography sx={{ color: 'text.secondary', mb: 2 }}>
        What is due, and when, follows from a machine and its hours.
      </Typography>
      <Box component="ol" aria-label="First steps" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {firstSteps.map(({ to, title, text }, index) => (
          <Stack
            key={to}
            component="li"
            direction="row"
            sx={{ gap: 2, alignItems: 'center', borderTop: 1, borderColor: 'divider', py: 1.5 }}
          >
            <Typography variant="h1" component="span" sx={{ color: 'text.secondary', width: 28 }}>
              {index + 1}
            </Typography>
            <Box sx={{ flex: 1 }}>
              <Button
                component={Link}
                to={to}
                variant={index === 0 ? 'contained' : 'outlined'}
                sx={{ minHeight: 44, mb: 0.5 }}
              >
                {title}
              </Button>
              <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                {text}
              </Typography>
            </Box>
          </Stack>
        ))}
      </Box>
    </Box>
  );
}

interface FleetProps {
  readonly units: readonly FleetCompressorView[];
  readonly whole: FleetStandingView;
  /** Fetches further units; null when all are there. */
  readonly onMore: (() => void) | null;
  readonly zoneOf: (siteId: string) => string;
}

function Fleet({ units, whole, onMore, zoneOf }: FleetProps) {
  const groups = useMemo(() => groupBySite(units), [units]);
  const [shown, setShown] = useState(SITES_SHOWN);
  const text = headline(whole, groups[0]!.siteName);
  const now = useNow();
  const showMore = () => {
    setShown(shown + SITES_SHOWN);
    if (groups.length < shown + SITES_SHOWN) onMore?.();
  };
  return (
    <WithSide width={252} side={<TodaySidebar units={units} isPart={onMore !== null} />}>
      <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 1.75, pb: 2 }}>
        <Stack direction="row" sx={{ alignItems: 'center', gap: 0.5 }}>
          <Typography variant="h1">{dayInText(now)}</Typography>
          <MarksLegend />
        </Stack>
        <Typography sx={{ color: 'text.secondary', mb: { xs: 1, md: 0 } }}>
          <Box component="strong" sx={{ color: 'text.primary' }}>
            {text.lead}
          </Box>{' '}
          {text.rest}
        </Typography>
        <StoppedCompressors />
        <SilentDevices />
        <LookAgain />
        <RulerStack groups={groups.slice(0, shown)} zoneOf={zoneOf} now={Date.parse(whole.at)} />
        {(groups.length > shown || onMore) && (
          <Button onClick={showMore} sx={{ mt: 2 }}>
            Show more sites
          </Button>
        )}
      </Box>
    </WithSide>
  );
}

interface StripProps {
  readonly name: string;
  readonly tone: 'oxide' | 'brass';
  readonly sx?: BoxProps['sx'];
  readonly children: React.ReactNode;
}

/** What stands above the list, for it comes before anything that is due. */
function Strip({ name, tone, sx = {}, children }: StripProps) {
  return (
    <Box
      component="section"
      aria-label={name}
      sx={[
        { borderLeft: 4, borderColor: tone, bgcolor: `${tone}Ground`, px: 1.5, py: 0.75, my: 1 },
        ...(Array.isArray(sx) ? sx : [sx]),
      ]}
    >
      {children}
    </Box>
  );
}

/** What must not be used, before anything that is due. */
function StoppedCompressors() {
  const { data: stops = [] } = useStops();
  const units = [...new Map(stops.map((stop) => [stop.compressorId, stop])).values()];
  if (units.length === 0) return null;
  return (
    <Strip name="Out of service" tone="oxide">
      {units.map((stop) => (
        <Typography key={stop.compressorId} variant="body2">
          <MuiLink
            component={Link}
            to={`/units/${stop.compressorId}`}
            sx={{
              fontWeight: 700,
              color: 'oxide',
              display: 'inline-block',
              py: { xs: 1, md: 0.25 },
            }}
          >
            {stop.tag}
          </MuiLink>{' '}
          <strong>{stopText(stop)}.</strong> {stop.why}
        </Typography>
      ))}
    </Strip>
  );
}

/** Machines that should read themselves and do not, or tell what cannot be. */
function SilentDevices() {
  const { data } = useDevices();
  const wrong = (data?.items ?? []).filter(({ state, refused }) => state === 'silent' || refused.length > 0);
  if (wrong.length === 0) return null;
  return (
    <Strip name="Do not read themselves" tone="brass">
      {wrong.slice(0, LOOKS_SHOWN).map((device) => (
        <Typography key={device.id} variant="body2">
          <MuiLink
            component={Link}
            to={`/units/${device.compressorId}?tab=hours`}
            sx={{ fontWeight: 700, display: 'inline-block', py: { xs: 1, md: 0.25 } }}
          >
            {device.tag}
          </MuiLink>{' '}
          {device.state === 'silent'
            ? `${device.name}: ${lower(answeringText(device))}.`
            : `${device.name} tells what cannot be: ${device.refused[0]!.sentence}`}
        </Typography>
      ))}
    </Strip>
  );
}

/** So many at once: what waits the longest comes first. */
const LOOKS_SHOWN = 12;

/** What was opened or fitted lately and is to be looked at again: a line that leads to each. */
function LookAgain() {
  const { data = [] } = useFollowUps();
  const due = data.filter(({ state }) => state !== 'coming');
  if (due.length === 0) return null;
  return (
    <Strip
      name="Look again"
      tone="brass"
      sx={{
        py: { xs: 0.25, md: 0.75 },
        display: 'flex',
        flexWrap: 'wrap',
        alignItems: 'baseline',
        columnGap: 1.5,
        typography: 'body2',
      }}
    >
      <Typography variant="body2" component="h2" sx={{ fontWeight: 700 }}>
        Look again at what was opened
      </Typography>
      {due.slice(0, LOOKS_SHOWN).map(({ compressorId, kind, tag, state }) => (
        <span key={compressorId + kind}>
          <MuiLink
            component={Link}
            to={`/units/${compressorId}`}
            sx={{ fontWeight: 700, display: 'inline-block', py: { xs: 1.25, md: 0.5 } }}
          >
            {tag}
          </MuiLink>
          {kind === 'belt' ? ' new belt' : ''}
          {state === 'late' ? ' late' : ''}
        </span>
      ))}
      {due.length > LOOKS_SHOWN && <span>and {due.length - LOOKS_SHOWN} more</span>}
    </Strip>
  );
}

function dayInText(now: number): string {
  const locale = formatsInUse().dayOrder === 'month-day' ? 'en-US' : 'en-GB';
  return new Intl.DateTimeFormat(locale, { weekday: 'long', day: 'numeric', month: 'long' }).format(now);
}
