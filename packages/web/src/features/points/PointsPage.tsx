import { Box, Button, Stack, Typography } from '@mui/material';
import type { PointBriefView } from '@entretien/contracts';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { figureFont } from '../../components/theme/theme.js';
import { Empty, ErrorState, LoadingSkeleton } from '../../components/States.js';
import { usePoints } from '../../data/queries.js';
import { PointDialog } from './PointDialog.js';
import { dueText, PointMark } from './PointMark.js';

/** The points of use of every site, or those that one unit feeds. */
export function PointsPage() {
  const [search] = useSearchParams();
  const unit = search.get('unit');
  const points = usePoints(unit === null ? '' : `?compressorId=${encodeURIComponent(unit)}`);
  const [isAdding, setAdding] = useState(false);
  const fed = unit === null ? undefined : points.data?.[0]?.units.find(({ id }) => id === unit);
  return (
    <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: 4, width: '100%', maxWidth: 1100 }}>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'center', gap: 1, mb: 1 }}>
        <Typography variant="h1">
          {fed ? `Points of use fed by ${fed.tag}` : 'Points of use'}{' '}
          {points.data && (
            <Box component="span" sx={{ fontWeight: 450, color: 'text.secondary' }}>
              {points.data.length}
            </Box>
          )}
        </Typography>
        <Button variant="contained" onClick={() => setAdding(true)} sx={{ flex: 'none' }}>
          Add a point
        </Button>
      </Stack>
      {unit !== null && (
        <Button component={Link} to="/points" sx={{ mb: 1, px: 0.5 }}>
          All points of use
        </Button>
      )}
      {points.isPending && <LoadingSkeleton lines={8} />}
      {points.isError && <ErrorState error={points.error} onRetry={() => void points.refetch()} />}
      {points.data?.length === 0 && (
        <Empty title="No point of use is on record.">
          Filter, regulator and lubricator in front of a machine or a hose: added here, their elements, bowls
          and oil come due like everything else.
        </Empty>
      )}
      {points.data &&
        bySite(points.data).map(([site, list]) => <SiteList key={site} site={site} points={list} />)}
      {isAdding && <PointDialog unitId={unit} onClose={() => setAdding(false)} />}
    </Box>
  );
}

/** In the order in which the most urgent of each site comes. */
function bySite(
  points: readonly PointBriefView[],
): readonly (readonly [string, readonly PointBriefView[]])[] {
  const sites = new Map<string, PointBriefView[]>();
  for (const point of points) sites.set(point.siteName, [...(sites.get(point.siteName) ?? []), point]);
  return [...sites];
}

function SiteList({ site, points }: { readonly site: string; readonly points: readonly PointBriefView[] }) {
  return (
    <Box component="section" aria-label={site} sx={{ mb: 2.5 }}>
      <Typography variant="h3" component="h2" sx={{ mb: 0.5 }}>
        {site}
      </Typography>
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {points.map((point) => (
          <Box component="li" key={point.id}>
            <Stack
              component={Link}
              to={`/points/${point.id}`}
              direction="row"
              sx={{
                alignItems: 'center',
                gap: 1,
                minHeight: 60,
                borderBottom: 1,
                borderColor: 'divider',
                color: 'inherit',
                textDecoration: 'none',
                '&:hover': { bgcolor: 'action.hover' },
              }}
            >
              <PointMark point={point} />
              <Box sx={{ minWidth: 0, flex: 1, py: 0.75 }}>
                <Typography sx={{ lineHeight: 1.3 }}>
                  <Box component="span" sx={{ ...figureFont, fontWeight: 650, pr: 1 }}>
                    {point.tag}
                  </Box>{' '}
                  {point.place}
                </Typography>
                <Typography
                  variant="body2"
                  sx={{ color: point.state === 'fresh' ? 'text.secondary' : 'text.primary', lineHeight: 1.3 }}
                >
                  {dueText(point)}
                </Typography>
              </Box>
              <Typography
                variant="body2"
                sx={{ color: 'text.secondary', flex: 'none', display: { xs: 'none', sm: 'block' } }}
              >
                from {point.units.map(({ tag }) => tag).join(', ')}
              </Typography>
            </Stack>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
