import { Box, ButtonBase, Typography } from '@mui/material';
import type { CompressorView, StandingView, TaskStandingView } from '@entretien/contracts';
import { stationName } from '@entretien/core/machine';
import { DropMark } from '../../parts/DropMark.js';
import { sayDue } from '../../parts/say-due.js';
import { DueFigure } from '../../parts/DueFigure.js';

interface StandingListProps {
  readonly unit: CompressorView;
  readonly standing: StandingView;
  readonly timeZone: string;
  readonly onChoose: (task: TaskStandingView) => void;
}

/** Every task with its drop, the most pressing first; choosing one begins its record. */
export function StandingList({ unit, standing, timeZone, onChoose }: StandingListProps) {
  if (standing.retired) {
    return (
      <Typography sx={{ color: 'text.secondary', py: 2 }}>
        Out of service since {unit.retiredOn}: nothing is due. Its record stays.
      </Typography>
    );
  }
  return (
    <Box
      component="ul"
      aria-label="What is due"
      sx={{
        listStyle: 'none',
        p: 0,
        m: 0,
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', sm: 'minmax(0, 1fr) minmax(0, 1fr)' },
        // Down the first column, then down the second: the order of urgency is read as a list.
        gridTemplateRows: { sm: `repeat(${Math.ceil(standing.tasks.length / 2)}, auto)` },
        gridAutoFlow: { sm: 'column' },
        columnGap: 4,
      }}
    >
      {standing.tasks.map((task) => {
        const due = sayDue(task, Date.parse(standing.at), timeZone);
        return (
          <Box component="li" key={task.code} sx={{ borderBottom: 1, borderColor: 'divider' }}>
            <ButtonBase
              onClick={() => onChoose(task)}
              sx={{
                width: '100%',
                minHeight: 47,
                textAlign: 'left',
                gap: 1.25,
                justifyContent: 'start',
                '&:hover': { bgcolor: 'action.hover' },
              }}
            >
              <DropMark state={task.state} used={task.usedFraction} size={29} />
              <Box sx={{ flex: 1, minWidth: 0 }}>
                <Typography sx={{ fontWeight: 600, fontSize: '0.9rem', lineHeight: 1.25 }} noWrap>
                  {task.name}
                </Typography>
                <Typography
                  variant="caption"
                  sx={{ color: 'text.secondary', display: 'block', lineHeight: 1.25 }}
                  noWrap
                >
                  {stationName(unit, task.station)} · {due.exact}
                </Typography>
              </Box>
              <DueFigure words={due.short} state={task.state} size="0.92rem" />
            </ButtonBase>
          </Box>
        );
      })}
    </Box>
  );
}
