import { Box, Button, Stack, Typography } from '@mui/material';
import type { FillingView } from '@entretien/contracts';
import { describeDayAt, formatMoment } from '@entretien/core/basics';
import { formatFigure } from '@entretien/core/quantities';
import { useFormatQuantity } from '../../components/use-format-quantity.js';
import { figureFont } from '../../components/theme/theme.js';

/** What was filled lately, and what that says of the machine. */
export function FillLog({ filling }: { readonly filling: FillingView }) {
  const format = useFormatQuantity();
  const { compressorId, latest, filledToday, sinceReading, cartridge, timeZone, set } = filling;
  const { hours, hoursSd, count } = sinceReading;
  return (
    <Box component="section" aria-label="Fill log">
      <Stack direction="row" sx={{ alignItems: 'center', justifyContent: 'space-between', gap: 1 }}>
        <Typography variant="h2">Fill log</Typography>
        <Stack direction="row">
          <Button
            component="a"
            href={`/api/compressors/${compressorId}/fill-log.csv`}
            download
            sx={{ minHeight: 44 }}
          >
            CSV
          </Button>
          <Button
            component="a"
            href={`/api/compressors/${compressorId}/fill-log.pdf`}
            target="_blank"
            sx={{ minHeight: 44 }}
          >
            PDF
          </Button>
        </Stack>
      </Stack>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {filledToday === 0 ? 'Nothing filled today.' : `${filledToday} filled today.`}
      </Typography>
      {cartridge && (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          The cartridge took up {formatFigure(cartridge.takenUpG, { decimals: 0 })} g of water
          {cartridge.capacityG === null
            ? ''
            : ` of ${formatFigure(cartridge.capacityG, { decimals: 0 })} g`}{' '}
          since {describeDayAt(Date.parse(cartridge.since), timeZone)}, by its fills.
        </Typography>
      )}
      {set.plate.hasHourMeter === false && hours !== null && count > 0 && (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          It ran {formatFigure(hours, { decimals: 1 })} h ± {formatFigure(hoursSd ?? 0, { decimals: 1 })} h
          for {count === 1 ? 'one fill' : `${count} fills`} since its hours were noted last.
        </Typography>
      )}
      <Box component="ol" sx={{ listStyle: 'none', p: 0, m: 0, mt: 1 }}>
        {latest.map((fill) => (
          <Box
            component="li"
            key={fill.id}
            sx={{
              display: 'flex',
              gap: 1.5,
              alignItems: 'baseline',
              borderTop: 1,
              borderColor: 'divider',
              py: 0.75,
            }}
          >
            <Box component="span" sx={{ ...figureFont, fontWeight: 700, minWidth: 64 }}>
              {fill.tag}
            </Box>
            <Box component="span" sx={{ flex: 1 }}>
              {format(fill.fromBar, 'pressure')} → {format(Math.round(fill.settledBar), 'pressure')}
              {fill.outcome === 'stopped' ? ', stopped' : ''}
            </Box>
            <Box component="span" sx={{ color: 'text.secondary', typography: 'body2' }}>
              {formatMoment(Date.parse(fill.endedAt), timeZone)}
            </Box>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
