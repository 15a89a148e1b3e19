import { Box, Typography } from '@mui/material';
import type { CompressorView, PlanView } from '@entretien/contracts';
import { stationName, type DataPlate } from '@entretien/core/machine';
import type { ServiceTask, Trigger } from '@entretien/core/plan';
import { Figure } from '../../parts/Figure.js';

/** The plan that this unit follows, task by task, with where its intervals come from. */
export function PlanPanel({ plan, unit }: { readonly plan: PlanView; readonly unit: CompressorView }) {
  return (
    <Box>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1 }}>
        Version {plan.version}. Intervals are common practice; the maker’s book always beats them.
      </Typography>
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
              value={task.triggers.map(sayTrigger).join(' or ')}
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

function sayTrigger(trigger: Trigger): string {
  if (trigger.kind === 'hours') {
    const every = `${trigger.every.toLocaleString('en')} h`;
    return trigger.first === undefined ? every : `first ${trigger.first} h, then ${every}`;
  }
  return 'months' in trigger.every ? `${trigger.every.months} mo` : `${trigger.every.days} d`;
}
