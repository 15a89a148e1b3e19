import { Box, Button, Stack, Typography } from '@mui/material';
import { checksFor } from '@entretien/core/checks';
import { stationName } from '@entretien/core/machine';
import type { ServiceTask } from '@entretien/core/plan';
import { isLockedBy, describeMissing } from '@entretien/core/isolation';
import {
  isDoneRunning,
  lookFindings,
  lookNames,
  NOT_CONFIRMED,
  prepare,
  resultsOf,
  wantsLook,
  type StationWork,
  type VisitTask,
} from '@entretien/core/visit';
import { useState } from 'react';
import { KnownFigures } from '../../components/KnownFigures.js';
import { Caution } from '../../components/Caution.js';
import { ActionAlert } from '../../components/ActionAlert.js';
import { ManualsAtHand } from '../../components/papers/ManualsAtHand.js';
import { FoundDialog } from './FoundDialog.js';
import { AfterPause } from './IsolatePhase.js';
import { MeasureCard } from './MeasureCard.js';
import { NoteField } from './NoteField.js';
import { PartsUsed } from './PartsUsed.js';
import { PhotoButton } from './PhotoButton.js';
import { VisitPhotos } from './VisitPhotos.js';
import { plannedTasks } from './phases.js';
import { AddTask, stateTitles } from './PreparePhase.js';
import { ReasonDialog } from './ReasonDialog.js';
import { Tick } from '../../components/Tick.js';
import { PhaseFooter, type PhaseProps } from './PhaseFooter.js';

/** Station by station along the air path: done or not done, with what was found on the way. */
export function WorkPhase({ atWork, onGo }: PhaseProps) {
  const { unit, progress } = atWork;
  const { work } = prepare(plannedTasks(atWork), unit.plate);
  const open = progress.tasks.filter(({ outcome }) => outcome === 'open').length;
  return (
    <>
      {progress.signed ? <SignedFor /> : <AfterPause atWork={atWork} onGo={onGo} />}
      <ManualsAtHand compressorId={atWork.view.compressorId} />
      {work.map((group, index) => (
        <Box key={`${group.isolation} ${group.station}`}>
          {group.isolation !== work[index - 1]?.isolation && (
            <StateTitle group={group} atWork={atWork} onGo={onGo} />
          )}
          <StationCard atWork={atWork} group={group} cautions={newCautions(atWork, work, index)} />
        </Box>
      ))}
      {work.length === 0 && <LookRound atWork={atWork} />}
      {!progress.signed && <AddTask atWork={atWork} />}
      <PartsUsed atWork={atWork} />
      <NoteField atWork={atWork} />
      <PhaseFooter
        about={
          open === 0
            ? 'Everything is answered.'
            : `${open} of ${progress.tasks.length} tasks not answered yet`
        }
      >
        <Button variant={open === 0 ? 'contained' : 'outlined'} onClick={() => onGo('prove')}>
          Restart and prove
        </Button>
      </PhaseFooter>
    </>
  );
}

/** What was signed for stays as it was; a note, a photo, a fault or a part can still be added. */
function SignedFor() {
  return (
    <Typography role="status" sx={{ fontWeight: 600, mb: 1 }}>
      Signed for: it stays as it was. Other work belongs to a new visit.
    </Typography>
  );
}

/** No task is planned: whatever one came to look at can be measured, photographed and written down. */
function LookRound({ atWork }: Pick<PhaseProps, 'atWork'>) {
  const [check, setCheck] = useState<string | null>(null);
  const [isFinding, setFinding] = useState(false);
  return (
    <Box component="section" aria-label="A look round" sx={{ mb: 1.5 }}>
      <Typography sx={{ color: 'text.secondary', mb: 1 }}>
        No task is planned. Measure what you came for, write down what you saw.
      </Typography>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', mb: 1 }}>
        {checksFor(atWork.unit.plate).map(({ code, name }) => (
          <Button
            key={code}
            variant={check === code ? 'contained' : 'outlined'}
            aria-expanded={check === code}
            onClick={() => setCheck(check === code ? null : code)}
            sx={{ minHeight: 44 }}
          >
            {name}
          </Button>
        ))}
      </Stack>
      {check !== null && <MeasureCard key={check} atWork={atWork} check={check} phase="work" />}
      <Stack direction="row" sx={{ gap: 1 }}>
        <Button onClick={() => setFinding(true)} sx={quiet}>
          Found a fault
        </Button>
        <PhotoButton atWork={atWork} station={undefined} />
      </Stack>
      {isFinding && <FoundDialog atWork={atWork} onClose={() => setFinding(false)} />}
    </Box>
  );
}

