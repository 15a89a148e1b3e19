import { Box, type BoxProps } from '@mui/material';
import { figureFont } from './theme/theme.js';

/** A number as the hero of its place: large, tabular, its unit small beside it. */
export function Figure({
  value,
  unit,
  ...box
}: { readonly value: string; readonly unit?: string } & BoxProps) {
  return (
    <Box component="span" {...box} sx={{ ...figureFont, fontWeight: 650, whiteSpace: 'nowrap', ...box.sx }}>
      {value}
      {unit !== undefined && (
        <Box
          component="span"
          sx={{ fontSize: '0.72em', fontWeight: 500, color: 'text.secondary', pl: '0.2em' }}
        >
          {unit}
        </Box>
      )}
    </Box>
  );
}
