import { Box, Button, Stack, Typography } from '@mui/material';
import type { StopView } from '@entretien/contracts';
import { stopText } from '@entretien/core/stop';
import { useState } from 'react';
import { useStopsOf } from '../../data/queries.js';
import { formatDate } from '../describe-due.js';
import { useNow } from '../use-now.js';
import { toLocalText } from '../WhenField.js';
import { useMay } from '../../data/me.js';
import { BringBackDialog } from './BringBackDialog.js';

interface BannerProps {
  readonly compressorId: string;
  readonly timeZone: string;
}

/** What must not be used on this unit, why, since when, and the way back. */
export function StopBanner({ compressorId, timeZone }: BannerProps) {
  const stops = useStopsOf(compressorId);
  const maySign = useMay('sign');
  const [ending, setEnding] = useState<StopView | null>(null);
  const now = useNow();
  if (stops.length === 0) return null;
  return (
    <Box
      component="section"
      aria-label="Out of service"
      sx={{ border: 2, borderColor: 'oxide', bgcolor: 'oxideGround', mb: 1.5 }}
    >
      {stops.map((stop) => (
        <Box key={stop.id} sx={{ px: 1.75, py: 1.25, '& + &': { borderTop: 1, borderColor: 'oxide' } }}>
          <Typography sx={{ fontWeight: 750, color: 'oxide', fontSize: '1.1rem' }}>
            {stopText(stop)}
          </Typography>
          <Typography sx={{ fontWeight: 600 }}>{stop.why}</Typography>
          <Typography variant="body2">
            Since {formatDate(toLocalText(Date.parse(stop.since), timeZone).slice(0, 10), now, timeZone)},{' '}
            {stop.byName}
            {stop.informed === null ? '' : ` · told to ${stop.informed}`}
            {stop.toShow === null ? '' : ` · to run again: ${stop.toShow}`}
          </Typography>
          {stop.scope === 'breathing' && (
            <Typography variant="body2" sx={{ fontWeight: 600 }}>
              Cylinders filled since the last good measurement: set aside, traced, nobody breathes from them.
            </Typography>
          )}
          <Stack direction="row" sx={{ gap: 1, mt: 1, flexWrap: 'wrap' }}>
            <Button
              variant="contained"
              color="error"
              href={`/api/compressors/${compressorId}/tag.pdf`}
              target="_blank"
              sx={{ minHeight: 44 }}
            >
              Print the red tag
            </Button>
            {maySign && (
              <Button
                color="inherit"
                variant="outlined"
                onClick={() => setEnding(stop)}
                sx={{ minHeight: 44 }}
              >
                Back in service
              </Button>
            )}
          </Stack>
        </Box>
      ))}
      {ending && <BringBackDialog stop={ending} timeZone={timeZone} onClose={() => setEnding(null)} />}
    </Box>
  );
}
