import { Box } from '@mui/material';
import { stopText } from '@entretien/core/stop';
import { useStopsOf } from '../../data/queries.js';

/** Beside the name of a unit, wherever it stands: that it must not be used. */
export function StopMark({ compressorId }: { readonly compressorId: string }) {
  const stops = useStopsOf(compressorId);
  if (stops.length === 0) return null;
  const worst = stops.find(({ scope }) => scope === 'unit') ?? stops[0]!;
  return (
    <Box
      component="span"
      sx={{
        display: 'inline-block',
        bgcolor: 'oxide',
        color: 'background.default',
        fontFamily: 'inherit',
        fontSize: '0.78rem',
        fontWeight: 700,
        lineHeight: 1.3,
        px: 0.75,
        mr: 0.75,
        py: 0.25,
        borderRadius: 0.5,
        whiteSpace: 'nowrap',
      }}
    >
      {stopText(worst)}
    </Box>
  );
}