/** The state the machine must be in for what follows, and whether it is. */
function StateTitle({ group, atWork, onGo }: PhaseProps & { readonly group: StationWork }) {
  const missing = missingOf(atWork, group);
  return (
    <Box sx={{ pt: 1.25, pb: 0.5 }}>
      <Typography variant="h3" component="h2" sx={{ color: 'text.secondary' }}>
        {stateTitles[group.isolation]}
      </Typography>
      {missing.length > 0 && hasOpen(atWork, group) && (
        <ActionAlert severity="warning" way="Isolate" onGo={() => onGo('isolate')}>
          Locked until isolated. {describeMissing(atWork.unit.plate, missing)}
        </ActionAlert>
      )}
    </Box>
  );
}

/** The hazards of a station that do not stand at one just above it already, in the same state of the machine. */
export function newCautions(
  atWork: PhaseProps['atWork'],
  work: readonly StationWork[],
  index: number,
): readonly string[] {
  const { isolation, tasks } = work[index]!;
  const cautioned = work
    .slice(0, index)
    .filter((group) => group.isolation === isolation && hasOpen(atWork, group))
    .flatMap((group) => group.tasks.map(({ caution }) => caution));
  const own = tasks.flatMap(({ caution }) =>
    caution === undefined || cautioned.includes(caution) ? [] : [caution],
  );
  return [...new Set(own)];
}

function missingOf(atWork: PhaseProps['atWork'], { station, tasks }: StationWork) {
  return atWork.missingFor({ kind: 'station', station, tasks: tasks.map(({ code }) => code) });
}

/** Work on a running machine, while one’s own lock is on. */
function isRunningWhileLocked(
  { unit, isolation, by }: PhaseProps['atWork'],
  { tasks }: StationWork,
): boolean {
  return tasks.some((task) => isDoneRunning(task, unit.plate)) && isLockedBy(isolation, by);
}

function hasOpen(atWork: PhaseProps['atWork'], { tasks }: StationWork): boolean {
  return tasks.some((task) => answerOf(atWork, task)?.outcome === 'open');
}

function answerOf({ progress }: PhaseProps['atWork'], { code }: ServiceTask): VisitTask | undefined {
  return progress.tasks.find((task) => task.code === code);
}

interface StationCardProps extends Pick<PhaseProps, 'atWork'> {
  readonly group: StationWork;
  readonly cautions: readonly string[];
}

