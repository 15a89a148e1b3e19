import { isMeterChanged, formatHoursSeen } from '@entretien/core/hours';
import { Box, Link as MuiLink, Stack, Typography } from '@mui/material';
import type { CompressorView, SiteView, StandingView } from '@entretien/contracts';
import { describeMachine } from '@entretien/core/machine';
import { formatFigure, formatQuantity, unitByCode, type QuantityKind } from '@entretien/core/quantities';
import { Link } from 'react-router';
import { usePreferences } from '../../data/preferences.js';
import { useFindings } from '../../data/queries.js';
import { OpenMark } from '../../components/OpenMark.js';
import { Figure } from '../../components/Figure.js';
import { standsStill } from '../../components/standing-still.js';
import { formatAgo, formatDate } from '../../components/describe-due.js';

interface HeadProps {
  readonly unit: CompressorView;
  readonly site: SiteView | undefined;
  readonly standing: StandingView;
  readonly timeZone: string;
  readonly children: React.ReactNode;
}

/** The machine in a line: what it is, how it runs, when it was last read; and what can be done. */
export function CompressorHead({ unit, site, standing, timeZone, children }: HeadProps) {
  return (
    <Stack
      direction={{ xs: 'column', sm: 'row' }}
      sx={{ justifyContent: 'space-between', alignItems: { sm: 'start' }, gap: 1.5, mb: 1 }}
    >
      <Box sx={{ minWidth: 0 }}>
        <Typography variant="h1">
          {unit.tag}{' '}
          <Box component="span" sx={{ fontWeight: 450, color: 'text.secondary' }}>
            {site?.name}
          </Box>
        </Typography>
        <Stack
          direction="row"
          component="ul"
          sx={{
            flexWrap: 'wrap',
            columnGap: 2.5,
            rowGap: 0.25,
            listStyle: 'none',
            p: 0,
            m: 0,
            mt: 0.5,
            typography: 'body2',
            color: 'text.secondary',
          }}
        >
          {[unit.name, describeMachine(unit)].filter(Boolean).map((text) => (
            <Box component="li" key={text}>
              {text}
            </Box>
          ))}
          <Measured kind="pressure" value={unit.workingPressureBar} />
          <Measured kind="flow" value={unit.fadLpm} />
          {standing.runHours !== null && isMeterChanged(standing.meter) && (
            <Box component="li">{formatHoursSeen(standing.meter, Math.round(standing.runHours), 'full')}</Box>
          )}
          <Box component="li">{describeUse(standing)}</Box>
          <Box component="li">
            {standing.lastReadingAt === null
              ? unit.hasHourMeter === false
                ? 'no hour meter'
                : 'never read'
              : `read ${formatAgo(Date.parse(standing.lastReadingAt), Date.parse(standing.at), timeZone)}`}
          </Box>
          <Box component="li">
            <OpenMark compressorId={unit.id} />
            <OpenFindings compressorId={unit.id} />
          </Box>
          {unit.retiredOn !== undefined && (
            <Box component="li" sx={{ color: 'oxide' }}>
              retired {formatDate(unit.retiredOn, Date.parse(standing.at), timeZone)}
            </Box>
          )}
        </Stack>
      </Box>
      <Stack
        direction="row"
        sx={{
          flex: 'none',
          gap: 1,
          // Five of them are more than a phone is wide; four fit beside each other.
          '&:has(> :nth-child(5))': { flexWrap: { xs: 'wrap', sm: 'nowrap' } },
          '& .MuiButton-root': {
            flex: { xs: 'auto', sm: 'none' },
            px: { xs: 1, sm: 2 },
            whiteSpace: 'nowrap',
          },
        }}
      >
        {children}
      </Stack>
    </Stack>
  );
}

/** What was lately measured on it and found other than good. */
function OpenFindings({ compressorId }: { readonly compressorId: string }) {
  const { data } = useFindings();
  const own = (data?.items ?? []).filter(({ measurement }) => measurement.compressorId === compressorId);
  if (own.length === 0) return null;
  return (
    <MuiLink
      component={Link}
      to={`/units/${compressorId}?tab=checks&check=${own[0]!.measurement.check}`}
      sx={{ fontWeight: 650, color: 'brass', display: 'inline-block', py: 0.25 }}
    >
      {own.length === 1 ? '1 finding' : `${own.length} findings`}
    </MuiLink>
  );
}

function describeUse(standing: StandingView): React.ReactNode {
  const { hoursPerDay, runHoursBasis } = standing;
  if (hoursPerDay === null) return 'use not known yet';
  if (standsStill(standing)) return 'standing still';
  return (
    <>
      <Figure value={formatFigure(hoursPerDay, { maxDecimals: 1 })} unit="h" /> a day
      {runHoursBasis === 'declared' ? ', declared' : ''}
    </>
  );
}

function Measured({ kind, value }: { readonly kind: QuantityKind; readonly value: number | undefined }) {
  const chosen = usePreferences((preferences) => preferences.units[kind]);
  if (value === undefined) return null;
  const shown = formatQuantity(value, kind, unitByCode(kind, chosen));
  return (
    <li>
      <Figure value={shown.figure} unit={shown.unit} />
    </li>
  );
}
