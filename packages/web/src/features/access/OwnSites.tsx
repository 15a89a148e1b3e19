import { Box, Link as MuiLink, Stack, Typography } from '@mui/material';
import type { OwnPaperView, OwnSiteView, OwnUnitView } from '@entretien/contracts';
import { useQuery } from '@tanstack/react-query';
import { getJson } from '../../data/api.js';
import { Empty, ErrorState, LoadingSkeleton } from '../../components/States.js';
import { figureFont } from '../../components/theme/theme.js';

/** What a customer sees: how their machines stand, and the reports of what was done. */
export function OwnSites() {
  const sites = useQuery({ queryKey: ['own'], queryFn: () => getJson<readonly OwnSiteView[]>('/own') });
  return (
    <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: 4, maxWidth: 1600, width: '100%' }}>
      <Typography variant="h1">Your machines</Typography>
      {sites.isPending && <LoadingSkeleton lines={6} />}
      {sites.isError && <ErrorState error={sites.error} onRetry={() => void sites.refetch()} />}
      {sites.data?.length === 0 && (
        <Empty title="No site of yours is entered yet.">
          Ask the workshop that looks after your machines.
        </Empty>
      )}
      {(sites.data ?? []).map((site) => (
        <Box component="section" key={site.id} aria-label={site.name} sx={{ mt: 2, mb: 4 }}>
          <Typography variant="h2">{site.name}</Typography>
          <Box
            sx={{
              display: 'grid',
              gridTemplateColumns: { xs: 'minmax(0, 1fr)', lg: 'minmax(0, 3fr) minmax(0, 2fr)' },
              columnGap: 6,
              rowGap: 2,
              alignItems: 'start',
            }}
          >
            <Box>
              {site.units.map((unit) => (
                <OwnUnit key={unit.id} unit={unit} />
              ))}
            </Box>
            <Box>
              <Papers title="Service reports" papers={site.visits} of="visits" />
              <Papers title="Repairs" papers={site.repairs} of="repairs" />
            </Box>
          </Box>
        </Box>
      ))}
    </Box>
  );
}

function OwnUnit({ unit }: { readonly unit: OwnUnitView }) {
  return (
    <Box sx={{ borderTop: 1, borderColor: 'divider', py: 1.25 }}>
      <Typography>
        <Box component="span" sx={{ ...figureFont, fontWeight: 700 }}>
          {unit.tag}
        </Box>{' '}
        <Box component="span" sx={{ color: 'text.secondary' }}>
          {unit.description}
        </Box>
      </Typography>
      {unit.stops.map((stop) => (
        <Typography key={stop} sx={{ color: 'oxide', fontWeight: 650 }}>
          {stop}
        </Typography>
      ))}
      {unit.next.slice(0, 3).map(({ name, due, isLate }) => (
        <Stack key={name} direction="row" sx={{ gap: 2, justifyContent: 'space-between' }}>
          <Typography variant="body2">{name}</Typography>
          <Typography variant="body2" sx={{ fontWeight: 600, color: isLate ? 'oxide' : 'text.secondary' }}>
            {due}
          </Typography>
        </Stack>
      ))}
    </Box>
  );
}

interface PapersProps {
  readonly title: string;
  readonly papers: readonly OwnPaperView[];
  readonly of: 'visits' | 'repairs';
}

function Papers({ title, papers, of }: PapersProps) {
  if (papers.length === 0) return null;
  return (
    <Box component="section" aria-label={title} sx={{ mb: 2 }}>
      <Typography variant="h3">{title}</Typography>
      {papers.map(({ id, day, text }) => (
        <MuiLink
          key={id}
          href={`/api/${of}/${id}/report.pdf`}
          target="_blank"
          sx={{
            display: 'flex',
            alignItems: 'center',
            gap: 2,
            minHeight: 44,
            borderTop: 1,
            borderColor: 'divider',
          }}
        >
          <Box component="span" sx={{ flex: 'none', minWidth: 96 }}>
            {day}
          </Box>
          {text}
        </MuiLink>
      ))}
    </Box>
  );
}
