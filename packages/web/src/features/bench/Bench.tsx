import { Box, Link as MuiLink, MenuItem, TextField } from '@mui/material';
import { Suspense } from 'react';
import { Link, Navigate, NavLink, useLocation, useNavigate, useParams } from 'react-router';
import { LoadingSkeleton } from '../../components/States.js';
import { benches } from './benches.js';

/** Calculators, each with its picture: what they start from stands in the address. */
export function Bench() {
  const { tool } = useParams();
  const navigate = useNavigate();
  const location = useLocation();
  const bench = benches.find(({ code }) => code === tool);
  if (!bench) return <Navigate to={`/bench/${benches[0].code}`} replace />;
  const { Tool } = bench;
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: '184px minmax(0, 1fr)' },
        gridTemplateRows: { xs: 'auto 1fr', md: '1fr' },
        flex: 1,
      }}
    >
      <Box component="nav" aria-label="Benches" sx={{ pt: { xs: 1.5, md: 2 }, px: { xs: 2, md: 0 } }}>
        <TextField
          select
          label="Bench"
          size="small"
          fullWidth
          value={bench.code}
          onChange={(event) => void navigate(`/bench/${event.target.value}`)}
          sx={{ display: { md: 'none' }, '& .MuiInputBase-root': { minHeight: 44 } }}
        >
          {benches.map(({ code, name }) => (
            <MenuItem key={code} value={code} sx={{ minHeight: 44 }}>
              {name}
            </MenuItem>
          ))}
        </TextField>
        <MuiLink
          component={Link}
          to="/practice"
          sx={{ display: { xs: 'flex', md: 'none' }, alignItems: 'center', minHeight: 44 }}
        >
          Practice on a simulated machine
        </MuiLink>
        <Box component="ul" sx={{ display: { xs: 'none', md: 'block' }, listStyle: 'none', m: 0, p: 0 }}>
          {benches.map(({ code, name }) => (
            <li key={code}>
              <Box component={NavLink} to={`/bench/${code}`} sx={entry}>
                {name}
              </Box>
            </li>
          ))}
          <li>
            <Box component={NavLink} to="/practice" sx={entry}>
              Practice
            </Box>
          </li>
        </Box>
      </Box>
      <Suspense
        fallback={
          <Box sx={{ px: 2 }}>
            <LoadingSkeleton />
          </Box>
        }
      >
        {/* Led here anew, it begins from the address anew. */}
        <Tool key={location.key} />
      </Suspense>
    </Box>
  );
}

const entry = {
  display: 'block',
  px: 3.5,
  pl: 3,
  py: 1,
  color: 'text.secondary',
  textDecoration: 'none',
  fontSize: '0.86rem',
  fontWeight: 500,
  lineHeight: 1.3,
  borderLeft: '4px solid transparent',
  '&.active': {
    color: 'text.primary',
    fontWeight: 700,
    borderLeftColor: 'primary.main',
    bgcolor: 'background.sheet',
  },
  '&:hover': { color: 'text.primary' },
} as const;
