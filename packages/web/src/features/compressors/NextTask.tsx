import { Stack, Typography } from '@mui/material';
import type { FleetCompressorView } from '@entretien/contracts';
import { DropMark } from '../../components/DropMark.js';
import { namePressing, describeDue } from '../../components/describe-due.js';
import { DueFigure } from '../../components/DueFigure.js';
import { NothingDue } from '../../components/NothingDue.js';

/** What comes first on a unit, and when. */
export function NextTask({
  unit,
  timeZone,
}: {
  readonly unit: FleetCompressorView;
  readonly timeZone: string;
}) {
  const [first] = unit.tasks;
  if (!first) return <NothingDue unit={unit} />;
  const due = describeDue(first, Date.parse(unit.at), timeZone, unit.meter);
  return (
    <Stack direction="row" spacing={1} sx={{ alignItems: 'center', minWidth: 0, width: '100%' }}>
      <DropMark state={first.state} used={first.usedFraction} size={24} />
      <Typography variant="body2" noWrap sx={{ flex: 1, fontWeight: 600 }}>
        {namePressing(first)}
      </Typography>
      <DueFigure text={due.short} state={first.state} size="0.86rem" />
    </Stack>
  );
}
