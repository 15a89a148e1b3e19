import { RunHours } from '../../components/RunHours.js';
import { Box, Link as MuiLink, Stack, Typography } from '@mui/material';
import type { FleetCompressorView } from '@entretien/contracts';
import { stopText } from '@entretien/core/stop';
import { Link } from 'react-router';
import { usePreferences } from '../../data/preferences.js';
import { figureFont } from '../../components/theme/theme.js';
import { RulerRow, RulerScale, stackedView } from '../../components/ruler/RulerRow.js';
import { namePressing, describeDue } from '../../components/describe-due.js';
import { StopMark } from '../../components/stop/StopMark.js';
import { useWidth } from '../../components/use-width.js';
import type { SiteGroup } from './today-list.js';
import { useStopsOf } from '../../data/queries.js';
import { DueFigure } from '../../components/DueFigure.js';
import { NothingDue } from '../../components/NothingDue.js';

/** Where the columns of a row stand; the ruler has a line of its own on a phone. */
const columns = {
  display: 'grid',
  gridTemplateColumns: { xs: '1fr auto', md: '150px minmax(0, 1fr) 226px' },
  columnGap: { xs: 1, md: 2 },
};

interface RulerStackProps {
  readonly groups: readonly SiteGroup[];
  readonly zoneOf: (siteId: string) => string;
  readonly now: number;
}

/** Every machine's ruler under the other, with one now-line through all of them. */
export function RulerStack({ groups, zoneOf, now }: RulerStackProps) {
  const mode = usePreferences((preferences) => preferences.rulerIn);
  const [ref, width] = useWidth<HTMLDivElement>();
  const view = stackedView[mode];
  const nowShare = (-view.from / (view.to - view.from)) * 100;
  return (
    <Box sx={{ position: 'relative' }}>
      <Box sx={{ ...columns, display: { xs: 'none', md: 'grid' } }}>
        <span />
        <Box sx={{ position: 'relative' }}>
          {width > 0 && <RulerScale mode={mode} width={width} now={now} />}
          <Box
            sx={{
              position: 'absolute',
              left: `${nowShare}%`,
              top: 1,
              transform: 'translateX(-50%)',
              px: 1,
              borderRadius: 9,
              bgcolor: 'text.primary',
              color: 'background.default',
              ...figureFont,
              fontSize: 12.5,
              fontWeight: 700,
              lineHeight: '18px',
              zIndex: 1,
            }}
          >
            now
          </Box>
        </Box>
      </Box>
      <Box
        aria-hidden
        sx={{
          ...columns,
          display: { xs: 'none', md: 'grid' },
          position: 'absolute',
          inset: 0,
          top: 18,
          pointerEvents: 'none',
        }}
      >
        <span />
        <Box ref={ref} sx={{ position: 'relative' }}>
          <Box
            sx={{
              position: 'absolute',
              left: `${nowShare}%`,
              top: 0,
              bottom: 0,
              borderLeft: '1.6px solid',
              borderColor: 'text.primary',
            }}
          />
        </Box>
      </Box>
      {groups.map((group) => (
        <Box key={group.siteId} component="section" aria-label={group.siteName} sx={{ position: 'relative' }}>
          <Typography
            variant="h3"
            component="h2"
            sx={{ pt: { xs: 1.5, md: 0.5 }, width: 'fit-content', bgcolor: 'background.default', pr: 1 }}
          >
            {group.siteName}
            <MuiLink
              component={Link}
              to={`/sites/${group.siteId}/walk`}
              aria-label={`Read the hours at ${group.siteName}`}
              sx={walkLink}
            >
              read hours
            </MuiLink>
            <MuiLink
              component={Link}
              to={`/visits?plan&site=${group.siteId}`}
              aria-label={`Visit ${group.siteName}`}
              sx={walkLink}
            >
              visit
            </MuiLink>
          </Typography>
          {group.units.map((unit) => (
            <CompressorRow
              key={unit.compressorId}
              unit={unit}
              mode={mode}
              width={width}
              timeZone={zoneOf(group.siteId)}
            />
          ))}
        </Box>
      ))}
    </Box>
  );
}

