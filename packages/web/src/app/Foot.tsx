import { Box, Link } from '@mui/material';
import { useServerHealth } from '../data/queries.js';

/** At the foot of every page: the release, and what others have given to it. */
export function Foot() {
  const { data } = useServerHealth();
  return (
    <Box
      component="footer"
      sx={{
        px: { xs: 2, md: 3.5 },
        py: 1.5,
        display: 'flex',
        flexWrap: 'wrap',
        columnGap: 2,
        alignItems: 'center',
        typography: 'caption',
        color: 'text.secondary',
        '@media print': { display: 'none' },
      }}
    >
      {/* Its place is there before the server has answered. */}
      <span>Entretien {data?.version}</span>
      <span>The maker’s manual, local rules and licensed trades come first.</span>
      <Link
        href="/third-party-notices.txt"
        target="_blank"
        color="inherit"
        sx={{ minHeight: 44, display: 'inline-flex', alignItems: 'center' }}
      >
        Licences of others
      </Link>
    </Box>
  );
}
