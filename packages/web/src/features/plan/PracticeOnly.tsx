import { Box, Typography } from '@mui/material';
import { onPracticeOnly, type ServicePlan } from '@entretien/core/plan';

/** Says which intervals nothing but common practice speaks for; nothing where there are none. */
export function PracticeOnly({ plan }: { readonly plan: Pick<ServicePlan, 'tasks'> }) {
  const tasks = onPracticeOnly(plan);
  if (tasks.length === 0) return null;
  return (
    <Box component="details" sx={{ my: 1 }}>
      <Typography component="summary" variant="body2" sx={{ cursor: 'pointer', minHeight: 44, py: 1.25 }}>
        {tasks.length} {tasks.length === 1 ? 'interval stands' : 'intervals stand'} on common practice only.
        Enter what the manual or the label says.
      </Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {tasks.map(({ name }) => name).join('; ')}.
      </Typography>
    </Box>
  );
}