/** One station in one state of the machine, with what is planned there. */
export function StationCard({ atWork, group, cautions }: StationCardProps) {
  const { station, tasks } = group;
  const [isFinding, setFinding] = useState(false);
  const [isMeasuring, setMeasuring] = useState(false);
  const name = stationName(atWork.unit.plate, station);
  const isRunning = isRunningWhileLocked(atWork, group);
  const isShut = isRunning || missingOf(atWork, group).length > 0;
  // What nobody knows the history of is looked at one by one.
  const open = tasks.filter((task) => answerOf(atWork, task)?.outcome === 'open' && !isLook(atWork, task));
  const checks = checksFor(atWork.unit.plate).filter((check) => check.station(atWork.unit.plate) === station);
  const isAlone = tasks.length === 1;
  const isSigned = atWork.progress.signed !== null;
  const doneAll = !isSigned && open.length > 0 && (
    <Button
      variant="contained"
      disabled={isShut}
      onClick={() => void atWork.record({ kind: 'station', station, tasks: open.map(({ code }) => code) })}
      sx={{ minHeight: 44, flex: 'none' }}
    >
      {isAlone ? 'Done, as expected' : 'All done, as expected'}
    </Button>
  );
  return (
    <Box component="section" aria-label={name} sx={{ borderTop: 1, borderColor: 'divider', pt: 1, pb: 0.25 }}>
      {isAlone ? (
        <Typography variant="body2" component="h3" sx={{ color: 'text.secondary' }}>
          {name}
        </Typography>
      ) : (
        <Stack direction="row" sx={{ alignItems: 'center', gap: 1, flexWrap: 'wrap' }}>
          <Typography variant="h2" component="h3" sx={{ flex: 1 }}>
            {name}
          </Typography>
          {doneAll}
        </Stack>
      )}
      {tasks.map((task) => (
        <TaskRow
          key={task.code}
          atWork={atWork}
          task={task}
          isShut={isShut}
          doneAlone={isAlone ? doneAll : null}
        />
      ))}
      {isRunning && open.length > 0 && (
        <Typography variant="body2" sx={{ color: 'brass', fontWeight: 600 }}>
          Done while it runs: before isolating, or after the restart.
        </Typography>
      )}
      {open.length > 0 && cautions.map((text) => <Caution key={text} text={text} />)}
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', pl: { md: 3.5 } }}>
        <Button onClick={() => setFinding(true)} sx={quiet}>
          Found a fault
        </Button>
        <PhotoButton atWork={atWork} station={station} />
        {checks.length > 0 && !isSigned && (
          <Button onClick={() => setMeasuring(!isMeasuring)} aria-expanded={isMeasuring} sx={quiet}>
            Checks here
          </Button>
        )}
      </Stack>
      <VisitPhotos atWork={atWork} of={{ station }} />
      {!isShut &&
        !isSigned &&
        testsOf(atWork, tasks).map((code) => (
          <MeasureCard key={`result ${code}`} atWork={atWork} check={code} phase="work" />
        ))}
      {isMeasuring &&
        checks.map(({ code }) => <MeasureCard key={code} atWork={atWork} check={code} phase="work" />)}
      {isFinding && <FoundDialog atWork={atWork} station={station} onClose={() => setFinding(false)} />}
    </Box>
  );
}

/** Tests among the tasks: done only with their result, which is asked for here. */
function testsOf({ unit }: PhaseProps['atWork'], tasks: readonly ServiceTask[]): readonly string[] {
  return [...new Set(tasks.flatMap((task) => resultsOf(task, unit.plate).slice(0, 1)))];
}

const quiet = { minHeight: { xs: 44, md: 32 }, py: 0 };

interface TaskRowProps extends Pick<PhaseProps, 'atWork'> {
  readonly task: ServiceTask;
  readonly isShut: boolean;
  /** The button of the whole station, where this is its only task. */
  readonly doneAlone: React.ReactNode;
}

/** Whether a task is to be looked at first: nobody knows its history, and nobody looked yet. */
function isLook({ view, unit, progress }: PhaseProps['atWork'], task: ServiceTask): boolean {
  const standing = view.standing.tasks.find(({ code }) => code === task.code);
  const answer = progress.tasks.find(({ code }) => code === task.code);
  return (
    standing !== undefined &&
    wantsLook(standing) &&
    answer?.outcome === 'open' &&
    answer.found === null &&
    resultsOf(task, unit.plate).length === 0
  );
}

/** How it was found: each answer is where the task counts from. */
function LookButtons({ atWork, task }: Pick<TaskRowProps, 'atWork' | 'task'>) {
  return (
    <Stack
      direction="row"
      role="group"
      aria-label={`How it looks: ${task.name}`}
      sx={{ flexWrap: 'wrap', gap: 0.75, flex: { xs: '1 0 100%', md: 'none' } }}
    >
      {lookFindings.map((found) => (
        <Button
          key={found}
          variant="outlined"
          onClick={() => void atWork.record({ kind: 'look', task: task.code, found })}
          sx={{ minHeight: 44, px: 1.25, flex: { xs: '1 0 40%', md: 'none' } }}
        >
          {lookNames[found].charAt(0).toUpperCase() + lookNames[found].slice(1)}
        </Button>
      ))}
    </Stack>
  );
}

