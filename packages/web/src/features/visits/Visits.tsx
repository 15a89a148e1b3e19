import { Box, Button, Link as MuiLink, Stack, Typography } from '@mui/material';
import type { VisitBriefView } from '@entretien/contracts';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { figureFont } from '../../components/theme/theme.js';
import { useOpenVisits, useVisits } from '../../data/queries.js';
import { StopMark } from '../../components/stop/StopMark.js';
import { formatDate } from '../../components/describe-due.js';
import { Empty, ErrorState, LoadingSkeleton } from '../../components/States.js';
import { useNow } from '../../components/use-now.js';
import { PlanVisitDialog } from './PlanVisitDialog.js';

const stateText: Readonly<Record<VisitBriefView['state'], string>> = {
  planned: 'planned',
  'under-way': 'under way',
  finished: 'finished',
};

/** Visits that were planned, are under way, or done. */
export function Visits() {
  const visits = useVisits();
  const openVisits = useOpenVisits();
  const [search, setSearch] = useSearchParams();
  const isPlanning = search.has('plan');
  const close = () => setSearch({}, { replace: true });
  const open = openVisits.data ?? [];
  const finished = (visits.data ?? []).filter(({ state }) => state === 'finished');
  return (
    <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: 4, maxWidth: 1600, width: '100%' }}>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'start', gap: 2, mb: 1 }}>
        <Box>
          <Typography variant="h1">Visits</Typography>
          {openVisits.data && (
            <Typography sx={{ color: 'text.secondary' }}>
              {open.length === 0
                ? 'None is open.'
                : open.length === 1
                  ? 'One is open.'
                  : `${open.length} are open.`}
            </Typography>
          )}
        </Box>
        <Button
          variant="contained"
          onClick={() => setSearch({ plan: '' })}
          sx={{ flex: 'none', minHeight: 44 }}
        >
          Plan a visit
        </Button>
      </Stack>
      {(visits.isPending || openVisits.isPending) && <LoadingSkeleton lines={6} />}
      {(visits.isError || openVisits.isError) && (
        <ErrorState
          error={visits.error ?? openVisits.error}
          onRetry={() => void Promise.all([visits.refetch(), openVisits.refetch()])}
        />
      )}
      {visits.data?.length === 0 && open.length === 0 && (
        <Empty title="No visit yet.">
          Plan one from here, from a site on Today, or from a machine’s own page: what is due comes along.
        </Empty>
      )}
      <VisitList title="Open" visits={open} />
      <VisitList title="Finished" visits={finished} />
      {isPlanning && <PlanVisitDialog siteId={search.get('site') ?? undefined} onClose={close} />}
    </Box>
  );
}

const FIRST_SHOWN = 20;

function VisitList({
  title,
  visits,
}: {
  readonly title: string;
  readonly visits: readonly VisitBriefView[];
}) {
  const now = useNow();
  const [shown, setShown] = useState(FIRST_SHOWN);
  if (visits.length === 0) return null;
  return (
    <Box component="section" aria-label={title} sx={{ mt: 2 }}>
      <Typography variant="h3" component="h2" sx={{ color: 'text.secondary' }}>
        {title}
      </Typography>
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {visits.slice(0, shown).map((visit) => {
          const unproved = visit.units.reduce((sum, unit) => sum + unit.unproved, 0);
          return (
            <Box
              component="li"
              key={visit.id}
              sx={{
                display: 'grid',
                gridTemplateColumns: { xs: '1fr auto', md: '120px 220px minmax(0, 1fr) auto' },
                columnGap: 2,
                alignItems: 'center',
                borderTop: 1,
                borderColor: 'divider',
                minHeight: 52,
                py: 0.5,
              }}
            >
              <Typography sx={{ ...figureFont, fontWeight: 600 }}>
                {formatDate(visit.plannedOn, now, 'UTC')}
              </Typography>
              <MuiLink
                component={Link}
                to={`/visits/${visit.id}`}
                sx={{
                  fontWeight: 650,
                  py: 1,
                  gridRow: { xs: 1, md: 'auto' },
                  gridColumn: { xs: 1, md: 'auto' },
                }}
              >
                {visit.siteName}
              </MuiLink>
              <Typography sx={{ ...figureFont }}>
                {visit.units
                  .map(({ tag, state }) =>
                    state === 'signed' ? `${tag} ✓` : state === 'left' ? `${tag} (left)` : tag,
                  )
                  .join(', ')}{' '}
                {visit.units.map(({ compressorId }) => (
                  <StopMark key={compressorId} compressorId={compressorId} />
                ))}
              </Typography>
              <Typography
                variant="body2"
                sx={{
                  fontWeight: 600,
                  textAlign: 'right',
                  color: unproved > 0 ? 'oxide' : visit.state === 'finished' ? 'slate' : 'brass',
                }}
              >
                {unproved > 0 ? `${unproved} not proved` : stateText[visit.state]}
              </Typography>
            </Box>
          );
        })}
      </Box>
      {visits.length > shown && <Button onClick={() => setShown(shown + FIRST_SHOWN)}>Show more</Button>}
    </Box>
  );
}
