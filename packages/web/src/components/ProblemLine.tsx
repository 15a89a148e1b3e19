import { Typography } from '@mui/material';
import { sentenceOf } from '../data/api.js';

/** What went wrong, in a line under what was sent; nothing while all is well. */
export function ProblemLine({ error }: { readonly error: unknown }) {
  if (error === null || error === undefined) return null;
  return (
    <Typography role="alert" variant="body2" sx={{ color: 'oxide' }}>
      {sentenceOf(error)}
    </Typography>
  );
}