function TaskRow({ atWork, task, isShut, doneAlone }: TaskRowProps) {
  const [isAsking, setAsking] = useState(false);
  const answer = answerOf(atWork, task);
  const outcome = answer?.outcome ?? 'open';
  const asksLook = isLook(atWork, task);
  const record = (next: 'done' | 'not-done' | 'open', reason?: string) =>
    atWork.record({
      kind: 'task',
      task: task.code,
      outcome: next,
      ...(reason === undefined ? {} : { reason }),
    });
  return (
    <Box sx={{ py: 0.4 }}>
      <Stack direction="row" sx={{ alignItems: 'start', gap: 1.25, flexWrap: { xs: 'wrap', md: 'nowrap' } }}>
        <Tick on={outcome === 'done' || outcome === 'looked'} size={24} />
        <Box sx={{ flex: { xs: '1 0 200px', md: 1 }, minWidth: 0 }}>
          <Typography sx={{ fontWeight: 650, lineHeight: 1.3 }}>{task.name}</Typography>
          {outcome === 'open' && <KnownFigures task={task.code} plate={atWork.unit.plate} />}
          {outcome === 'open' && !asksLook && task.how && (
            <Typography variant="body2" sx={{ color: 'text.secondary' }}>
              {task.how}
            </Typography>
          )}
          {asksLook && (
            <Typography variant="body2" sx={{ color: 'text.secondary' }}>
              No record yet. How does it look? It counts from there.
            </Typography>
          )}
          {outcome === 'open' && answer?.found && (
            <Typography variant="body2" sx={{ color: 'brass', fontWeight: 600 }}>
              {lookNames[answer.found]}: due now. Do it, or say why not.
            </Typography>
          )}
          {outcome === 'looked' && (
            <Typography variant="body2" sx={{ color: 'text.secondary' }}>
              Looked at: {answer?.reason}. It counts from there.
            </Typography>
          )}
          {outcome === 'not-done' && (
            <Typography variant="body2" sx={{ color: 'brass', fontWeight: 600 }}>
              Not done: {answer?.reason}
            </Typography>
          )}
          {answer?.marks.includes(NOT_CONFIRMED) && (
            <Typography variant="body2" sx={{ color: 'oxide', fontWeight: 600 }}>
              Isolation not confirmed for this.
            </Typography>
          )}
        </Box>
        {atWork.progress.signed ? null : asksLook ? (
          <LookButtons atWork={atWork} task={task} />
        ) : outcome === 'open' ? (
          <Stack direction="row-reverse" sx={{ flex: { xs: '1 0 100%', md: 'none' }, gap: 0.5 }}>
            {doneAlone ?? (
              <Button
                disabled={isShut}
                onClick={() => void record('done')}
                aria-label={`Done: ${task.name}`}
                sx={{ minHeight: 44 }}
              >
                Done
              </Button>
            )}
            <Button
              color="inherit"
              onClick={() => setAsking(true)}
              aria-label={`Not done: ${task.name}`}
              sx={{ minHeight: 44, color: 'text.secondary' }}
            >
              Not done
            </Button>
          </Stack>
        ) : (
          <Button
            color="inherit"
            onClick={() => void record('open')}
            aria-label={`Undo: ${task.name}`}
            sx={{ minHeight: 44, color: 'text.secondary' }}
          >
            Undo
          </Button>
        )}
      </Stack>
      {isAsking && (
        <ReasonDialog
          title={`Not done: ${task.name}`}
          usual={[
            'Part missing',
            'No time left',
            'Not needed yet, still good',
            'The customer did not want it',
          ]}
          submit="Not done"
          onReason={(reason) => record('not-done', reason)}
          onClose={() => setAsking(false)}
        />
      )}
    </Box>
  );
}