const walkLink = {
  typography: 'body2',
  fontWeight: 600,
  ml: 1.5,
  textDecoration: 'none',
  display: 'inline-flex',
  minHeight: { xs: 44, md: 24 },
  alignItems: 'center',
};

interface CompressorRowProps {
  readonly unit: FleetCompressorView;
  readonly mode: 'hours' | 'days';
  readonly width: number;
  readonly timeZone: string;
}

function CompressorRow({ unit, mode, width, timeZone }: CompressorRowProps) {
  const [ref, ownWidth] = useWidth<HTMLDivElement>();
  const [first] = unit.tasks;
  const due = first && describeDue(first, Date.parse(unit.at), timeZone, unit.meter);
  const stops = useStopsOf(unit.compressorId);
  const more = unit.counts.overdue + unit.counts.due + unit.counts.nearing - 1;
  return (
    <Box
      component={Link}
      to={`/units/${unit.compressorId}`}
      aria-label={`${unit.tag}, ${unit.description}${stops[0] ? `, ${stopText(stops[0])}` : ''}${first && due ? `: ${first.name}, ${due.short}` : unit.unjudged === undefined ? '' : ': cannot be judged'}`}
      sx={{
        ...columns,
        alignItems: 'center',
        color: 'inherit',
        textDecoration: 'none',
        borderBottom: { xs: '1px solid var(--mui-palette-divider)', md: 0 },
        py: { xs: 1, md: 0 },
        minHeight: 36,
        '&:hover': { bgcolor: 'action.hover' },
      }}
    >
      <Box sx={{ minWidth: 0 }}>
        <Stack
          direction="row"
          sx={{ justifyContent: { xs: 'start', md: 'space-between' }, gap: 1.5, alignItems: 'baseline' }}
        >
          <Box sx={{ ...figureFont, fontWeight: 700, fontSize: '0.98rem' }}>{unit.tag}</Box>
          <HoursOf unit={unit} />
        </Stack>
        <Typography
          variant="caption"
          sx={{ color: 'text.secondary', display: 'block', lineHeight: 1.2 }}
          noWrap
        >
          {unit.description}
        </Typography>
        <StopMark compressorId={unit.compressorId} />
      </Box>
      <Box
        ref={ref}
        sx={{ gridRow: { xs: 2, md: 'auto' }, gridColumn: { xs: '1 / -1', md: 'auto' }, minWidth: 0 }}
      >
        <RulerRow unit={unit} mode={mode} width={width || ownWidth} ownNow={width === 0} />
      </Box>
      <Box sx={{ minWidth: 0, textAlign: { xs: 'right', md: 'left' } }}>
        {first && due ? (
          <Stack
            direction={{ xs: 'column', md: 'row' }}
            sx={{ justifyContent: 'space-between', gap: { xs: 0, md: 1 } }}
          >
            <Box sx={{ minWidth: 0 }}>
              <Typography variant="body2" sx={{ fontWeight: 600, lineHeight: 1.25 }} noWrap>
                {namePressing(first)}
              </Typography>
              <Typography
                variant="caption"
                sx={{ color: 'text.secondary', display: 'block', lineHeight: 1.2 }}
                noWrap
              >
                {more > 0 && first.state !== 'unknown' ? `and ${more} more` : due.exact}
              </Typography>
            </Box>
            <DueFigure text={due.short} state={first.state} size="0.9rem" />
          </Stack>
        ) : (
          <NothingDue unit={unit} />
        )}
      </Box>
    </Box>
  );
}

function HoursOf({ unit }: { readonly unit: FleetCompressorView }) {
  if (unit.runHours === null)
    return (
      <Box component="span" sx={{ color: 'text.secondary', typography: 'caption' }}>
        not read
      </Box>
    );
  return (
    <Box component="span" sx={{ textAlign: { md: 'right' } }}>
      <RunHours of={unit} />
    </Box>
  );
}
