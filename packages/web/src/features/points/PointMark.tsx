import { Box } from '@mui/material';
import type { PointBriefView } from '@entretien/contracts';
import { DropMark } from '../../components/DropMark.js';
import { Vial, verdictColour } from '../../components/VerdictMark.js';

/** How a point of use stands, in one mark. */
export function PointMark({ point: { state, tasks } }: { readonly point: PointBriefView }) {
  return (
    <Box
      sx={{ width: 44, flex: 'none', display: 'flex', alignItems: 'center', color: verdictColour('stop') }}
    >
      {state === 'stopped' ? (
        <Vial verdict="stop" />
      ) : (
        <DropMark state={state} used={tasks[0]?.used ?? null} />
      )}
    </Box>
  );
}

/** What is due of it, in a few words. */
export function dueText({ stops, tasks }: PointBriefView): string {
  const [stop] = stops;
  if (stop) return `Out of use. ${stop.why}`;
  const due = tasks.filter(({ state }) => state === 'due' || state === 'overdue');
  if (due.length === 0) return 'Nothing due.';
  const [first] = due;
  return due.length === 1 ? first!.name : `${first!.name}, and ${due.length - 1} more`;
}
