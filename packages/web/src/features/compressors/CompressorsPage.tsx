import {
  Box,
  Button,
  Link as MuiLink,
  MenuItem,
  Stack,
  TextField,
  Typography,
  useMediaQuery,
  type Theme,
} from '@mui/material';
import type { CompressorView, SiteView } from '@entretien/contracts';
import { families } from '@entretien/core/machine';
import { lazy, Suspense, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { figureFont } from '../../components/theme/theme.js';
import { useFleet, useRetiredCompressors, useSites } from '../../data/queries.js';
import { MarksLegend } from '../../components/ruler/MarksLegend.js';
import { Empty, ErrorState, LoadingSkeleton } from '../../components/States.js';
import { formatDate } from '../../components/describe-due.js';
import { familyName } from '../../components/plate-fields.js';
import { filterOf, matches } from './register-rows.js';
import { SitesDialog } from './SitesDialog.js';
import { useNow } from '../../components/use-now.js';
import { RegisterCards } from './RegisterCards.js';

/** The library of its table is large, and a phone shows cards. */
const RegisterTable = lazy(() =>
  import('./RegisterTable.js').then((part) => ({ default: part.RegisterTable })),
);

/** The register: find, filter, sort and compare machines. */
export function CompressorsPage() {
  const fleet = useFleet({ all: true });
  const sites = useSites();
  const [search, setSearch] = useSearchParams();
  const [sitesShown, setSitesShown] = useState(false);
  const isPhone = useMediaQuery((theme: Theme) => theme.breakpoints.down('md'));
  const filter = filterOf(search);
  const set = (name: string, value: string) =>
    setSearch(
      (before) => {
        const next = new URLSearchParams(before);
        if (value === '') next.delete(name);
        else next.set(name, value);
        return next;
      },
      { replace: true },
    );
  const shown = fleet.units.filter((unit) => matches(unit, filter));
  const zones = new Map((sites.data ?? []).map((site) => [site.id, site.timeZone]));
  const zoneOf = (siteId: string) => zones.get(siteId) ?? 'UTC';
  return (
    <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: 2, display: 'flex', flexDirection: 'column', flex: 1 }}>
      <Stack
        direction="row"
        sx={{ justifyContent: 'space-between', alignItems: 'center', mb: 1.5, gap: 1, flexWrap: 'wrap' }}
      >
        <Stack direction="row" sx={{ alignItems: 'center', gap: 0.5 }}>
          <Typography variant="h1">
            Units{' '}
            {fleet.data && (
              <Box component="span" sx={{ fontWeight: 450, color: 'text.secondary' }}>
                {formatCount(shown.length, fleet.units.length, fleet.whole?.total ?? 0)}
              </Box>
            )}
          </Typography>
          <MarksLegend />
        </Stack>
        <Stack direction="row" spacing={1}>
          <Button component={Link} to="/lists">
            Import and export
          </Button>
          <Button component={Link} to="/points">
            Points of use
          </Button>
          <Button onClick={() => setSitesShown(true)}>Sites</Button>
          <Button component={Link} to="/units/new" variant="contained">
            Add a unit
          </Button>
        </Stack>
      </Stack>
      <Filters filter={filter} sites={sites.data ?? []} onSet={set} />
      {fleet.isPending && <LoadingSkeleton lines={10} />}
      {fleet.isError && <ErrorState error={fleet.error} onRetry={() => void fleet.refetch()} />}
      {fleet.units.length > 0 && !fleet.hasNextPage && shown.length === 0 && (
        <Empty
          title="No unit is like that."
          action={<Button onClick={() => setSearch({})}>Show all units</Button>}
        >
          Nothing in service matches what you chose above.
        </Empty>
      )}
      {fleet.whole?.total === 0 && (
        <Empty
          title="The register is empty."
          action={
            <Button component={Link} to="/units/new" variant="contained">
              Add a unit
            </Button>
          }
        >
          A unit needs a site, a tag, its family and the day it was commissioned. The rest can come later.
        </Empty>
      )}
      {shown.length > 0 &&
        (isPhone ? (
          <RegisterCards units={shown} zoneOf={zoneOf} />
        ) : (
          <Suspense fallback={<LoadingSkeleton lines={12} />}>
            <RegisterTable units={shown} zoneOf={zoneOf} />
          </Suspense>
        ))}
      <Retired />
      {sitesShown && <SitesDialog onClose={() => setSitesShown(false)} />}
    </Box>
  );
}

/** How many are shown, and how many of the register have come so far. */
function formatCount(shown: number, come: number, total: number): string {
  const coming = come < total ? `, ${come} looked through so far` : '';
  return shown === total ? String(total) : `${shown} of ${total}${coming}`;
}

interface FiltersProps {
  readonly filter: ReturnType<typeof filterOf>;
  readonly sites: readonly SiteView[];
  readonly onSet: (name: string, value: string) => void;
}

function Filters({ filter, sites, onSet }: FiltersProps) {
  const choice = {
    select: true,
    size: 'small' as const,
    sx: { minWidth: { xs: 'calc(50% - 4px)', sm: 150 }, flex: { xs: 1, sm: 'none' } },
  };
  return (
    <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', mb: 1.5 }}>
      <TextField
        size="small"
        label="Find"
        type="search"
        value={filter.text}
        onChange={(event) => onSet('find', event.target.value)}
        sx={{ minWidth: { xs: 'calc(50% - 4px)', sm: 200 }, flex: { xs: 1, sm: 'none' } }}
        slotProps={{ htmlInput: { maxLength: 80 } }}
      />
      <TextField
        {...choice}
        label="Family"
        value={filter.family ?? ''}
        onChange={(event) => onSet('family', event.target.value)}
      >
        <MenuItem value="">all</MenuItem>
        {families.map((family) => (
          <MenuItem key={family} value={family}>
            {familyName(family)}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        {...choice}
        label="Site"
        value={sites.some((site) => site.id === filter.siteId) ? filter.siteId : ''}
        onChange={(event) => onSet('site', event.target.value)}
      >
        <MenuItem value="">all</MenuItem>
        {sites.map((site) => (
          <MenuItem key={site.id} value={site.id}>
            {site.name}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        {...choice}
        label="Status"
        value={filter.state ?? ''}
        onChange={(event) => onSet('state', event.target.value)}
      >
        <MenuItem value="">any state</MenuItem>
        {['late', 'due', 'nearing', 'unknown'].map((state) => (
          <MenuItem key={state} value={state}>
            {state}
          </MenuItem>
        ))}
      </TextField>
    </Stack>
  );
}

/** Machines out of service, by the day they went. */
function Retired() {
  const now = useNow();
  const { data = [] } = useRetiredCompressors();
  if (data.length === 0) return null;
  return (
    <Box component="section" sx={{ mt: 3 }}>
      <Typography variant="h3" component="h2" sx={{ mb: 0.5 }}>
        Retired
      </Typography>
      {data.map((unit: CompressorView) => (
        <Box key={unit.id} sx={{ py: 0.75 }}>
          <MuiLink component={Link} to={`/units/${unit.id}`} sx={{ ...figureFont, fontWeight: 650 }}>
            {unit.tag}
          </MuiLink>
          <Box component="span" sx={{ color: 'text.secondary', pl: 1 }}>
            since {formatDate(unit.retiredOn!, now, 'UTC')}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
