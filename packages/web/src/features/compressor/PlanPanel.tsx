import { Box, Button, Typography } from '@mui/material';
import { Link } from 'react-router';
import type { CompressorView, PlanView } from '@entretien/contracts';
import { stationName, type DataPlate } from '@entretien/core/machine';
import { formatInterval, type ServiceTask } from '@entretien/core/plan';
import { Figure } from '../../components/Figure.js';

/** The plan that this unit follows, task by task, with where its intervals come from. */
export function PlanPanel({ plan, unit }: { readonly plan: PlanView; readonly unit: CompressorView }) {
  return (
    <Box>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', justifyContent: 'space-between', mb: 1 }}>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          Version {plan.version}
          {plan.nextEffectiveAt === null ? '' : `, the next from ${plan.nextEffectiveAt.slice(0, 10)}`}. The
          maker’s manual always beats common practice.
        </Typography>
        <Button component={Link} to={`/units/${unit.id}/plan`} variant="outlined" sx={{ flex: 'none' }}>
          Change the plan
        </Button>
      </Box>
      <PlanTasks tasks={plan.tasks} plate={unit} />
    </Box>
  );
}

/** The tasks of a plan with their intervals. */
export function PlanTasks({
  tasks,
  plate,
}: {
  readonly tasks: readonly ServiceTask[];
  readonly plate: DataPlate;
}) {
  return (
    <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0 }}>
      {tasks.map((task) => (
        <Box component="li" key={task.code} sx={{ py: 0.8, borderBottom: 1, borderColor: 'divider' }}>
          <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 1, alignItems: 'baseline' }}>
            <Typography variant="body2" sx={{ fontWeight: 600 }}>
              {task.name}
            </Typography>
            <Figure
              value={formatInterval(task)}
              sx={{ fontSize: '0.84rem', whiteSpace: 'normal', textAlign: 'right' }}
            />
          </Box>
          <Typography variant="caption" sx={{ color: 'text.secondary' }}>
            {[
              stationName(plate, task.station),
              `${task.minutes} min`,
              task.isolation.replaceAll('-', ' '),
              task.because,
            ]
              .filter(Boolean)
              .join(' · ')}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}
