import CheckIcon from '@mui/icons-material/Check';
import ScheduleIcon from '@mui/icons-material/Schedule';
import { Box, Button, Link as MuiLink, Stack, Typography } from '@mui/material';
import type { MeterView, SiteMetersView } from '@entretien/contracts';
import type { HourReading } from '@entretien/core/hours';
import { formatFigure } from '@entretien/core/quantities';
import { useState } from 'react';
import { Link } from 'react-router';
import { figureFont } from '../../components/theme/theme.js';
import { useOutbox } from '../../data/outbox/outbox.js';
import { Figure } from '../../components/Figure.js';
import { StopMark } from '../../components/stop/StopMark.js';
import { LastFigure } from '../../components/meter/MeterTexts.js';
import { useNow } from '../../components/use-now.js';
import { MeterField } from './MeterField.js';
import { isRead, lastReading, meterLog } from '../../components/meter/typed-figure.js';
import { useWalkStore, type SavedReading } from './walk-store.js';

export interface MeterRowProps {
  readonly meter: MeterView;
  readonly place: number;
  readonly site: SiteMetersView;
  readonly onSaved: () => void;
}

/** One meter on the walk: what it showed last, a field for what it shows now, and what is to be said of that. */
export function MeterRow({ meter, place, site, onSaved }: MeterRowProps) {
  const now = useNow();
  const queued = useOutbox(({ items }) => items);
  const saved = useWalkStore((walk) => walk.saved[meter.compressorId]);
  const [isMending, setMending] = useState(false);
  const log = meterLog(meter, queued, now);
  const last = lastReading(log);
  const done = isRead(last, now) && !isMending;
  const refused = queued.find(
    ({ compressorId, problem }) => compressorId === meter.compressorId && problem !== null,
  );
  return (
    <Box component="li" aria-label={meter.tag} sx={row}>
      <Box sx={{ minWidth: 0 }}>
        <Typography noWrap>
          <Box component="span" sx={{ ...figureFont, color: 'text.secondary', pr: 1 }}>
            {place}
          </Box>
          <MuiLink
            component={Link}
            to={`/units/${meter.compressorId}`}
            sx={{
              ...figureFont,
              fontWeight: 700,
              fontSize: '1.05rem',
              color: 'text.primary',
              textDecoration: 'none',
            }}
          >
            {meter.tag}
          </MuiLink>{' '}
          <StopMark compressorId={meter.compressorId} />
        </Typography>
        <Typography variant="body2" noWrap sx={{ color: 'text.secondary' }}>
          {meter.name ?? meter.description}
        </Typography>
      </Box>
      <Typography variant="body2" component="div" sx={{ pt: { md: 1.5 } }}>
        {!done && last && <LastFigure last={last} now={now} timeZone={site.timeZone} />}
      </Typography>
      {done ? (
        <ReadFigure
          last={last!}
          isWaiting={isWaiting(queued, meter.compressorId)}
          // What was read elsewhere is put right on the unit's own page.
          onMend={saved && saved.hours === last!.hours ? () => setMending(true) : null}
        />
      ) : meter.hasHourMeter ? (
        <MeterField
          meter={meter}
          site={site}
          log={isMending && saved ? without(log, saved) : log}
          mends={isMending && saved ? saved : null}
          onSaved={() => {
            setMending(false);
            onSaved();
          }}
          onGiveUp={isMending ? () => setMending(false) : null}
        />
      ) : (
        <Typography variant="body2" sx={{ color: 'text.secondary', alignSelf: 'center' }}>
          No hour meter.{' '}
          <MuiLink component={Link} to={`/units/${meter.compressorId}?do=estimate`} sx={{ fontWeight: 600 }}>
            Estimate its hours
          </MuiLink>
        </Typography>
      )}
      {refused && !done && (
        <Typography role="alert" variant="body2" sx={{ gridColumn: '1 / -1', color: 'oxide' }}>
          {String(refused.body['hours'] ?? '')} h was refused:{' '}
          {refused.problem!.detail ?? refused.problem!.title} It waits in the outbox.
        </Typography>
      )}
    </Box>
  );
}

const row = {
  display: 'grid',
  gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: '190px 190px minmax(0, 1fr)' },
  columnGap: 2,
  rowGap: 0.5,
  py: 1.25,
  borderBottom: '1px solid var(--mui-palette-divider)',
};

function isWaiting(queued: ReturnType<typeof useOutbox.getState>['items'], compressorId: string): boolean {
  return queued.some((item) => item.compressorId === compressorId && item.problem === null);
}

function without<Log extends { readonly readings: readonly HourReading[] }>(
  log: Log,
  saved: SavedReading,
): Log {
  const readings = log.readings.filter(
    ({ takenAt, hours }) => takenAt !== saved.takenAt || hours !== saved.hours,
  );
  return { ...log, readings };
}

interface ReadFigureProps {
  readonly last: HourReading;
  readonly isWaiting: boolean;
  readonly onMend: (() => void) | null;
}

function ReadFigure({ last, isWaiting, onMend }: ReadFigureProps) {
  return (
    <Stack direction="row" sx={{ alignItems: 'center', gap: 1.5, minHeight: 56, flexWrap: 'wrap' }}>
      <Figure
        value={formatFigure(last.hours, { figures: 6, maxDecimals: 1 })}
        unit="h"
        sx={{ fontSize: '1.3rem', fontWeight: 650 }}
      />
      <Stack
        direction="row"
        sx={{ alignItems: 'center', gap: 0.5, color: isWaiting ? 'brass' : 'primary.main' }}
      >
        {isWaiting ? <ScheduleIcon fontSize="small" /> : <CheckIcon fontSize="small" />}
        <Typography variant="body2" sx={{ fontWeight: 600 }}>
          {isWaiting ? 'kept here, not sent yet' : 'saved'}
        </Typography>
      </Stack>
      {onMend && (
        <Button onClick={onMend} sx={{ ml: 'auto', minHeight: 44 }}>
          Correct
        </Button>
      )}
    </Stack>
  );
}
