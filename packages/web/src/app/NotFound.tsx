import { Box, Button } from '@mui/material';
import { Link } from 'react-router';
import { Empty } from '../components/States.js';

export function NotFound() {
  return (
    <Box sx={{ px: { xs: 2, md: 3.5 } }}>
      <Empty
        isPage
        title="There is nothing at this address."
        action={
          <Button component={Link} to="/" variant="contained">
            Go to Today
          </Button>
        }
      >
        It may have been mistyped, or the tag that led here is out of date.
      </Empty>
    </Box>
  );
}

export function PageBroke() {
  return (
    <Box sx={{ px: { xs: 2, md: 3.5 } }}>
      <Empty
        isPage
        title="This page broke."
        action={
          <Button variant="contained" onClick={() => window.location.reload()}>
            Load it again
          </Button>
        }
      >
        What was recorded is safe on the server.
      </Empty>
    </Box>
  );
}
