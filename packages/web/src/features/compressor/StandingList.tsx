import { Alert, Box, Button, ButtonBase, Typography } from '@mui/material';
import type { CompressorView, StandingView, TaskStandingView } from '@entretien/contracts';
import { stationName } from '@entretien/core/machine';
import { useState } from 'react';
import { DropMark } from '../../components/DropMark.js';
import { describeDue } from '../../components/describe-due.js';
import { DueFigure } from '../../components/DueFigure.js';

interface StandingListProps {
  readonly unit: CompressorView;
  readonly standing: StandingView;
  readonly timeZone: string;
  readonly onChoose: (task: TaskStandingView) => void;
  readonly onStartingPoints: () => void;
}

/** So many at first: the rest at a touch. */
const SHOWN = 9;

/** Every task with its drop, the most pressing first; choosing one begins its record. */
export function StandingList({ unit, standing, timeZone, onChoose, onStartingPoints }: StandingListProps) {
  const [showsAll, setShowsAll] = useState(false);
  if (standing.unjudged !== undefined) return <Alert severity="error">{standing.unjudged}</Alert>;
  if (standing.retired) {
    return (
      <Typography sx={{ color: 'text.secondary', py: 2 }}>
        Out of service since {unit.retiredOn}: nothing is due. Its record stays.
      </Typography>
    );
  }
  const own = standing.tasks.filter(({ coveredBy }) => coveredBy === null);
  const pressing = own.filter(({ state }) => state !== 'fresh').length;
  const shown = showsAll ? standing.tasks : own.slice(0, Math.max(SHOWN, pressing));
  const rest = standing.tasks.length - shown.length;
  const hasUnknown = standing.tasks.some(({ startedBy, vessel }) => startedBy === null && vessel === null);
  return (
    <>
      <Box
        component="ul"
        aria-label="What is due"
        sx={{
          listStyle: 'none',
          p: 0,
          m: 0,
          display: 'grid',
          gridTemplateColumns: {
            xs: 'minmax(0, 1fr)',
            sm: 'repeat(2, minmax(0, 1fr))',
            lg: 'repeat(3, minmax(0, 1fr))',
          },
          columnGap: 3,
        }}
      >
        {shown.map((task) => {
          const due = describeDue(task, Date.parse(standing.at), timeZone, standing.meter);
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
                    {[stationName(unit, task.station), due.date].filter(Boolean).join(' · ')}
                  </Typography>
                </Box>
                <DueFigure text={due.short} state={task.state} size="0.92rem" />
              </ButtonBase>
            </Box>
          );
        })}
      </Box>
      {rest > 0 && (
        <Button onClick={() => setShowsAll(true)} sx={{ mt: 0.5, minHeight: 44 }}>
          {rest === 1 ? '1 more task' : `${rest} more tasks`}
        </Button>
      )}
      {hasUnknown && (
        <Button
          variant="outlined"
          onClick={onStartingPoints}
          sx={{ mt: 1, ml: rest > 0 ? 1 : 0, minHeight: 44 }}
        >
          Set last done
        </Button>
      )}
    </>
  );
}
