import { Typography } from '@mui/material';
import type { StandingView } from '@entretien/contracts';

/** In the place of a unit's most pressing task: there is none, or the unit cannot be judged and somebody must look. */
export function NothingDue({ unit }: { readonly unit: StandingView }) {
  const isJudged = unit.unjudged === undefined;
  return (
    <Typography
      variant="body2"
      sx={{ color: isJudged ? 'text.secondary' : 'error.main', fontWeight: isJudged ? 400 : 600 }}
    >
      {isJudged ? 'Nothing to do' : 'Cannot be judged'}
    </Typography>
  );
}
