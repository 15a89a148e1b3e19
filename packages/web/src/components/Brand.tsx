import { Box } from '@mui/material';
import { figureFont } from './theme/theme.js';

/** The name of the application, as it stands at the head of every page; on a phone only where there is room. */
export function Brand({ isOnPhone = true }: { readonly isOnPhone?: boolean }) {
  return (
    <Box
      sx={{
        ...figureFont,
        fontStretch: '110%',
        fontWeight: 750,
        fontSize: '1.2rem',
        color: 'primary.main',
        display: { xs: isOnPhone ? 'block' : 'none', sm: 'block' },
      }}
    >
      Entretien
    </Box>
  );
}
