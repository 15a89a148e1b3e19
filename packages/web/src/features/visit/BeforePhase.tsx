import { Button, Typography } from '@mui/material';
import { checkByCode } from '@entretien/core/checks';
import { beforeReadings, isDoneRunning, prepare, worthMeasuring } from '@entretien/core/visit';
import { useState } from 'react';
import { MeasureCard } from './MeasureCard.js';
import { needsIsolation, openBefore, plannedTasks } from './phases.js';
import { ReasonDialog } from './ReasonDialog.js';
import { PhaseFooter, type PhaseProps } from './PhaseFooter.js';
import { newCautions, StationCard } from './WorkPhase.js';

/** The readings that the work should change, taken while it still runs. */
export function BeforePhase({ atWork, onGo }: PhaseProps) {
  const [leavingOut, setLeavingOut] = useState<string | null>(null);
  const checks = beforeReadings(plannedTasks(atWork), atWork.unit.plate);
  const worth = worthMeasuring(plannedTasks(atWork), atWork.unit.plate);
  const open = openBefore(atWork);
  const { work: running } = prepare(
    plannedTasks(atWork).filter((task) => isDoneRunning(task, atWork.unit.plate)),
    atWork.unit.plate,
  );
  const next = needsIsolation(atWork) ? 'isolate' : 'work';
  return (
    <>
      <Typography sx={{ mb: 1 }}>
        {checks.length === 0
          ? 'Nothing of the planned work shows in a reading. Listen to it run before you stop it.'
          : 'While it still runs: without these nobody can say afterwards whether the work helped.'}
      </Typography>
      {checks.map((check) => (
        <div key={check}>
          <MeasureCard
            atWork={atWork}
            check={check}
            phase="before"
            isOpen={check === open[0] && !atWork.progress.signed}
            onLeaveOut={() => setLeavingOut(check)}
          />
          {atWork.progress.skipped.has(check) && (
            <Typography variant="body2" sx={{ color: 'text.secondary', pb: 1 }}>
              Skipped: {atWork.progress.skipped.get(check)}
            </Typography>
          )}
        </div>
      ))}
      {worth.length > 0 && (
        <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1 }}>
          A new or other intake element shows in the pump-up: worth the minutes before and after.
        </Typography>
      )}
      {worth.map((check) => (
        <MeasureCard key={check} atWork={atWork} check={check} phase="before" />
      ))}
      {running.map((group, index) => (
        <StationCard
          key={group.station}
          atWork={atWork}
          group={group}
          cautions={newCautions(atWork, running, index)}
        />
      ))}
      <PhaseFooter
        about={
          open.length === 0
            ? undefined
            : `Not measured: ${open.map((code) => checkByCode(code)?.name ?? code).join(', ')}`
        }
      >
        <Button variant={open.length === 0 ? 'contained' : 'outlined'} onClick={() => onGo(next)}>
          {next === 'isolate' ? 'Stop it and isolate' : 'To the work'}
        </Button>
      </PhaseFooter>
      {leavingOut !== null && (
        <ReasonDialog
          title={`Skip: ${checkByCode(leavingOut)?.name ?? leavingOut}`}
          usual={['It does not run', 'No instrument at hand', 'It was found stopped']}
          submit="Skip"
          onReason={(reason) => atWork.record({ kind: 'skip', check: leavingOut, reason })}
          onClose={() => setLeavingOut(null)}
        />
      )}
    </>
  );
}
