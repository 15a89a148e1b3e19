import { Box, Stack, Typography } from '@mui/material';
import type { StandingView } from '@entretien/contracts';
import { describeDayAt } from '@entretien/core/basics';
import { figureFont } from './theme/theme.js';
import { ScanCode } from './ScanCode.js';
import { DueFigure } from './DueFigure.js';
import { describeDue } from './describe-due.js';

interface TagProps {
  readonly compressorId: string;
  readonly tag: string;
  readonly description: string;
  readonly standing: StandingView;
  readonly doneBy: string;
  readonly doneAt: number;
  /** Hours at the service, said as the meter shows them. */
  readonly hours: string | null;
  readonly timeZone: string;
}

/** The card for the machine as it will be printed: done on, at hours, by, next due, and a code that opens the unit. */
export function ServiceTag({
  compressorId,
  tag,
  description,
  standing,
  doneBy,
  doneAt,
  hours,
  timeZone,
}: TagProps) {
  const next = standing.tasks
    .filter(({ coveredBy, likelyOn }) => coveredBy === null && likelyOn !== null)
    .sort((a, b) => a.likelyOn!.localeCompare(b.likelyOn!))
    .slice(0, 4);
  const done = [describeDayAt(doneAt, timeZone), hours ?? '', doneBy];
  return (
    <Box
      component="section"
      aria-label="Service tag"
      sx={{
        bgcolor: 'background.sheet',
        border: 1,
        borderColor: 'strongRule',
        borderRadius: 1,
        p: 2,
        maxWidth: 460,
      }}
    >
      <Stack direction="row" sx={{ gap: 2 }}>
        <Box sx={{ flex: 1, minWidth: 0 }}>
          <Box sx={{ ...figureFont, fontWeight: 750, fontSize: '1.7rem', lineHeight: 1.1 }}>{tag}</Box>
          <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1 }}>
            {description}
          </Typography>
          <Typography variant="caption" sx={{ color: 'text.secondary' }}>
            Done
          </Typography>
          <Typography sx={{ fontWeight: 650 }}>{done.filter((part) => part !== '').join(' · ')}</Typography>
        </Box>
        <ScanCode
          address={`${window.location.origin}/units/${compressorId}`}
          name={`Code that opens ${tag}`}
        />
      </Stack>
      <Typography variant="caption" sx={{ color: 'text.secondary', display: 'block', mt: 1 }}>
        Next due
      </Typography>
      {next.map((task) => {
        const due = describeDue(task, Date.parse(standing.at), timeZone, standing.meter);
        return (
          <Stack
            key={task.code}
            direction="row"
            sx={{ justifyContent: 'space-between', gap: 2, borderTop: 1, borderColor: 'divider', py: 0.3 }}
          >
            <Typography variant="body2">{task.name}</Typography>
            <DueFigure text={due.exact} state={task.state} size="0.86rem" />
          </Stack>
        );
      })}
    </Box>
  );
}
